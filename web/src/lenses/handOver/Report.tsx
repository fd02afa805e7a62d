import { acceptedReasons } from "@pale-cap/contract";
import {
  type CheckState,
  type DeviceLine,
  formatMarkedCapacitance,
  formatQuantity,
  judgeDevices,
  proofOf,
  type Reading,
  standingReadings,
  symptomLabels,
} from "@pale-cap/core";
import {
  cautions,
  chargeWords,
  checkStateLabels,
  coarseLabels,
  dayText,
  momentText,
  openPointWords,
  partKindLabels,
  quantityFacts,
  signLabels,
  verdictLabels,
} from "@pale-cap/wording";
import { VerdictGlyph } from "../../drawing/VerdictGlyph";
import { useJob } from "../../job/JobContext";
import { BeforeAfterTable } from "../../job/panels/BeforeAfterTable";
import { deviceName, netsInOrder } from "../../job/parts";
import { Quantity } from "../../ui/Quantity";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { ReportQuote } from "./ReportQuote";
import { Parts, Work } from "./ReportWork";
import classes from "./report.module.css";
import { deviceRows } from "./reportRows";
import { type ReportRound, useRounds } from "./useRounds";

/** The job on paper: complaint, findings with readings before and after, parts, proof, cautions, warranty. */
export function Report() {
  const { whole, facts, openPoints, charge, nowMilliseconds } = useJob();
  const { detail } = whole;
  const { job } = detail;
  const rounds = useRounds();
  const accepted = acceptedReasons(detail);
  const values = [...detail.readings, ...detail.chargeEvents, ...detail.captures];
  const simulated = values.filter((one) => one.isSimulated).length;
  return (
    <article className={classes.sheet} data-paper>
      <header className={classes.head}>
        <svg viewBox="0 0 44 44" width="44" height="44" aria-hidden="true">
          <circle cx="22" cy="22" r="19" fill="var(--sleeve)" stroke="var(--ink)" strokeWidth="2.4" />
          <path d="M30.6 5a19 19 0 0 1 0 34z" fill="var(--ink)" />
        </svg>
        <div>
          <h1>Repair report {String(job.number).padStart(4, "0")}</h1>
          <div>
            {deviceName(job)}
            {job.deviceSerial && `, serial ${job.deviceSerial}`}
            {job.deviceAgeYears !== null && `, ${job.deviceAgeYears} years old`}
          </div>
        </div>
        <dl className={classes.dates}>
          <dt>Taken in</dt>
          <dd>{dayText(job.createdAt)}</dd>
          <dt>Handed over</dt>
          <dd>{job.handedOverAt ? dayText(job.handedOverAt) : "not yet"}</dd>
          <dt>Warranty until</dt>
          <dd>{job.warrantyUntil ? dayText(job.warrantyUntil) : "set at hand-over"}</dd>
        </dl>
      </header>
      {simulated > 0 && (
        <p role="note">
          {job.realm === "practice" && "A practice job: nobody's unit. "}
          {simulated} of its values {simulated === 1 ? "is" : "are"} simulated.
        </p>
      )}
      <section>
        <h2>Complaint</h2>
        <p>{job.complaint ?? "None noted."}</p>
        {job.symptoms.length > 0 && (
          <p className={text.dim}>{job.symptoms.map((code) => symptomLabels[code] ?? code).join("; ")}.</p>
        )}
        {job.symptomNote && <p className={text.dim}>{job.symptomNote}</p>}
        {job.customerName && <p className={text.dim}>For {job.customerName}.</p>}
      </section>
      {job.verdictSummary && (
        <section>
          <h2>Verdict</h2>
          <p>{job.verdictSummary}</p>
        </section>
      )}
      {rounds.map((round) => (
        <Findings
          key={round.number}
          round={round}
          isOneOfMany={rounds.length > 1}
          hasSummary={rounds.length > 1 || job.verdictSummary === null}
        />
      ))}
      <OtherParts />
      <Parts />
      <Work />
      <Proof />
      <ReportQuote />
      <section>
        <h2>Open points</h2>
        {openPoints.length === 0 && <p>None.</p>}
        <ul>
          {openPoints.map((point) => (
            <li key={point.key}>
              {openPointWords(point)}
              {accepted.has(point.key) && <em> Accepted: {accepted.get(point.key)}</em>}
            </li>
          ))}
        </ul>
      </section>
      <section className={classes.cautions}>
        <h2>Cautions</h2>
        <p>
          State of stored charge when this was printed, {momentText(new Date(nowMilliseconds).toISOString())}:{" "}
          {chargeWords(charge, facts.energyStores, nowMilliseconds)}.
        </p>
        <p>{cautions.storedCharge}</p>
        <p>{cautions.standing}</p>
      </section>
    </article>
  );
}

