import type { ObservedSubject } from "@pale-cap/core";
import { deviceTestOf, isUnderDrain, standingReadings, unitSlip } from "@pale-cap/core";
import { quantityFacts } from "@pale-cap/wording";
import { useMemo, useState } from "react";
import { useAppDispatch, useAppSelector } from "../app/store/hooks";
import { useJob } from "../job/JobContext";
import { probedPart } from "../job/looseParts";
import { useTarget } from "../job/useTarget";
import { type ProbeTarget, probeSet } from "../job/workplaceSlice";
import { barQuantities, fittingQuantity, isUnderPower } from "./barQuantities";
import { draftReading, type ReadValue } from "./draftReading";
import { expectation } from "./expectation";
import { probeOrder, steppedTarget } from "./probeOrder";
import { isInside, sound } from "./tone";
import { useHoldToLog } from "./useHoldToLog";
import { useLiveRead } from "./useLiveRead";
import { useSendReading } from "./useSendReading";
import { useTyped } from "./useTyped";
import { useVoltsAsked } from "./useVoltsAsked";
import { useWouldBe } from "./useWouldBe";
import { withdrawalOf } from "./withdrawalOf";

/** State and acts of the probe bar for its target: what is typed or live, what it would mean, and logging it. */
export function useProbe() {
  const { detail, rules, chargeStates } = useJob();
  const [target, select] = useTarget();
  const settings = useAppSelector((state) => state.workplace.probe);
  const habits = useAppSelector((state) => state.workplace.habits);
  const personId = useAppSelector((state) => state.workplace.personId);
  const send = useSendReading(detail.job.id);
  const dispatch = useAppDispatch();
  /** A load that is typed and stands for nothing would store the reading under another one. */
  const [isLoadUnderstood, setLoadUnderstood] = useState(true);
  /** The part whose ESR was read just now and whose C comes with it. */
  const [paired, setPaired] = useState<string | null>(null);

  const position = target?.kind === "part" ? detail.positions.find((one) => one.id === target.id) : undefined;
  const net = target?.kind === "rail" ? detail.nets.find((one) => one.id === target.id) : undefined;
  const section = (net ?? detail.nets.find((one) => one.id === position?.netId))?.section ?? null;
  /** Of whom something is seen or heard: not every word fits each. */
  const subject: ObservedSubject = target?.kind !== "part" ? "unit" : position?.kind === "fan" ? "fan" : "part";
  const typed = useTyped(detail.job.id, target, section, subject);
  const probed = probedPart(detail, target);
  const isLoose = probed.where !== "in_place";
  const fitting = barQuantities(target, position?.kind);
  const { nets, positions, fittedParts } = detail;
  const kind = target?.kind;
  const order = useMemo(() => probeOrder({ nets, positions, fittedParts }, kind), [nets, positions, fittedParts, kind]);

  const test =
    position && position.kind !== "electrolytic" ? deviceTestOf(position.kind, target?.terminals ?? null) : undefined;
  const volts = useVoltsAsked(target, (hasOwnWay) =>
    test && !hasOwnWay ? test.quantity : fittingQuantity(settings.quantity, fitting),
  );
  const quantity = typed.spoken ?? (volts.asked ? "dc_voltage" : volts.wanted);
  const refused = volts.refusalOf(quantity);
  const unit = quantityFacts[quantity].unit;
  const band = expectation(detail, rules, target, quantity, settings);
  const understood = typed.understood(quantity, unit);
  const { live, probe, ...liveRead } = useLiveRead({ target, name: position?.designator ?? net?.name, quantity, unit });
  const isEmpty = typed.text.trim() === "";
  const read = isEmpty ? liveRead.read : understood.read;
  const value = read?.value ?? null;
  // Only what is typed bare can have slipped; an instrument says its unit.
  const isDoubtful = quantity === "esr" && !isEmpty && understood.isBare === true && value !== null;
  const slip = isDoubtful ? unitSlip(value, band) : null;
  const [askedText, setAskedText] = useState<string | null>(null);
  const isSlipAsked = slip !== null && askedText === typed.text;
  const isPowered = target !== undefined && isUnderPower(target, quantity);
  const isLoadMissing = isPowered && !isLoadUnderstood;
  const wouldBe = useWouldBe(target, quantity, value);

  function step(by: number): void {
    const next = steppedTarget(order, target, by);
    if (next) select(next);
    // Whose C was asked for with its ESR is left: the next part begins with ESR again.
    if (paired !== null) dispatch(probeSet({ quantity: "esr" }));
    setPaired(null);
  }

  /** Confirms what is typed, or else what is live, and moves on at once; sending goes on behind it. */
  function log(thenStep: boolean): void {
    if (!target || read === null || refused || isLoadMissing) return;
    if (slip && !isSlipAsked) {
      setAskedText(typed.text);
      return;
    }
    store(read, thenStep);
  }

  /** The other of two readings of a number that may have slipped by a thousand. */
  function logOther(): void {
    if (slip && isSlipAsked && !refused) store({ value: slip.other, code: null }, true);
  }

  function store(taken: ReadValue, thenStep: boolean): void {
    if (!target) return;
    const isDrainOn = isUnderDrain(detail, chargeStates, target.id);
    const draft = draftReading({ detail, target, quantity, read: taken, settings, isDrainOn });
    const rawText = (isEmpty ? live.raw : typed.text.trim())?.slice(0, 80) || null;
    void send({
      ...draft,
      rawText,
      instrument: isEmpty ? (live.instrument?.name ?? null) : null,
      isSimulated: isEmpty && live.instrument?.isSimulated === true,
      personId,
    });
    typed.dropText();
    if (habits.isTone && taken.value !== null && band) sound(isInside(taken.value, band));
    if (thenStep) goOn(target);
  }

  /** What comes after a reading: the rest of the same part or rail before the next one. */
  function goOn(of: ProbeTarget): void {
    // Volts were only asked for: the part itself comes next. A test before the mains has none behind it.
    if (volts.asked && quantity === "dc_voltage") return;
    if (of.kind === "rail") {
      goOnAtRail(of);
      return;
    }
    const isFree = of.kind === "part" && (isLoose || settings.circuitState !== "in_circuit");
    if (isFree && quantity === "esr" && fitting.main.includes("capacitance")) {
      // A part that is lifted or out is read whole: ESR, then C, without going back to it.
      setPaired(of.id);
      dispatch(probeSet({ quantity: "capacitance" }));
      return;
    }
    step(1);
  }

  /** Unloaded, then loaded, then ripple at that load, then the next rail. */
  function goOnAtRail(of: ProbeTarget): void {
    if (of.terminals !== undefined) return;
    const promised = net?.fullLoadAmps ?? null;
    const isLoaded = (settings.loadAmps ?? 0) > 0;
    if (quantity === "dc_voltage" && isLoaded) dispatch(probeSet({ quantity: "ripple_voltage" }));
    else if (quantity === "dc_voltage" && promised !== null) dispatch(probeSet({ loadAmps: promised }));
    else if (quantity === "dc_voltage" || quantity === "ripple_voltage") {
      step(1);
      dispatch(probeSet({ quantity: "dc_voltage", loadAmps: 0 }));
    }
  }
  useHoldToLog(habits.isHolding && typed.text === "", live, `${target?.id}|${target?.terminals}|${quantity}`, () =>
    log(true),
  );

  /** Withdraws the last standing reading on the target; the withdrawn one stays in the record. */
  function undo(): void {
    const last = standingReadings(detail.readings)
      .filter((reading) => reading.targetId === target?.id && (!isLoose || reading.fittedPartId === probed.part?.id))
      .at(-1);
    if (last) void send(withdrawalOf(last, personId));
  }

  return {
    target,
    position,
    subject,
    /** Where the part between the probes is; a loose one is out of circuit. */
    where: probed.where,
    net,
    fitting,
    settings,
    habits,
    quantity,
    /** Set while DC volts have to come before anything else on this part. */
    voltsAsked: volts.asked,
    /** Set while an ohmmeter does not belong across this part: nothing is logged then. */
    ohmsRefused: refused,
    goOwnWay: volts.goOwnWay,
    /** The reading is taken under power, and how much was drawn belongs to it. */
    isPowered,
    /** Set while the load is typed and not understood: nothing is logged then. */
    isLoadMissing,
    setLoadUnderstood,
    unit,
    band,
    text: typed.text,
    setText: typed.setText,
    value,
    hasValue: read !== null,
    live,
    probe,
    /** The live value as it stands in the empty field, in the prefix that suits it. */
    liveText: liveRead.text,
    defaultPrefix: understood.prefix,
    printedUnit: typed.text === "" && liveRead.printed ? liveRead.printed.unit : understood.printedUnit,
    problem: understood.problem,
    /** Set while a number that may have slipped by a thousand waits for one key. */
    slipAsked: isSlipAsked ? slip : null,
    logOther,
    wouldBe,
    shiftDecade: (by: number) => typed.shiftDecade(quantity, by),
    step,
    log,
    undo,
  };
}
