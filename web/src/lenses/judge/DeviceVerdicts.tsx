import { type DeviceJudgement, type DeviceLine, formatQuantity, isInCircuit, type TestOutcome } from "@pale-cap/core";
import {
  coarseLabels,
  deviceTrapWords,
  partKindLabels,
  quantityFacts,
  signLabels,
  testWords,
  verdictLabels,
} from "@pale-cap/wording";
import { VerdictGlyph } from "../../drawing/VerdictGlyph";
import { useJob } from "../../job/JobContext";
import { useTarget } from "../../job/useTarget";
import { Part } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import classes from "./judge.module.css";

const outcomeWords: Readonly<Record<TestOutcome, string>> = {
  in_order: "in order",
  bad: "bad",
  doubtful: "doubtful",
  not_done: "not done",
};

/** The tests of one part that is no capacitor, with what each says and why. */
export function DeviceLedger({ judgement }: { readonly judgement: DeviceJudgement }) {
  const lines = judgement.lines.filter((one) => !one.test.isOptional || one.reading !== null);
  return (
    <Part title="What its tests say">
      {judgement.seen.length > 0 && <p>Seen: {judgement.seen.map((sign) => signLabels[sign]).join(", ")}.</p>}
      <ul className={classes.ledger}>
        {lines.map((line) => (
          <li key={line.test.terminals + line.test.code}>
            <div className={classes.lineHead}>
              <strong>
                {line.test.terminals.replace(",", " to ")} {testWords[line.test.code].name}
              </strong>
              <span className={classes.outcome} data-outcome={line.outcome}>
                {outcomeWords[line.outcome]}
              </span>
            </div>
            <div>{readWords(line)}</div>
            <details className={classes.why}>
              <summary>why</summary>
              {testWords[line.test.code].how}
              {line.trap && ` ${deviceTrapWords[line.trap]}`}
            </details>
          </li>
        ))}
      </ul>
      {judgement.traps.map((trap) => (
        <p key={trap} className={text.soft}>
          {deviceTrapWords[trap]}
        </p>
      ))}
    </Part>
  );
}

function readWords({ reading, test, band }: DeviceLine): string {
  const { unit } = quantityFacts[test.quantity];
  const shown = (value: number) => formatQuantity(value, unit).text;
  const wanted = band
    ? band.high >= 200e6
      ? `A sound one reads ${shown(band.low)} or more.`
      : `A sound one reads ${shown(band.low)} to ${shown(band.high)}.`
    : test.quantity === "diode_drop"
      ? "A sound one reads open."
      : "";
  if (!reading) return wanted;
  const value = reading.coarseCode ? coarseLabels[reading.coarseCode] : shown(reading.value ?? 0);
  const state = isInCircuit(reading) ? ", in circuit" : "";
  return `Read ${value}${test.isLive ? ", under power" : state}. ${wanted}`;
}

/** All parts that are no capacitors and that somebody tested, the bad ones first. */
export function DeviceOverview() {
  const { detail, devices } = useJob();
  const [target, select] = useTarget();
  const rank = { failed: 0, worn: 1, cannot_tell: 2, sound: 3, not_measured: 4 } as const;
  const rows = [...devices.values()]
    .filter((one) => one.verdict !== "not_measured")
    .sort((a, b) => rank[a.verdict] - rank[b.verdict]);
  if (rows.length === 0) return null;
  return (
    <Part title="Other parts">
      <ul className={classes.all}>
        {rows.map(({ positionId, verdict }) => {
          const position = detail.positions.find((one) => one.id === positionId);
          if (!position) return null;
          return (
            <li key={positionId} data-selected={target?.id === positionId || undefined}>
              <button type="button" onClick={() => select({ kind: "part", id: positionId })}>
                <VerdictGlyph verdict={verdict} />
                <b>{position.designator}</b>
                <span>{verdictLabels[verdict]}</span>
                <span className={text.soft}>{partKindLabels[position.kind]}</span>
              </button>
            </li>
          );
        })}
      </ul>
    </Part>
  );
}
