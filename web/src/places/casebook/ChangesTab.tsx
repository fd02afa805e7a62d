import { NativeSelect, Switch } from "@mantine/core";
import type { Topology } from "@pale-cap/core";
import { changeWords, leftOutWords, topologyLabels } from "@pale-cap/wording";
import { useState } from "react";
import { Link } from "react-router";
import { useChangeLinesQuery } from "../../job/casebookApi";
import { useLeaveOut } from "../../job/useLeaveOut";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import classes from "./casebook.module.css";

/** Everything that closed jobs moved in the fault knowledge, each with a switch that leaves it out. */
export function ChangesTab() {
  const { data, error } = useChangeLinesQuery();
  const { leftOut, isUsed, problem, leave } = useLeaveOut();
  const [topology, setTopology] = useState("");
  const shown = data?.filter((one) => topology === "" || one.scope === topology);
  const topologies = [...new Set(data?.map((one) => one.scope))];
  const elsewhere = leftOut.filter((code) => !data?.some((one) => one.code === code));
  return (
    <>
      <ProblemNote problem={asProblem(error) ?? problem} />
      <div className={classes.list}>
        <p className={text.softLine}>
          {isUsed
            ? "Chances of the fault knowledge as this shop's closed jobs have moved them, where the cause was shown by a test of its own. They count in every verdict from the next one on, and the verdict names them; a job is never judged by its own result."
            : "The house rules leave all of this out: every chance stays at its default."}{" "}
          <Link to="/house-rules">House rules</Link>
        </p>
        {topologies.length > 1 && (
          <NativeSelect
            label="Supplies"
            value={topology}
            data={[
              { value: "", label: "of every kind" },
              ...topologies.map((value) => ({ value, label: topologyLabels[value as Topology] })),
            ]}
            onChange={(event) => setTopology(event.currentTarget.value)}
          />
        )}
        {data?.length === 0 && (
          <p className={text.soft}>
            Nothing yet. From the house's fewest of closed jobs on whose cause was shown, what they say stands here.
          </p>
        )}
        <ul className={classes.changes}>
          {shown?.map((line) => (
            <li key={line.code} data-out={line.isLeftOut || undefined}>
              <Switch
                label={changeWords(line)}
                checked={!line.isLeftOut}
                disabled={!isUsed}
                onChange={(event) => leave(line.code, !event.currentTarget.checked)}
              />
              {topology === "" && topologies.length > 1 && (
                <div className={classes.note}>{topologyLabels[line.scope as Topology]}</div>
              )}
            </li>
          ))}
          {elsewhere.map((code) => (
            <li key={code} data-out>
              <Switch
                label={leftOutWords(code)}
                checked={false}
                disabled={!isUsed}
                onChange={() => leave(code, false)}
              />
            </li>
          ))}
        </ul>
      </div>
    </>
  );
}
