import type { JobDetail, NewReading } from "@pale-cap/contract";
import {
  currentPart,
  judgePosition,
  parseQuantity,
  type QuantityKind,
  type SiPrefix,
  standingReadings,
  voltsFirst,
} from "@pale-cap/core";
import { useMemo, useState } from "react";
import { newId } from "../api/newId";
import type { ProbeSettings, ProbeTarget } from "../job/benchSlice";
import { useAppSelector } from "../job/hooks";
import { useJob } from "../job/JobContext";
import { capacitorsInOrder, netsInOrder } from "../job/parts";
import { useTarget } from "../job/useTarget";
import { failureWords } from "../ui/failureWords";
import { quantityFacts } from "../wording/boardWords";
import { expectation } from "./expectation";
import { useSendReading } from "./useSendReading";

/** Words that may stand before a number to name the quantity. */
const spokenQuantities: Readonly<Record<string, QuantityKind>> = {
  esr: "esr",
  e: "esr",
  c: "capacitance",
  dc: "dc_voltage",
  v: "dc_voltage",
  rip: "ripple_voltage",
  loss: "voltage_loss",
  r: "resistance",
};

/** What was typed: perhaps a quantity word, then a number. */
function splitTyped(text: string): readonly [QuantityKind | null, string] {
  const match = /^\s*([a-z]+)\s+(.*)$/i.exec(text);
  const spoken = match?.[1] ? spokenQuantities[match[1].toLowerCase()] : undefined;
  return spoken && match ? [spoken, match[2] ?? ""] : [null, text];
}

/** State and acts of the probe bar for the selected part or rail: what is typed, what it would mean, and logging it. */
export function useProbe() {
  const { detail, facts, rules, chargeStates, nowMilliseconds } = useJob();
  const [target, select] = useTarget();
  const settings = useAppSelector((state) => state.bench.probe);
  const personId = useAppSelector((state) => state.bench.personId);
  const send = useSendReading(detail.job.id);
  const [text, setText] = useState("");
  const [shift, setShift] = useState(0);
  /** Where a person chose another quantity although volts were asked for. */
  const [ownWayId, setOwnWayId] = useState<string | null>(null);

  const order = useMemo((): readonly ProbeTarget[] => {
    if (target?.kind === "rail") return netsInOrder(detail).map((net) => ({ kind: "rail", id: net.id }));
    return capacitorsInOrder(detail)
      .filter((one) => one.current)
      .map((one) => ({ kind: "part", id: one.position.id }));
  }, [detail, target?.kind]);

  const [spoken, number] = splitTyped(text);
  const wanted = fittingQuantity(settings.quantity, target);
  const asked = useMemo(() => {
    const position = target?.kind === "part" ? facts.positions.find((one) => one.id === target.id) : undefined;
    if (!position || ownWayId === position.id) return null;
    const first = voltsFirst(facts, position, wanted, chargeStates, rules.charge, nowMilliseconds);
    return first.isNeeded ? first : null;
  }, [facts, target, wanted, ownWayId, chargeStates, rules, nowMilliseconds]);
  const quantity = spoken ?? (asked ? "dc_voltage" : wanted);
  const unit = quantityFacts[quantity].unit;
  const band = expectation(detail, rules, target, quantity, settings);
  const defaultPrefix = shiftPrefix(expectedPrefix(quantity, band?.high ?? null), shift);
  const parsed = number.trim() === "" ? null : parseQuantity(number, unit, defaultPrefix);
  const value = parsed?.ok ? parsed.value : null;

  const wouldBe = useMemo(() => {
    if (target?.kind !== "part") return undefined;
    const draft = value === null ? null : draftReading({ detail, target, quantity, value, settings });
    const readings = draft ? [...facts.readings, draft] : facts.readings;
    return judgePosition({ ...facts, readings }, target.id, rules.judgement, "current");
  }, [detail, facts, rules, target, value, quantity, settings]);

  function step(by: number): void {
    const index = order.findIndex((one) => one.id === target?.id);
    const next = order[(index + by + order.length) % Math.max(order.length, 1)];
    if (next) select(next);
    setText("");
    setShift(0);
  }

  /** Confirms what is typed and moves on at once; sending goes on behind it. */
  function log(thenStep: boolean): void {
    if (!target || value === null) return;
    const draft = draftReading({ detail, target, quantity, value, settings });
    void send({ ...draft, rawText: text.trim().slice(0, 80) || null, personId });
    // Volts were only asked for: the part itself comes next.
    if (thenStep && !(asked && quantity === "dc_voltage")) step(1);
    else setText("");
  }

  /** Withdraws the last standing reading on the target; the withdrawn one stays in the record. */
  function undo(): void {
    const last = standingReadings(detail.readings)
      .filter((reading) => reading.targetId === target?.id)
      .at(-1);
    if (!last) return;
    const { receivedAt: _, ...row } = last;
    const measuredAt = new Date().toISOString();
    void send({
      ...row,
      id: newId(),
      value: null,
      isWithdrawn: true,
      supersedesId: last.id,
      rawText: null,
      measuredAt,
    });
  }

  return {
    target,
    settings,
    quantity,
    /** Set while DC volts have to come before anything else on this part. */
    voltsAsked: asked,
    goOwnWay: () => setOwnWayId(target?.id ?? null),
    unit,
    band,
    text,
    setText,
    value,
    defaultPrefix,
    problem: parsed && !parsed.ok ? failureWords(parsed.failure) : undefined,
    wouldBe,
    shiftDecade: (by: number) => setShift((now) => Math.min(Math.max(now + by, -2), 2)),
    step,
    log,
    undo,
  };
}

