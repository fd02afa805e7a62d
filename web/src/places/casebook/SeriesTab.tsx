import { TextInput } from "@mantine/core";
import { selectionWords, shareWords } from "@pale-cap/wording";
import { useDeferredValue, useState } from "react";
import { Link } from "react-router";
import { seriesAddress, useSeriesListQuery } from "../../job/casebookApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { ShareBand } from "../../ui/ShareBand";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./casebook.module.css";

/** Series of which closed jobs tell anything: found on boards, and fitted here. */
export function SeriesTab() {
  const { data, error } = useSeriesListQuery();
  const [words, setWords] = useState("");
  const sought = useDeferredValue(words.trim().toLowerCase());
  const shown = data?.filter((one) => [one.name, ...one.makers].some((name) => name.toLowerCase().includes(sought)));
  return (
    <>
      <div className={classes.bar}>
        <TextInput
          className={classes.search}
          aria-label="Find a series"
          placeholder="A series or its maker"
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
        />
      </div>
      <ProblemNote problem={asProblem(error)} />
      <div className={classes.list}>
        <p className={text.softLine}>{data ? selectionWords : "Looking…"}</p>
        {data?.length === 0 && (
          <p className={text.soft}>
            No closed job tells a series yet. Type it with a part in Inspect, and what it turned out to be is counted
            here.
          </p>
        )}
        {shown && shown.length > 0 && (
          <table className={`${text.table} ${text.ruled}`} aria-label="Series">
            <TableHead names={["Series", "Found on boards, had failed", "", "Fitted here"]} />
            <tbody>
              {shown.map((line) => (
                <tr key={line.series}>
                  <td>
                    <Link to={seriesAddress(line.series)}>{line.name}</Link>
                    {line.makers.length > 0 && <div className={classes.note}>{line.makers.join(", ")}</div>}
                  </td>
                  <td className={classes.share}>{shareWords(line.failedCount, line.foundCount, line.share)}</td>
                  <td>
                    <ShareBand share={line.share} />
                  </td>
                  <td className={text.figure}>{line.fittedCount || ""}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
    </>
  );
}
