import { Button } from "@mantine/core";
import type { Net } from "@pale-cap/contract";
import { netsInOrder } from "@pale-cap/contract";
import {
  beforeAfter,
  isRunSinceLastAct,
  likelyRail,
  proofOf,
  type RailCheck,
  type RailProof,
  retestReasons,
  settledIn,
} from "@pale-cap/core";
import {
  cautions,
  checkStateLabels,
  falsifierWords,
  likelyRailWords,
  logTime,
  openPointWords,
  quantityFacts,
  retestLabels,
} from "@pale-cap/wording";
import { type ReactNode, useState } from "react";
import { useAppDispatch } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { BeforeAfterTable } from "../../job/panels/BeforeAfterTable";
import { FirstPower } from "../../job/panels/power/FirstPower";
import { useLogAct } from "../../job/useLogAct";
import { useTarget } from "../../job/useTarget";
import { probeSet } from "../../job/workplaceSlice";
import { Caution } from "../../ui/Caution";
import { Pane, Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import { LoadSteps } from "./LoadSteps";
import { LoadTransient } from "./LoadTransient";
import { NextRound } from "./NextRound";
import { ProofActs } from "./ProofActs";
import { ProofSteps } from "./ProofSteps";
import classes from "./prove.module.css";
import { RunPanel } from "./runs/RunPanel";

/** Every rail with its limits, what was read, and what is still to be shown. */
export function ProvePane() {
  const { detail, facts, whole, openPoints, power } = useJob();
  const rails = netsInOrder(detail);
  const isShut = power.gate.isShut;
  const isShown = (net: Net) =>
    net.fullLoadAmps !== null || detail.readings.some((reading) => reading.targetId === net.id && reading.isPowered);
  // Where nothing was promised or read yet every rail stands open: there is nothing to hide them behind.
  const shown = rails.some(isShown) ? rails.filter(isShown) : rails;
  const others = rails.filter((net) => !shown.includes(net));
  const points = openPoints.filter((point) => settledIn(point.code) === "prove");
  const gate = (
    <>
      <FirstPower />
      <Caution>{cautions.underLoad}</Caution>
    </>
  );
  const proof = (
    <>
      {rails.length === 0 && (
        <p className={text.soft}>No rails yet. Name them in Inspect, with volts and the load that was promised.</p>
      )}
      <ProofSteps />
      {rails.length > 0 && <RunPanel />}
      {!isShut && shown.map((net) => <Rail key={net.id} net={net} />)}
      {!isShut && others.length > 0 && (
        <details className={classes.others}>
          <summary>Rails without a promise ({others.length})</summary>
          {others.map((net) => (
            <Rail key={net.id} net={net} />
          ))}
        </details>
      )}
      {beforeAfter(facts).length > 0 && (
        <Part title="Heat, times, power">
          <BeforeAfterTable />
        </Part>
      )}
      {!isShut && <ProofActs />}
      <NextRound />
      {points.length > 0 && (
        <Part title="Still open">
          <ul className={classes.points}>
            {points.map((point) => (
              <li key={point.key}>{openPointWords(point)}</li>
            ))}
          </ul>
        </Part>
      )}
    </>
  );
  // Once it ran since the last work the rails are what is looked at; before that, what stands against the mains. Told on
  // arriving: nothing changes its place under the hand, unless the gate shuts.
  const [ranBefore] = useState(power.record !== null || isRunSinceLastAct(whole.facts));
  const isRunning = ranBefore && !power.isShut;
  return (
    <Pane
      title="Prove"
      note="Readings under power: type them below, with the load they were taken at."
      second={isRunning ? gate : proof}
    >
      {isRunning ? proof : gate}
    </Pane>
  );
}

function Rail({ net }: { readonly net: Net }) {
  const { detail, facts, rules } = useJob();
  const [target, select] = useTarget();
  const dispatch = useAppDispatch();
  const proof = proofOf(net, facts, rules);
  const isCurrent = target?.kind === "rail" && target.id === net.id;
  const aim = (loadAmps: number, quantity: "dc_voltage" | "ripple_voltage") => {
    select({ kind: "rail", id: net.id });
    dispatch(probeSet({ loadAmps, quantity }));
  };
  const load = net.fullLoadAmps ?? 0;
  const readings = [proof.unloaded.reading, proof.loaded.reading];
  const other = readings
    .map((one) => (one?.value == null ? null : likelyRail(net, one.value, detail.nets)))
    .find((one) => one !== null);
  const { unloaded, loaded, ripple, partLoadRatio } = proof;
  const band = ({ low, high }: RailCheck) =>
    low !== null && (
      <>
        <Quantity value={low} unit="V" digits={4} /> to <Quantity value={high} unit="V" digits={4} />
      </>
    );
  const loadedAmps = loaded.reading?.loadAmps;
  return (
    <Part
      title={net.name}
      aside={
        <span className={text.soft}>
          {net.fullLoadAmps === null ? (
            "nothing promised"
          ) : (
            <>
              promised <Quantity value={net.fullLoadAmps} unit="A" />
            </>
          )}
        </span>
      }
    >
      <div data-current={isCurrent || undefined} className={classes.rail}>
        <table className={`${text.table} ${classes.table}`}>
          <tbody>
            <CheckRow
              label="Unloaded"
              check={unloaded}
              limit={band(unloaded)}
              onAim={() => aim(0, "dc_voltage")}
              digits={4}
            />
            <CheckRow
              label={loadedAmps ? `Loaded ${loadedAmps} A` : "Loaded"}
              check={loaded}
              limit={band(loaded)}
              note={partLoadRatio === null ? "" : `, ${Math.round(100 * partLoadRatio)} % of the promise`}
              onAim={() => aim(load, "dc_voltage")}
              digits={4}
            />
            <CheckRow
              label="Ripple p-p"
              check={ripple}
              limit={
                ripple.high !== null && (
                  <>
                    at most <Quantity value={ripple.high} unit="V" />
                    {proof.asNewRippleVolts !== null && (
                      <>
                        , as new <Quantity value={proof.asNewRippleVolts} unit="V" digits={2} />
                      </>
                    )}
                  </>
                )
              }
              onAim={() => aim(load, "ripple_voltage")}
              digits={3}
            />
          </tbody>
        </table>
        {other && <p className={text.wrong}>{likelyRailWords(net.name, other.name)}</p>}
        {proof.loadRegulationRatio !== null && (
          <p className={classes.regulation}>
            Load regulation{" "}
            <b>
              <Quantity value={proof.loadRegulationRatio} unit="%" digits={2} />
            </b>
            {proof.outputResistanceOhms !== null && (
              <>
                , as if <Quantity value={proof.outputResistanceOhms} unit="Ω" digits={2} /> lay in the way
                <span className={text.soft}> (some tens of mΩ are often the lead: measured at the terminals?)</span>
              </>
            )}
          </p>
        )}
        {net.fullLoadAmps !== null && <LoadSteps net={net} />}
        {net.fullLoadAmps !== null && <LoadTransient net={net} />}
        <Unexplained net={net} proof={proof} />
        <Earlier proof={proof} />
        <Trim net={net} />
      </div>
    </Part>
  );
}

function CheckRow(props: {
  readonly label: string;
  readonly check: RailCheck;
  readonly limit: ReactNode;
  readonly note?: string;
  readonly onAim: () => void;
  readonly digits: number;
}) {
  const { label, check, limit, note = "", onAim, digits } = props;
  return (
    <tr>
      <th scope="row">
        <button type="button" className={classes.aim} onClick={onAim}>
          {label}
        </button>
      </th>
      <td className={classes.value}>
        <Quantity value={check.reading?.value ?? null} unit="V" digits={digits} keepsZeros />
      </td>
      <td className={text.soft}>{limit}</td>
      <td data-state={check.state} className={classes.state}>
        {checkStateLabels[check.state]}
        {note}
      </td>
    </tr>
  );
}

/** What failed and reads well now stays open until one key says what it was. */
function Unexplained({ net, proof }: { readonly net: Net; readonly proof: RailProof }) {
  const [act, { problem, isLoading }] = useLogAct();
  const before = [proof.unloaded, proof.loaded, proof.ripple].find((one) => one.failedBefore !== null)?.failedBefore;
  if (!before) return null;
  return (
    <div className={classes.unexplained}>
      <span>
        Was <Quantity value={before.value} unit="V" digits={4} /> at {logTime(before.measuredAt)}, good since. It was
      </span>
      {retestReasons.map((word) => (
        <Button
          key={word}
          size="compact-sm"
          loading={isLoading}
          onClick={() => void act({ kind: "retest_explained", subjectId: net.id, word })}
        >
          {retestLabels[word]}
        </Button>
      ))}
      <ProblemNote problem={problem} />
    </div>
  );
}

/** What proves nothing: read through something, or before the last act. */
function Earlier({ proof }: { readonly proof: RailProof }) {
  const lines = [
    ...proof.voided.map(({ reading, by }) => ({ reading, why: falsifierWords[by] })),
    ...proof.asReceived.map((reading) => ({ reading, why: "before the last act" })),
    // Times stand side by side below.
  ].filter(({ reading }) => reading.quantity !== "time" && reading.quantity !== "temperature");
  if (lines.length === 0) return null;
  return (
    <details className={classes.others}>
      <summary>Proves nothing now ({lines.length})</summary>
      <ul className={classes.points}>
        {lines.map(({ reading, why }) => (
          <li key={reading.id}>
            <Quantity value={reading.value} unit={quantityFacts[reading.quantity].unit} digits={4} />{" "}
            {reading.loadAmps ? `at ${reading.loadAmps} A` : "no load"}, {logTime(reading.measuredAt)}: {why}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** Turning the trim is an act: what was read of the rail before proves nothing. */
function Trim({ net }: { readonly net: Net }) {
  const [act, { problem, isLoading }] = useLogAct();
  return (
    <>
      <Button
        size="compact-xs"
        mt={6}
        loading={isLoading}
        onClick={() => void act({ kind: "trim_turned", subjectId: net.id })}
      >
        Trim of {net.name} turned
      </Button>
      <ProblemNote problem={problem} />
    </>
  );
}
