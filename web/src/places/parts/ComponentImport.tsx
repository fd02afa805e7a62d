import { Button, FileInput } from "@mantine/core";
import type { ImportOutcome } from "@pale-cap/contract";
import type { ComponentKind } from "@pale-cap/core";
import {
  componentChangeWords,
  componentFaultWords,
  componentKindLabels,
  listWords,
  minorPerMajor,
  moneyText,
} from "@pale-cap/wording";
import { useState } from "react";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { decodeFile, parseRows } from "../../workers/catalogueFile";
import {
  type ComponentFileRead,
  type ComponentFileRefusal,
  mostComponentRows,
  readComponentFile,
} from "../../workers/componentFile";
import classes from "./parts.module.css";
import { useImportComponentsMutation } from "./partsApi";

const refusals: Readonly<Record<ComponentFileRefusal, string>> = {
  empty: "This file has no rows below its heading. Nothing was taken in.",
  no_headings:
    "Its headings need at least kind, maker, type and price, as a file that was given out has them. Nothing was taken in.",
  too_many_rows: `This file has more than ${mostComponentRows.toLocaleString("en")} rows. Split it; nothing was taken in.`,
};
const toldRows = 50;

/** A file of other parts is read and shown; nothing is stored before "take these in". */
export function ComponentImport({ currency, onLeave }: { readonly currency: string; readonly onLeave: () => void }) {
  const [file, setFile] = useState<File | null>(null);
  const [read, setRead] = useState<ComponentFileRead | ComponentFileRefusal>();
  const [outcome, setOutcome] = useState<ImportOutcome>();
  const [importId, setImportId] = useState(newId);
  const personId = useAppSelector((state) => state.workplace.personId);
  const [store, { error, isLoading }] = useImportComponentsMutation();

  async function open(chosen: File | null) {
    setFile(chosen);
    setOutcome(undefined);
    setImportId(newId());
    setRead(undefined);
    if (!chosen) return;
    const { rows } = parseRows(decodeFile(new Uint8Array(await chosen.arrayBuffer())).text);
    setRead(readComponentFile(rows, minorPerMajor(currency)));
  }

  async function takeIn({ entries }: ComponentFileRead) {
    if (!file) return;
    const about = { id: importId, source: file.name.slice(0, 120) || "file", rowCount: entries.length, personId };
    const zipped = new Blob([JSON.stringify(entries)]).stream().pipeThrough(new CompressionStream("gzip"));
    const answer = await store({ about, rows: await new Response(zipped).blob() });
    if (answer.data) setOutcome(answer.data);
  }

  return (
    <div className={classes.list}>
      <Part title="Take in a file of other parts" aside={<Button onClick={onLeave}>Leave it</Button>}>
        <FileInput
          label="CSV with one part a row, its headings in the first"
          accept=".csv,.txt,text/csv,text/plain"
          placeholder="pick a file"
          value={file}
          onChange={(chosen) => void open(chosen)}
        />
        {typeof read === "string" && (
          <p role="alert" className={text.wrong}>
            {refusals[read]}
          </p>
        )}
        {read && typeof read !== "string" && !outcome && (
          <>
            <p className={text.softLine} role="status">
              {read.entries.length} {read.entries.length === 1 ? "row" : "rows"} can be taken in, {read.bad.length}{" "}
              cannot.
              {read.unknownHeaders.length > 0 &&
                ` Left out, for nobody here knows the heading: ${listWords(read.unknownHeaders)}.`}
            </p>
            <ul className={classes.log}>
              {read.entries.slice(0, 5).map((one) => (
                <li key={`${one.kind} ${one.maker} ${one.typeNumber}`}>
                  {componentKindLabels[one.kind]} {one.maker} {one.typeNumber}, {Object.keys(one.ratings).length}{" "}
                  ratings, {moneyText(one.priceMinor, currency)}
                </li>
              ))}
            </ul>
            {read.bad.length > 0 && (
              <ul className={classes.bad} aria-label="Rows that cannot be taken">
                {read.bad.slice(0, toldRows).map(({ row, faults }) => (
                  <li key={row}>
                    Row {row}: {faults.map(componentFaultWords).join("; ")}
                  </li>
                ))}
                {read.bad.length > toldRows && <li>and {read.bad.length - toldRows} more rows.</li>}
              </ul>
            )}
            <Button
              variant="filled"
              disabled={read.entries.length === 0}
              loading={isLoading}
              onClick={() => void takeIn(read)}
            >
              Take these {read.entries.length} in
            </Button>
          </>
        )}
        {outcome && (
          <div role="status">
            <p>
              <b>Taken in.</b> {outcome.addedCount} new, {outcome.changedCount} changed, {outcome.sameCount} as they
              were.
            </p>
            <ul className={classes.log}>
              {outcome.changes.map((one) => (
                <li key={`${one.series} ${one.maker} ${one.orderCode}`}>
                  {one.maker} {one.orderCode}:{" "}
                  {one.fields
                    .map((field) => componentChangeWords(field, one.series as ComponentKind, currency))
                    .join(", ")}
                </li>
              ))}
            </ul>
          </div>
        )}
        <ProblemNote problem={asProblem(error)} />
      </Part>
    </div>
  );
}
