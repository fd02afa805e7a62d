import {
  deviceTestOf,
  formatQuantity,
  judgePosition,
  mayReadOpen,
  notStored,
  overRangeCode,
  printedPrefix,
  probePoints,
  type QuantityKind,
  type SiPrefix,
  standingReadings,
  voltsFirst,
} from "@pale-cap/core";
import { quantityFacts } from "@pale-cap/wording";
import { useEffect, useMemo, useState } from "react";
import { useAppSelector } from "../app/store/hooks";
import { useJob } from "../job/JobContext";
import { capacitorsInOrder, netsInOrder } from "../job/parts";
import { useTarget } from "../job/useTarget";
import type { ProbeTarget } from "../job/workplaceSlice";
import { useDraft } from "../ui/useDraft";
import { barQuantities, fittingQuantity } from "./barQuantities";
import { draftReading, frequencyOf, type ReadValue } from "./draftReading";
import { expectation } from "./expectation";
import { useLive } from "./instruments/useLive";
import { pointsText } from "./instruments/whoReads";
import { readTyped } from "./readTyped";
import { sound } from "./tone";
import { useHoldToLog } from "./useHoldToLog";
import { useSendReading } from "./useSendReading";
import { withdrawalOf } from "./withdrawalOf";

/** Words that may stand before a number to name the quantity. */
const spokenQuantities: Readonly<Record<string, QuantityKind>> = {
  esr: "esr",
  e: "esr",
  c: "capacitance",
  d: "dissipation",
  dc: "dc_voltage",
  v: "dc_voltage",
  ac: "ac_voltage",
  rip: "ripple_voltage",
  loss: "voltage_loss",
  leak: "leakage_current",
  r: "resistance",
  di: "diode_drop",
  t: "temperature",
  w: "power",
};

/** What was typed: perhaps a quantity word, then a number. */
function splitTyped(text: string): readonly [QuantityKind | null, string] {
  const match = /^\s*([a-z]+)\s+(.*)$/i.exec(text);
  const spoken = match?.[1] ? spokenQuantities[match[1].toLowerCase()] : undefined;
  return spoken && match ? [spoken, match[2] ?? ""] : [null, text];
}

