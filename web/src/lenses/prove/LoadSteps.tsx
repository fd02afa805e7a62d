import { Checkbox, SegmentedControl } from "@mantine/core";
import type { Net, NetValues } from "@pale-cap/contract";
import { labelLimits, lastActOf, leadOhmsOf, loadFault, loadPlan, railCurve } from "@pale-cap/core";
import { droopWords, kneeWords, loadFaultWords } from "@pale-cap/wording";
import { useMemo, useState } from "react";
import { useAppDispatch } from "../../app/store/hooks";
import { useJob } from "../../job/JobContext";
import { netUpdate } from "../../job/netUpdate";
import { useBoardEdit } from "../../job/useBoardEdit";
import { useLogAct } from "../../job/useLogAct";
import { useTarget } from "../../job/useTarget";
import { probeSet } from "../../job/workplaceSlice";
import { ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./prove.module.css";

/** How near a load has to be to count as a step's own. */
const nearRatio = 0.05;

/** A rail at each share of its promise: a press aims the bar there; what was read stands beside, and what it adds up to. */
export function LoadSteps({ net }: { readonly net: Net }) {
  const { detail, facts } = useJob();
  const [, select] = useTarget();
  const [edit, { problem }] = useBoardEdit();
  const dispatch = useAppDispatch();
  const [act, told] = useLogAct();
  const stored = lastActOf(facts.acts, "read_at", net.id);
  const [point, setPoint] = useState<"terminals" | "lead_end">(stored?.word === "lead_end" ? "lead_end" : "terminals");
  const plate = detail.job.intakeDetails.labelPlate;
  const label = useMemo(() => labelLimits(plate, detail.nets), [plate, detail.nets]);
  const steps = useMemo(() => loadPlan(detail.nets, label), [detail.nets, label]);
  const own = steps.filter((one) => one.netId === net.id);
  const together = steps.find((one) => one.netId === null);
  const leadOhms = leadOhmsOf(facts.acts, net.id);
  const isLeadOff = leadOhms !== null;
  const curve = railCurve(net, facts, leadOhms);
  const faults = curve.points.flatMap(({ loadAmps: amps }) => {
    const fault = loadFault(detail.nets, new Map([[net.id, amps]]), label);
    return fault ? [{ code: fault.code, amps }] : [];
  });
  const change = (values: Partial<NetValues>) => void edit((latest) => netUpdate(latest, net.id, () => values));
  const aim = (loadAmps: number, quantity: "dc_voltage" | "ripple_voltage") => {
    select({ kind: "rail", id: net.id });
    dispatch(probeSet({ loadAmps, quantity }));
  };
  const lines = [
    ...own.map((step) => ({
      key: step.key,
      label: `${Math.round(100 * step.ratio)} %`,
      amps: step.loads.get(net.id) ?? 0,
    })),
    ...(together ? [{ key: "together", label: "all", amps: together.loads.get(net.id) ?? 0 }] : []),
  ];
  const others = detail.nets.filter((one) => one.id !== net.id && own[0]?.loads.has(one.id));
  const readAt = (amps: number) =>
    curve.points.find((one) => Math.abs(one.loadAmps - amps) <= Math.max(nearRatio * amps, 1e-3));
  return (
    <details className={classes.others} open={curve.points.length > 1}>
      <summary>
        Load steps{others.length > 0 && `, ${others.map((one) => one.name).join(", ")} at a tenth meanwhile`}
      </summary>
      {net.isCurrentOutput && (
        <p className={text.softLine}>It drives a current: its load is set by volts and stays on through every step.</p>
      )}
      <table className={`${text.table} ${classes.table}`} aria-label={`Load steps of ${net.name}`}>
        <tbody>
          {lines.map(({ key, label, amps }) => {
            const read = readAt(amps);
            return (
              <tr key={key}>
                <th scope="row">
                  <button type="button" className={classes.aim} onClick={() => aim(amps, "dc_voltage")}>
                    {label}
                  </button>
                </th>
                <td>
                  <Quantity value={amps} unit="A" />
                </td>
                <td className={classes.value}>
                  <Quantity value={read?.volts ?? null} unit="V" digits={4} keepsZeros />
                </td>
                <td>
                  <button
                    type="button"
                    className={classes.aim}
                    aria-label={`Ripple of ${net.name} at ${label}`}
                    onClick={() => aim(amps, "ripple_voltage")}
                  >
                    ripple
                  </button>{" "}
                  <Quantity value={read?.rippleVolts ?? null} unit="V" digits={3} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {faults.map((one) => (
        <p key={one.amps} className={text.wrong}>
          {loadFaultWords(one.code, one.amps, net.fullLoadAmps ?? 0)}
        </p>
      ))}
      <div className={classes.leadLine}>
        <QuantityInput
          label={`${net.name} needs at least`}
          isCompact
          size="xs"
          unit="A"
          limits={[0, net.fullLoadAmps ?? 200]}
          value={net.leastLoadAmps ?? null}
          placeholder="none"
          onCommit={(value) => change({ leastLoadAmps: value === null || value === 0 ? null : value })}
        />
        <Checkbox
          label="drives a current: loaded by volts, never open"
          checked={net.isCurrentOutput === true}
          onChange={(event) => change({ isCurrentOutput: event.currentTarget.checked || null })}
        />
        <ProblemNote problem={problem} />
      </div>
      <div className={classes.leadLine}>
        <SegmentedControl
          size="xs"
          aria-label={`Where ${net.name} is read`}
          value={point}
          data={[
            { value: "terminals", label: "at the terminals" },
            { value: "lead_end", label: "at a lead's end" },
          ]}
          onChange={(value) => {
            setPoint(value as typeof point);
            // At a lead's end its ohms have to be known first.
            if (value === "terminals") void act({ kind: "read_at", subjectId: net.id, word: "terminals" });
          }}
        />
        {point === "lead_end" && (
          <QuantityInput
            label="The lead, there and back"
            isCompact
            size="xs"
            unit="Ω"
            limits={[0, 10]}
            value={leadOhms}
            placeholder="63m"
            onCommit={(value) =>
              value !== null && void act({ kind: "read_at", subjectId: net.id, word: "lead_end", value })
            }
          />
        )}
      </div>
      <ProblemNote problem={told.problem} />
      {curve.line && curve.droop && (
        <p className={classes.regulation}>{droopWords(curve.droop, Math.abs(net.nominalVolts ?? 0), isLeadOff)}</p>
      )}
      {curve.line && kneeWords(curve.line) && <p className={classes.regulation}>{kneeWords(curve.line)}</p>}
    </details>
  );
}