/** What one round found, as it stood when its first new part went in. */
function Findings(props: { readonly round: ReportRound; readonly isOneOfMany: boolean; readonly hasSummary: boolean }) {
  const { number, rows, summary } = props.round;
  return (
    <section>
      <h2>{props.isOneOfMany ? `Round ${number}: findings, before and after` : "Findings, before and after"}</h2>
      {props.hasSummary && summary && <p>{summary}</p>}
      {rows.length === 0 && <p>No part was measured or condemned.</p>}
      {rows.length > 0 && (
        <table className={`${text.table} ${classes.table}`}>
          <TableHead
            names={["Part", "Rail", "Found", "Seen", "ESR before", "C before", "Judged", "ESR after", "C after"]}
          />
          <tbody>
            {rows.map((row) => (
              <tr key={row.designator}>
                <th scope="row">{row.designator}</th>
                <td>{row.rail}</td>
                <td className={text.figure}>
                  {row.farads === null ? "–" : formatMarkedCapacitance(row.farads)}{" "}
                  {row.volts === null ? "" : `${row.volts}\u00a0V`}
                </td>
                <td>
                  {row.seen.map((sign) => signLabels[sign]).join(", ") || "–"}
                  {row.note && <div className={text.dim}>{row.note}</div>}
                </td>
                <td>
                  <Quantity value={row.before.esr} unit="Ω" />
                  {row.before.band && <div>{coarseLabels[row.before.band]}</div>}
                </td>
                <td>
                  <Quantity value={row.before.capacitance} unit="F" isMarking />
                </td>
                <td className={classes.verdict}>
                  <VerdictGlyph verdict={row.verdict} size={13} /> {verdictLabels[row.verdict]}
                  {row.overruled && (
                    <div>
                      by hand: {row.overruled.reason}; from the readings {verdictLabels[row.overruled.computed]}
                    </div>
                  )}
                </td>
                <td>
                  {row.isReplaced ? <Quantity value={row.after.esr} unit="Ω" /> : "stays in"}
                  {row.after.band && <div>{coarseLabels[row.after.band]}</div>}
                </td>
                <td>{row.isReplaced ? <Quantity value={row.after.capacitance} unit="F" isMarking /> : ""}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

/** What was found on parts that are no capacitors. */
function OtherParts() {
  const { detail, facts, devices } = useJob();
  const rows = deviceRows(detail, judgeDevices(facts, "found"), devices);
  if (rows.length === 0) return null;
  return (
    <section>
      <h2>Other parts</h2>
      <table className={`${text.table} ${classes.table}`}>
        <TableHead names={["Part", "", "Seen", "Read", "Judged", "Since"]} />
        <tbody>
          {rows.map((row) => (
            <tr key={row.designator}>
              <th scope="row">{row.designator}</th>
              <td>{partKindLabels[row.kind]}</td>
              <td>
                {row.seen.map((sign) => signLabels[sign]).join(", ") || "–"}
                {row.note && <div className={text.dim}>{row.note}</div>}
              </td>
              <td>{row.lines.map(deviceLineText).join("; ") || "–"}</td>
              <td className={classes.verdict}>
                {row.verdict ? (
                  <>
                    <VerdictGlyph verdict={row.verdict} size={13} /> {verdictLabels[row.verdict]}
                  </>
                ) : (
                  "not measured"
                )}
              </td>
              <td>
                {row.after === null
                  ? "stays in"
                  : row.after === undefined
                    ? "replaced, the new one not read"
                    : `replaced, the new one reads ${verdictLabels[row.after]}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function deviceLineText({ test, reading }: DeviceLine): string {
  const value = reading?.coarseCode
    ? coarseLabels[reading.coarseCode]
    : formatQuantity(reading?.value ?? 0, quantityFacts[test.quantity].unit).text;
  return `${test.terminals.replace(",", " to ")} ${value}`.trim();
}

/** What is not simply within its limits is said beside the number. */
function CheckNote({ state }: { readonly state: CheckState }) {
  if (state === "passed" || state === "no_limit" || state === "not_measured") return null;
  return <div className={text.soft}>{checkStateLabels[state]}</div>;
}

function Proof() {
  const { detail, facts, rules } = useJob();
  const rails = netsInOrder(detail).filter(
    (net) => net.fullLoadAmps !== null || facts.readings.some((reading) => reading.targetId === net.id),
  );
  const at = (readings: readonly Reading[], netId: string) => {
    const last = standingReadings(readings)
      .filter((one) => one.targetId === netId)
      .at(-1);
    return last ? momentText(last.measuredAt) : "";
  };
  return (
    <section>
      <h2>Proof</h2>
      {rails.length === 0 && <p>No rail was measured.</p>}
      {rails.length > 0 && (
        <table className={`${text.table} ${classes.table}`}>
          <TableHead
            names={[
              "Rail",
              "Promised",
              "Unloaded",
              "Loaded",
              "At",
              "Regulation",
              "Ripple p-p",
              "Limit",
              "Last reading",
            ]}
          />
          <tbody>
            {rails.map((net) => {
              const { unloaded, loaded, ripple, loadRegulationRatio } = proofOf(net, facts, rules);
              return (
                <tr key={net.id}>
                  <th scope="row">{net.name}</th>
                  <td>
                    <Quantity value={net.fullLoadAmps} unit="A" />
                  </td>
                  <td>
                    <Quantity value={unloaded.reading?.value ?? null} unit="V" digits={4} keepsZeros />
                    <CheckNote state={unloaded.state} />
                  </td>
                  <td>
                    <Quantity value={loaded.reading?.value ?? null} unit="V" digits={4} keepsZeros />
                    <CheckNote state={loaded.state} />
                  </td>
                  <td>
                    <Quantity value={loaded.reading?.loadAmps ?? null} unit="A" />
                  </td>
                  <td>
                    <Quantity value={loadRegulationRatio} unit="%" digits={2} />
                  </td>
                  <td>
                    <Quantity value={ripple.reading?.value ?? null} unit="V" />
                    <CheckNote state={ripple.state} />
                  </td>
                  <td>
                    <Quantity value={ripple.high} unit="V" />
                  </td>
                  <td>{at(facts.readings, net.id)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      <BeforeAfterTable className={classes.table} />
    </section>
  );
}
