import { Button } from "@mantine/core";
import type { Net } from "@pale-cap/contract";
import {
  beforeAfter,
  currentPart,
  fittedRippleVolts,
  formatQuantity,
  type HeatCurve,
  heatCurves,
  lastAct,
  lastActOf,
  leadOhmsOf,
  lifeByTenKelvinRule,
  loadedRails,
  type OutputShare,
  outputShares,
  proofPlan,
  type RailCurve,
  railBand,
  railCurve,
  rippleLimitVolts,
  standingReadings,
  timings,
} from "@pale-cap/core";
import {
  coarseLabels,
  deviceName,
  droopWords,
  kneeWords,
  lifeText,
  proofLimitWords,
  proofReasonWords,
  proofStateLabels,
  proofStepLabels,
  settleWords,
  timingWords,
} from "@pale-cap/wording";
import Papa from "papaparse";
import { useMemo } from "react";
import { Link } from "react-router";
import { CurveChart } from "../../drawing/CurveChart";
import { useJob } from "../../job/JobContext";
import { JobPage } from "../../job/JobPage";
import { BeforeAfterTable } from "../../job/panels/BeforeAfterTable";
import { plannedParts, useChosenCatalogue } from "../../job/useChosenCatalogue";
import { download } from "../../ui/download";
import { Quantity } from "../../ui/Quantity";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./prove.module.css";

/** What was read since the last work, drawn against its limits: for the bench and for the record. */
export function ProofPage() {
  return (
    <JobPage name="proof">
      <Curves />
    </JobPage>
  );
}

