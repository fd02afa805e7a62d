import { Button, Checkbox, NativeSelect, SegmentedControl } from "@mantine/core";
import type { Net, NewRun } from "@pale-cap/contract";
import { netsInOrder } from "@pale-cap/contract";
import {
  formatQuantity,
  labelLimits,
  loadedRails,
  proposedRun,
  type RunKind,
  type RunSpot,
  runPlanFault,
  runSeconds,
} from "@pale-cap/core";
import { leftWords, runKindLabels, runPlanFaultWords } from "@pale-cap/wording";
import { useState } from "react";
import { newId } from "../../../api/newId";
import { useAppSelector } from "../../../app/store/hooks";
import { useJob } from "../../../job/JobContext";
import { usePageBench } from "../../../probe/instruments/usePageBench";
import { asProblem, ProblemNote } from "../../../ui/ProblemNote";
import { QuantityInput } from "../../../ui/QuantityInput";
import text from "../../../ui/text.module.css";
import classes from "../prove.module.css";
import { useBeginRunMutation } from "./runApi";
import runs from "./runs.module.css";

/** What a run would do with the instruments of this bench, put together from what was promised; one press begins it. */
export function RunSetUp() {
  const { detail, houseRules, rules } = useJob();
  const { bench } = usePageBench();
  const personId = useAppSelector((state) => state.workplace.personId);
  const states = useAppSelector((state) => state.instruments.states);
  const [begin, { error, isLoading }] = useBeginRunMutation();
  const [kind, setKind] = useState<RunKind>("load_run");
  const [stepSeconds, setStepSeconds] = useState<number | null>(houseRules["prove.stepSeconds"]);
  const [burnInHours, setBurnInHours] = useState<number | null>(houseRules["prove.burnInHours"]);
  const [chosenLoads, setChosenLoads] = useState<Readonly<Record<string, string>>>({});
  const [scopedId, setScopedId] = useState<string | null>(null);
  const [places, setPlaces] = useState<Readonly<Record<string, string>>>({});
  const [celsius, setCelsius] = useState<number | null>(houseRules["prove.spotCelsius"]);
  const [isOverloadMeant, setOverload] = useState(false);
  const [isCaseClosed, setCaseClosed] = useState(false);
  const rails = loadedRails(netsInOrder(detail)) as readonly Net[];
  const usable = Object.values(states).filter(
    (one) => one.benchId === bench?.id && one.status === "ready" && (detail.job.takesSimulated || !one.isSimulated),
  );
  const of = (wanted: (typeof usable)[number]["kind"]) =>
    usable.filter((one) => one.kind === wanted).sort((a, b) => a.name.localeCompare(b.name, "en", { numeric: true }));
  const loads = of("load");
  const [mains = null] = of("mains");
  const [scope = null] = of("oscilloscope");
  const thermometers = of("thermometer");
  if (rails.length === 0) return <p className={text.softLine}>Nothing was promised: no run could show it.</p>;
  if (loads.length === 0) {
    return (
      <p className={text.softLine}>
        No electronic load answers at {bench?.name ?? "this bench"}
        {detail.job.takesSimulated ? "" : " that reads a real unit"}: the steps are set and typed by hand below.
      </p>
    );
  }
  const loadOf = (net: Net, n: number) => chosenLoads[net.id] ?? loads[n]?.id ?? "";
  const scopedRail = scopedId ?? rails[0]?.id ?? "";
  const spots = thermometers.flatMap(({ id }): readonly RunSpot[] => {
    const targetId = places[id] ?? "";
    return targetId === "" || celsius === null
      ? []
      : [{ thermometerId: id, targetKind: "part", targetId, mostCelsius: celsius }];
  });
  const label = labelLimits(detail.job.intakeDetails.labelPlate, detail.nets);
  const isOverload = isOverloadMeant && kind === "load_run";
  const plan = proposedRun({
    ...{ kind, nets: netsInOrder(detail), label, rules: rules.rail, mainsId: mains?.id ?? null, spots },
    loads: rails.flatMap((net, n) => (loadOf(net, n) === "" ? [] : [{ netId: net.id, loadId: loadOf(net, n) }])),
    scope: scope && scopedRail !== "" ? { scopeId: scope.id, netId: scopedRail } : null,
    dwellSeconds: kind === "load_run" ? (stepSeconds ?? 0) : 3600 * (burnInHours ?? 0),
    mostKelvinPerMinute: houseRules["prove.kelvinPerMinute"],
    isOverloadMeant: isOverload,
  });
  const fault = runPlanFault(plan, detail.nets, label, isOverload);
  const nameOf = (id: string | null) => detail.nets.find((one) => one.id === id)?.name ?? null;
  const isMainsOn = mains?.settings.output === "ON";
  const held = plan.rails.some((one) => states[one.loadId]?.runId) || (mains?.runId ?? null) !== null;
  const amps = (value: number) => formatQuantity(value, "A", { significantDigits: 3 }).text;
  const endings = [
    "at a rail's limit",
    ...(plan.mostInputWatts === null ? [] : [`above ${plan.mostInputWatts} W drawn`]),
    ...(plan.spots.length === 0 ? [] : [`when heat rises by more than ${plan.mostKelvinPerMinute} K a minute`]),
  ];
  const start = () =>
    void begin({
      jobId: detail.job.id,
      body: {
        ...{ id: newId(), plan: plan as NewRun["plan"], switchesMains: mains !== null && !isMainsOn, personId },
        ...{ isOverloadMeant: isOverload, isCaseClosed },
      },
    });
  return (
    <div>
      <div className={runs.row}>
        <SegmentedControl
          aria-label="Kind of run"
          value={kind}
          data={(["load_run", "burn_in"] as const).map((value) => ({ value, label: runKindLabels[value] }))}
          onChange={(value) => setKind(value as RunKind)}
        />
        {kind === "load_run" ? (
          <QuantityInput
            label="Each step"
            size="sm"
            unit="s"
            limits={[1, 3600]}
            value={stepSeconds}
            onCommit={setStepSeconds}
          />
        ) : (
          <QuantityInput
            label="For"
            size="sm"
            unit="h"
            limits={[0.001, 48]}
            value={burnInHours}
            onCommit={setBurnInHours}
          />
        )}
      </div>
      <table className={`${text.table} ${classes.table}`} aria-label="Rails of the run">
        <tbody>
          {rails.map((net, n) => {
            const rail = plan.rails.find((one) => one.netId === net.id);
            return (
              <tr key={net.id}>
                <th scope="row">{net.name}</th>
                <td>
                  <NativeSelect
                    aria-label={`Load on ${net.name}`}
                    size="xs"
                    w={168}
                    data={[
                      { value: "", label: "no load" },
                      ...loads.map((one) => ({ value: one.id, label: one.name })),
                    ]}
                    value={loadOf(net, n)}
                    onChange={(event) => setChosenLoads({ ...chosenLoads, [net.id]: event.currentTarget.value })}
                  />
                </td>
                <td className={`${text.soft} ${runs.limits}`}>
                  {rail
                    ? `to ${amps(net.fullLoadAmps ?? 0)}, between ${rail.lowVolts} and ${rail.highVolts} V`
                    : "not in the run"}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <div className={runs.row}>
        {scope && (
          <NativeSelect
            label="Scope reads the ripple of"
            size="xs"
            data={[{ value: "", label: "nothing" }, ...rails.map((net) => ({ value: net.id, label: net.name }))]}
            value={scopedRail}
            onChange={(event) => setScopedId(event.currentTarget.value)}
          />
        )}
        {thermometers.map(({ id, name }) => (
          <NativeSelect
            key={id}
            label={thermometers.length > 1 ? `${name} looks at` : "Thermometer looks at"}
            size="xs"
            data={[
              { value: "", label: "nothing" },
              ...detail.positions.map((one) => ({ value: one.id, label: one.designator })),
            ]}
            value={places[id] ?? ""}
            onChange={(event) => setPlaces({ ...places, [id]: event.currentTarget.value })}
          />
        ))}
        {Object.values(places).some((one) => one !== "") && (
          <QuantityInput
            label="Ends above"
            size="xs"
            unit="°C"
            limits={[20, 250]}
            value={celsius}
            onCommit={setCelsius}
          />
        )}
      </div>
      <div className={runs.row}>
        {kind === "load_run" && (
          <Checkbox
            label="and 110 %, beyond the promise"
            checked={isOverloadMeant}
            onChange={(event) => setOverload(event.currentTarget.checked)}
          />
        )}
        <Checkbox
          label="in its closed case"
          checked={isCaseClosed}
          onChange={(event) => setCaseClosed(event.currentTarget.checked)}
        />
      </div>
      <p className={text.softLine}>
        {plan.steps.length === 1 ? "One step" : `${plan.steps.length} steps`},{" "}
        {leftWords(runSeconds(plan)).replace(" left", "")}. Ends {endings.join(", ")}, or when an instrument is lost:{" "}
        {mains
          ? "mains off first, loads on until the rails are empty; for too much current the loads first."
          : "loads off, and you switch the mains off."}
        {!mains && " No source here switches the mains: stay beside it."}
      </p>
      {fault && <p className={text.wrong}>{runPlanFaultWords(fault.code, nameOf(fault.netId))}</p>}
      <Button className={runs.begin} size="md" disabled={fault !== null || held} loading={isLoading} onClick={start}>
        {mains === null
          ? "The mains is on: begin"
          : isMainsOn
            ? "Begin, the mains is on"
            : "Switch the mains on and begin"}
      </Button>
      {held && <p className={text.softLine}>Another run holds these instruments.</p>}
      <ProblemNote problem={asProblem(error)} />
    </div>
  );
}