/** State and acts of the probe bar for its target: what is typed or live, what it would mean, and logging it. */
export function useProbe() {
  const { detail, facts, rules, chargeStates, nowMilliseconds } = useJob();
  const [target, select] = useTarget();
  const settings = useAppSelector((state) => state.workplace.probe);
  const habits = useAppSelector((state) => state.workplace.habits);
  const personId = useAppSelector((state) => state.workplace.personId);
  const send = useSendReading(detail.job.id);
  // What is typed and not logged stays with its target, also when the page is closed.
  const place = `${detail.job.id} probe ${target?.id ?? ""} ${target?.terminals ?? ""}`;
  const [text, setText, dropText] = useDraft(place, "");
  const [shift, setShift] = useState(0);
  /** Where a person chose another quantity although volts were asked for. */
  const [ownWayId, setOwnWayId] = useState<string | null>(null);

  const position = target?.kind === "part" ? detail.positions.find((one) => one.id === target.id) : undefined;
  const net = target?.kind === "rail" ? detail.nets.find((one) => one.id === target.id) : undefined;
  const fitting = barQuantities(target, position?.kind);
  const { nets, positions, fittedParts } = detail;
  const order = useMemo((): readonly ProbeTarget[] => {
    const board = { nets, positions, fittedParts };
    if (target?.kind === "rail") return netsInOrder(board).map((one) => ({ kind: "rail", id: one.id }));
    const capacitors = capacitorsInOrder(board)
      .filter((one) => one.current)
      .map((one): ProbeTarget => ({ kind: "part", id: one.position.id }));
    // Behind the last capacitor the other parts follow, test by test.
    const tests = probePoints(board)
      .filter((one) => one.group === "device" && !one.isLive && !one.isOptional)
      .map(
        (one): ProbeTarget => ({ kind: "part", id: one.targetId, ...(one.terminals && { terminals: one.terminals }) }),
      );
    return [...capacitors, ...tests];
  }, [nets, positions, fittedParts, target?.kind]);

  const [spoken, number] = splitTyped(text);
  const test =
    position && position.kind !== "electrolytic" ? deviceTestOf(position.kind, target?.terminals ?? null) : undefined;
  const wanted = test && ownWayId !== position?.id ? test.quantity : fittingQuantity(settings.quantity, fitting);
  const asked = useMemo(() => {
    const place = target?.kind === "part" ? facts.positions.find((one) => one.id === target.id) : undefined;
    if (!place || ownWayId === place.id || wanted === "observation" || wanted === "temperature") return null;
    const first = voltsFirst(facts, place, wanted, chargeStates, rules.charge, nowMilliseconds);
    return first.isNeeded ? first : null;
  }, [facts, target, wanted, ownWayId, chargeStates, rules, nowMilliseconds]);
  const quantity = spoken ?? (asked ? "dc_voltage" : wanted);
  const unit = quantityFacts[quantity].unit;
  const band = expectation(detail, rules, target, quantity, settings);
  const defaultPrefix = shiftPrefix(expectedPrefix(quantity, band?.high ?? null), shift);
  const typed = readTyped(number, quantity, unit, defaultPrefix);

  const name = position?.designator ?? net?.name;
  // Designators are unique; a rail is probed by its own name, its pins by the part's.
  const points = name === undefined ? null : pointsText(name, target?.kind === "part" ? target.terminals : null);
  const [live, probe] = useLive({
    points: target?.kind === "unit" ? "unit" : points,
    quantity,
    circuitState: target?.kind === "part" ? settings.circuitState : null,
    frequencyHertz: frequencyOf(quantity, settings),
  });
  const { isFollowing } = habits;
  useEffect(() => {
    if (isFollowing) void probe();
  }, [isFollowing, probe]);
  const liveRead: ReadValue | null =
    live.value !== null
      ? { value: live.value, code: null }
      : live.isOpen && mayReadOpen(quantity)
        ? { value: null, code: overRangeCode }
        : null;
  const printedLive = live.value === null ? null : formatQuantity(live.value, unit, { significantDigits: 4 });
  const read = text.trim() === "" ? liveRead : typed.read;
  const value = read?.value ?? null;

  // A live value that flickers in its last digit is not judged anew each time.
  const judgedValue = value === null ? null : Number(value.toPrecision(2));
  const wouldBe = useMemo(() => {
    if (target?.kind !== "part") return undefined;
    const draft =
      judgedValue === null
        ? null
        : draftReading({ detail, target, quantity, read: { value: judgedValue, code: null }, settings });
    const readings = draft ? [...facts.readings, { ...draft, ...notStored }] : facts.readings;
    return judgePosition({ ...facts, readings }, target.id, rules.judgement, "current");
  }, [detail, facts, rules, target, judgedValue, quantity, settings]);

  function step(by: number): void {
    const at = order.findIndex((one) => one.id === target?.id && one.terminals === target?.terminals);
    const index = at < 0 ? order.findIndex((one) => one.id === target?.id) : at;
    const next = order[(index + by + order.length) % Math.max(order.length, 1)];
    if (next) select(next);
    setShift(0);
  }

  /** Confirms what is typed, or else what is live, and moves on at once; sending goes on behind it. */
  function log(thenStep: boolean): void {
    if (!target || read === null) return;
    const isLive = text.trim() === "";
    const draft = draftReading({ detail, target, quantity, read, settings });
    const rawText = (isLive ? live.raw : text.trim())?.slice(0, 80) || null;
    void send({ ...draft, rawText, instrument: isLive ? (live.instrument?.name ?? null) : null, personId });
    dropText();
    if (habits.isTone && value !== null && band) sound(isInside(value, band));
    // Volts were only asked for: the part itself comes next. A test before the mains has none behind it.
    const isLast = target.kind === "rail" && target.terminals !== undefined;
    if (thenStep && !(asked && quantity === "dc_voltage") && !isLast) step(1);
  }
  useHoldToLog(habits.isHolding && text === "", live, `${target?.id}|${target?.terminals}|${quantity}`, () =>
    log(true),
  );

  /** Withdraws the last standing reading on the target; the withdrawn one stays in the record. */
  function undo(): void {
    const last = standingReadings(detail.readings)
      .filter((reading) => reading.targetId === target?.id)
      .at(-1);
    if (!last) return;
    void send(withdrawalOf(last, personId));
  }

  return {
    target,
    position,
    net,
    fitting,
    settings,
    habits,
    quantity,
    /** Set while DC volts have to come before anything else on this part. */
    voltsAsked: asked,
    goOwnWay: () => setOwnWayId(target?.id ?? null),
    unit,
    band,
    text,
    setText,
    value,
    hasValue: read !== null,
    live,
    probe,
    /** The live value as it stands in the empty field, in the prefix that suits it. */
    liveText: printedLive?.number ?? (liveRead ? "open" : null),
    defaultPrefix,
    printedUnit: text === "" && printedLive ? printedLive.unit : `${printedPrefix(defaultPrefix)}${unit}`,
    problem: typed.problem,
    wouldBe,
    shiftDecade: (by: number) => setShift((now) => Math.min(Math.max(now + by, -2), 2)),
    step,
    log,
    undo,
  };
}

function isInside(
  value: number,
  band: { readonly low: number; readonly high: number; readonly isLowBad: boolean },
): boolean {
  return band.isLowBad ? value >= band.low : value <= band.high && (band.low >= 0 ? true : value >= band.low);
}

const prefixLadder: readonly SiPrefix[] = ["p", "n", "u", "m", "", "k", "M"];

/** The prefix in which the expectation is shown: a bare number takes it. */
function expectedPrefix(quantity: QuantityKind, high: number | null): SiPrefix {
  if (quantity === "capacitance" || quantity === "leakage_current") return "u";
  if (quantity === "ripple_voltage") return "m";
  if (quantity !== "esr" || high === null) return "";
  return high < 1 ? "m" : "";
}

function shiftPrefix(prefix: SiPrefix, by: number): SiPrefix {
  return prefixLadder[prefixLadder.indexOf(prefix) + by] ?? prefix;
}