function Curves() {
  const { detail, facts, rules } = useJob();
  const rails = loadedRails(detail.nets) as readonly Net[];
  const curves = rails.map((net) => ({ net, curve: railCurve(net, facts, leadOhmsOf(facts.acts, net.id)) }));
  const heat = heatCurves(facts);
  const nameOf = ({ targetKind, targetId, isCaseClosed }: HeatCurve) => {
    const places = targetKind === "part" ? detail.positions : [];
    const part = places.find((one) => one.id === targetId)?.designator;
    const name = part ?? detail.nets.find((one) => one.id === targetId)?.name ?? "the unit";
    return isCaseClosed ? `${name}, case closed` : name;
  };
  const steps = proofPlan(facts, rules);
  const isEmpty = curves.every(({ curve }) => curve.points.length === 0) && heat.length === 0;
  return (
    <main className={`${text.page} ${classes.proof}`}>
      <nav className={classes.proofTools}>
        <Button component={Link} to={`/jobs/${detail.job.id}/prove`}>
          Back to Prove
        </Button>
        <Button
          disabled={isEmpty}
          onClick={() =>
            download(`proof-${detail.job.number}.csv`, csvOf(curves, heat, nameOf), "text/csv;charset=utf-8")
          }
        >
          Give out as a file
        </Button>
      </nav>
      <h1>
        {String(detail.job.number).padStart(4, "0")} {deviceName(detail.job)}: proof
      </h1>
      {steps.length > 0 && (
        <table className={`${text.table} ${text.ruled}`} aria-label="Steps of the proof">
          <TableHead names={["Step", "State", "Why", "Held against"]} />
          <tbody>
            {steps.map((step) => (
              <tr key={step.code}>
                <th scope="row">{proofStepLabels[step.code]}</th>
                <td>{proofStateLabels[step.state]}</td>
                <td>{step.note === null ? proofReasonWords[step.reason] : `because ${step.note}`}</td>
                <td>{proofLimitWords[step.code]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {isEmpty && (
        <p className={text.soft}>
          Nothing was read under power since the last work: there is nothing to draw. Prove takes the readings.
        </p>
      )}
      {curves.map(({ net, curve }) => curve.points.length > 0 && <RailCharts key={net.id} net={net} curve={curve} />)}
      <Timings />
      <AsReceived />
      {heat.length > 0 && (
        <section>
          <h2>Heat</h2>
          <div className={classes.chartRow}>
            <CurveChart
              label="Temperature over time"
              x={{ name: "minutes", unit: "min" }}
              y={{ name: "°C", unit: "°C" }}
              lines={heat.map((one) => ({
                name: nameOf(one),
                points: one.points.map((point) => [point.seconds / 60, point.celsius] as const),
              }))}
              limits={[]}
            />
            <ul>
              {heat.map((one) => (
                <li key={`${one.targetKind} ${one.targetId} ${one.isCaseClosed}`}>
                  <b>{nameOf(one)}</b>{" "}
                  {one.settle
                    ? settleWords(one.settle)
                    : `${one.points.length} read; from five on it is told where it settles.`}
                  <LifeThere curve={one} />
                </li>
              ))}
            </ul>
          </div>
        </section>
      )}
    </main>
  );
}

/** Times by their names, each against the most it may be. */
function Timings() {
  const { facts } = useJob();
  const found = timings(facts);
  if (found.length === 0) return null;
  return (
    <section>
      <h2>Timing</h2>
      <ul>
        {found.map((one) => (
          <li key={one.name}>{timingWords(one)}</li>
        ))}
      </ul>
    </section>
  );
}

/** What it drew and sounded like as it came in, beside what was read since. */
function AsReceived() {
  const { detail, facts } = useJob();
  const { inputWatts, outputVolts, lights, sound } = detail.job.intakeDetails.asReceived;
  const words = [
    inputWatts === null ? null : `${inputWatts} W drawn`,
    outputVolts === null ? null : `${outputVolts} V at its output`,
    lights && `lights: ${lights}`,
    sound && `sound: ${sound}`,
  ].filter(Boolean);
  const seen = standingReadings(facts.readings).filter((one) => one.quantity === "observation" && one.isPowered);
  const shares = outputShares(detail.nets, facts);
  const idle = shares.filter((one) => one.efficiencyRatio === null).at(-1);
  const best = shares.reduce<OutputShare | null>(
    (most, one) => (one.efficiencyRatio !== null && one.outputWatts > (most?.outputWatts ?? 0) ? one : most),
    null,
  );
  const order = (fact: { readonly sequence: number | null } | null) => fact?.sequence ?? Number.POSITIVE_INFINITY;
  const change = lastAct(facts.ticks);
  const holdUp = lastActOf(facts.acts, "hold_up", null);
  const held = holdUp && (change === null || order(holdUp) > order(change)) ? (holdUp.value ?? null) : null;
  if (words.length === 0 && beforeAfter(facts).length === 0 && seen.length === 0 && held === null) return null;
  return (
    <section>
      <h2>As it was, and as it is</h2>
      {words.length > 0 && <p>As received: {words.join(", ")}.</p>}
      {idle && <p>Draws {formatQuantity(idle.inputWatts, "W").text} with next to nothing on its outputs.</p>}
      {best?.efficiencyRatio != null && (
        <p>
          Of {formatQuantity(best.inputWatts, "W").text} in, {formatQuantity(best.outputWatts, "W").text} come out:{" "}
          {Math.round(100 * best.efficiencyRatio)} %.
        </p>
      )}
      {held !== null && <p>Its outputs stood for {formatQuantity(held, "s").text} after the mains went.</p>}
      <BeforeAfterTable />
      {seen.length > 0 && (
        <p>
          Noticed under power:{" "}
          {seen.flatMap((one) => (one.coarseCode ? [coarseLabels[one.coarseCode]] : [])).join(", ")}.
        </p>
      )}
    </section>
  );
}

/** The life of the part that stands at a place, at the heat that was read there. */
function LifeThere({ curve }: { readonly curve: HeatCurve }) {
  const { detail } = useJob();
  const catalogue = useChosenCatalogue();
  const fitted = currentPart(detail.fittedParts, curve.targetId);
  const listed = catalogue?.find((one) => one.id === fitted?.cataloguePartId);
  const last = curve.points.at(-1);
  if (!listed || !last) return null;
  const settled = curve.settle?.isTrusted ? curve.settle.settledNowCelsius : null;
  const celsius = settled ?? last.celsius;
  const { cappedLifeHours } = lifeByTenKelvinRule({
    ratedLifeHours: listed.ratedLifeHours,
    ratedTemperatureCelsius: listed.temperatureClassCelsius,
    ambientCelsius: celsius,
  });
  return (
    <div className={text.soft}>
      {listed.maker} {listed.series} at {celsius.toFixed(0)} °C{settled === null ? ", not settled yet" : ""}:{" "}
      {lifeText(cappedLifeHours)} of running, by ten kelvin for half;{" "}
      {curve.isCaseClosed ? "with its case closed." : "closing the case warms it further."}
    </div>
  );
}

function RailCharts({ net, curve }: { readonly net: Net; readonly curve: RailCurve }) {
  const { detail, facts, rules } = useJob();
  const catalogue = useChosenCatalogue();
  const predicted = useMemo(() => {
    const chosen = plannedParts(detail.plans, catalogue);
    return curve.points.flatMap(({ loadAmps }) => {
      const volts = loadAmps > 0 ? fittedRippleVolts(facts, chosen, net.id, loadAmps) : null;
      return volts === null ? [] : [[loadAmps, volts] as const];
    });
  }, [curve.points, detail.plans, catalogue, facts, net.id]);
  const band = railBand(net, rules.rail, true);
  const ripple = rippleLimitVolts(net, rules.rail);
  const pointsOf = (of: (point: RailCurve["points"][number]) => number | null) =>
    curve.points.flatMap((point) => {
      const value = of(point);
      return value === null ? [] : [[point.loadAmps, value] as const];
    });
  const amps = { name: "amperes", unit: "A" };
  return (
    <section>
      <h2>{net.name}</h2>
      <div className={classes.chartRow}>
        <CurveChart
          label={`${net.name}: volts over load`}
          x={amps}
          y={{ name: "volts", unit: "V" }}
          lines={[{ name: net.name, points: pointsOf((one) => one.volts) }]}
          limits={band ? [Math.abs(band.low), Math.abs(band.high)] : []}
        />
        <CurveChart
          label={`${net.name}: ripple over load`}
          x={amps}
          y={{ name: "ripple, V p-p", unit: "V" }}
          lines={[
            { name: "read", points: pointsOf((one) => one.rippleVolts) },
            { name: "predicted with what is fitted", points: predicted },
          ].filter((one) => one.points.length > 0)}
          limits={ripple === null ? [] : [ripple]}
        />
      </div>
      <table className={`${text.table} ${text.ruled}`} aria-label={`Readings of ${net.name}`}>
        <TableHead names={["Load", "Volts", "Ripple"]} />
        <tbody>
          {curve.points.map((one) => (
            <tr key={one.loadAmps}>
              <td>
                <Quantity value={one.loadAmps} unit="A" />
              </td>
              <td>
                <Quantity value={one.volts} unit="V" digits={4} keepsZeros />
              </td>
              <td>
                <Quantity value={one.rippleVolts} unit="V" digits={3} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {curve.droop && (
        <p>{droopWords(curve.droop, Math.abs(net.nominalVolts ?? 0), leadOhmsOf(facts.acts, net.id) !== null)}</p>
      )}
      {curve.line && kneeWords(curve.line) && <p>{kneeWords(curve.line)}</p>}
    </section>
  );
}

/** What was read, a row each: a rail at a load, or a place at a time. */
function csvOf(
  curves: readonly { readonly net: Net; readonly curve: RailCurve }[],
  heat: readonly HeatCurve[],
  nameOf: (curve: HeatCurve) => string,
): string {
  const rows = [
    ...curves.flatMap(({ net, curve }) =>
      curve.points.map((one) => [net.name, one.loadAmps, one.volts ?? "", one.rippleVolts ?? "", "", ""]),
    ),
    ...heat.flatMap((curve) => curve.points.map((one) => [nameOf(curve), "", "", "", one.seconds, one.celsius])),
  ];
  return Papa.unparse(
    { fields: ["place", "load A", "volts V", "ripple V p-p", "time s", "temperature C"], data: rows },
    { escapeFormulae: true },
  );
}