/** A reading as it would be logged now. */
function draftReading(of: {
  readonly detail: JobDetail;
  readonly target: ProbeTarget;
  readonly quantity: QuantityKind;
  readonly value: number;
  readonly settings: ProbeSettings;
}): NewReading {
  const { target, quantity, settings } = of;
  const isPowered = target.kind === "rail";
  const frequencies: Partial<Record<QuantityKind, number>> = {
    esr: settings.esrFrequencyHertz,
    capacitance: settings.capacitanceFrequencyHertz,
  };
  return {
    id: newId(),
    targetKind: target.kind,
    targetId: target.id,
    fittedPartId: isPowered ? null : (currentPart(of.detail.fittedParts, target.id)?.id ?? null),
    quantity,
    value: of.value,
    coarseCode: null,
    terminals: null,
    uncertainty: null,
    circuitState: isPowered ? null : settings.circuitState,
    frequencyHertz: frequencies[quantity] ?? null,
    temperatureCelsius: null,
    isPowered,
    loadAmps: isPowered ? settings.loadAmps : null,
    rig: {
      isIsolationTransformer: isPowered && settings.rig.isIsolationTransformer,
      isSeriesLamp: isPowered && settings.rig.isSeriesLamp,
      isElectronicLimiter: isPowered && settings.rig.isElectronicLimiter,
      areLeadsZeroed: true,
      measuredAt: null,
    },
    rawText: null,
    instrument: null,
    isWithdrawn: false,
    supersedesId: null,
    measuredAt: new Date().toISOString(),
    personId: null,
  };
}

/** A rail takes volts, a part takes the rest. */
function fittingQuantity(wanted: QuantityKind, target: ProbeTarget | undefined): QuantityKind {
  if (target?.kind === "rail") return wanted === "ripple_voltage" ? wanted : "dc_voltage";
  return wanted === "ripple_voltage" ? "esr" : wanted;
}

const prefixLadder: readonly SiPrefix[] = ["p", "n", "u", "m", "", "k", "M"];

/** The prefix in which the expectation is shown: a bare number takes it. */
function expectedPrefix(quantity: QuantityKind, high: number | null): SiPrefix {
  if (quantity === "capacitance") return "u";
  if (quantity === "ripple_voltage") return "m";
  if (quantity !== "esr" || high === null) return "";
  return high < 1 ? "m" : "";
}

function shiftPrefix(prefix: SiPrefix, by: number): SiPrefix {
  return prefixLadder[prefixLadder.indexOf(prefix) + by] ?? prefix;
}
