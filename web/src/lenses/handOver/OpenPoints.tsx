import { Button } from "@mantine/core";
import { type OpenPoint, type OpenPointCode, weightOf } from "@pale-cap/core";
import { notMeasured, openPointWords } from "@pale-cap/wording";
import { Allowed } from "../../job/Allowed";
import { useJob } from "../../job/JobContext";
import { GateRow } from "../../job/panels/power/GateRow";
import { useIsEntryClosed } from "../../ui/closedEntry";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { AcceptForm } from "./AcceptForm";
import classes from "./handOver.module.css";
import { useAccept } from "./useAccept";

interface OpenPointsProps {
  readonly points: readonly OpenPoint[];
  readonly accepted: ReadonlyMap<string, string>;
}

/** What is open: alike points together, each resolved, or accepted with a reason that is picked or typed. */
export function OpenPoints({ points, accepted }: OpenPointsProps) {
  const { detail } = useJob();
  const isClosed = useIsEntryClosed();
  const [accept, { problem, isLoading }] = useAccept();
  const isOpen = (point: OpenPoint) => !accepted.has(point.key);
  const waiting = points.filter(isOpen);
  const light = waiting.filter((point) => weightOf(point.code) === "light");
  const codes = [...new Set(points.map((point) => point.code))];
  return (
    <Part
      title="Open points"
      aside={
        <span className={text.soft}>
          {waiting.length} {detail.job.handedOverAt ? "as things stand now" : "to resolve or accept"}
        </span>
      }
    >
      {points.length === 0 && <p className={text.soft}>None.</p>}
      {light.length > 0 && !isClosed && (
        <Button size="xs" loading={isLoading} onClick={() => void accept(light, notMeasured)}>
          Small repair: accept {light.length === 1 ? "the light point" : `the ${light.length} light points`} as not
          measured
        </Button>
      )}
      <ProblemNote problem={problem} />
      <ul className={classes.points}>
        {codes.map((code) => (
          <Alike key={code} code={code} points={points.filter((one) => one.code === code)} accepted={accepted} />
        ))}
      </ul>
    </Part>
  );
}

/** The open points of one code, and one form for all of them. */
function Alike({ code, points, accepted }: OpenPointsProps & { readonly code: OpenPointCode }) {
  const isClosed = useIsEntryClosed();
  const waiting = points.filter((point) => !accepted.has(point.key));
  const weight = weightOf(code);
  return (
    <li>
      {points.map((point) => (
        <div key={point.key}>
          {openPointWords(point)}
          {accepted.has(point.key) && weight !== "earth" && (
            <span className={text.soft}> accepted: {accepted.get(point.key)}</span>
          )}
        </div>
      ))}
      {weight === "earth"
        ? !isClosed && <EarthWays code={code} />
        : waiting.length > 0 &&
          !isClosed && (
            <Allowed right="accept">
              <AcceptForm points={waiting} weight={weight} />
            </Allowed>
          )}
    </li>
  );
}

/** A protective earth closes by the screw, by a corrected count, or by a bond on the closed case; never by a reason. */
function EarthWays({ code }: { readonly code: OpenPointCode }) {
  const { facts } = useJob();
  const last = facts.powerEvents.filter((one) => one.item === "earth_bond").at(-1) ?? null;
  const demand = { item: "earth_bond", subjectId: null, designator: null, state: "open", check: last } as const;
  if (code === "insulation_low") {
    return (
      <p className={text.soft}>
        No reason closes this: only a reading within its limit, in Prove; else the unit goes back as not repaired.
      </p>
    );
  }
  return (
    <>
      <p className={text.soft}>
        No reason closes this. The screw goes back in, the count is put right in Rework, or the bond is measured on the
        closed case; else the unit goes back as not repaired.
      </p>
      <ul className={classes.points}>
        <GateRow demand={demand} isRefused={false} />
      </ul>
    </>
  );
}
