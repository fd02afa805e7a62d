import type { GateValue, PowerEvent } from "../facts/powerEvents";
import { inOrder } from "../readings/factMoment";
import { closerDemands, demandKey, type GateBoard, type GateDemand, gateFinding, shortDemands } from "./gateChecks";

export type GateCause =
  | "fuse_told"
  | "breaker_told"
  | "bang_told"
  | "residual_current_told"
  | "tingle_told"
  | "fuse_blown"
  | "breaker_tripped"
  | "residual_current_tripped"
  | "short_found";

/** How a demand of the gate stands: `low` was tested and found to be short. */
export interface AnsweredDemand extends GateDemand {
  readonly state: "open" | "passed" | "low";
  readonly check: PowerEvent | null;
}

export interface PowerGate {
  readonly isShut: boolean;
  /** What shut it, also where it was opened again since; null where nothing ever did. */
  readonly cause: GateCause | null;
  /** What is asked before power, answered or not. */
  readonly demands: readonly AnsweredDemand[];
  /** Set where a person went on without. */
  readonly overruledBy: PowerEvent | null;
}

/** What is told at intake and shuts the gate; a residual current finds its way to earth, a short does not. */
const tellingSymptoms: Readonly<Record<string, GateCause>> = {
  fuse_blown: "fuse_told",
  breaker_tripped: "breaker_told",
  bang: "bang_told",
  residual_current_tripped: "residual_current_told",
  tingle: "tingle_told",
};

const shutBy: Readonly<Partial<Record<PowerEvent["kind"], GateCause>>> = {
  fuse_blown: "fuse_blown",
  breaker_tripped: "breaker_tripped",
  residual_current_tripped: "residual_current_tripped",
};

/**
 * Whether power-up steps may be offered after a blown fuse, a bang, a tripped breaker or a residual-current trip, told at
 * intake or logged later. It opens when every short test has its number or a picked reason and none is low; after a
 * residual-current trip, or a tingle that was told, by an insulation test instead. What was tested before the last trip does not count. A person may
 * overrule it with a reason, until something trips again.
 */
export function powerGate(board: GateBoard, symptoms: readonly string[], events: readonly PowerEvent[]): PowerGate {
  let causes = Object.entries(tellingSymptoms).flatMap(([code, cause]) => (symptoms.includes(code) ? [cause] : []));
  let checks = new Map<string, PowerEvent>();
  let overruledBy: PowerEvent | null = null;
  for (const event of inOrder(events)) {
    const cause = shutBy[event.kind];
    if (cause) {
      causes = [...causes.filter((one) => isResidual(one) !== isResidual(cause)), cause];
      checks = new Map();
      overruledBy = null;
    } else if (event.kind === "gate_overruled") overruledBy = event;
    else if (isCheck(event)) {
      checks.set(demandKey(asDemand(event)), event);
      if (!isLow(event)) continue;
      // A short shuts the way also where nobody told of a fuse, and whatever was overruled before it was found.
      if (causes.length === 0) causes = ["short_found"];
      overruledBy = null;
    }
  }
  const wanted = [
    ...(causes.some((one) => !isResidual(one)) ? shortDemands(board) : []),
    ...(causes.some(isResidual) ? [{ item: "earth_insulation" as const, subjectId: null, designator: null }] : []),
  ];
  const answered = wanted.map((demand) => answer(demand, checks));
  const closer = answered.filter((one) => one.state === "low").flatMap(closerDemands);
  const demands = [...answered, ...closer.map((demand) => answer(demand, checks))];
  const isOpen = answered.every((one) => one.state === "passed") || overruledBy !== null;
  return { isShut: !isOpen, cause: causes.at(-1) ?? null, demands, overruledBy };
}

/** Matters of the way to earth: an insulation test answers them, no short test does. */
const toEarth: readonly GateCause[] = ["residual_current_told", "residual_current_tripped", "tingle_told"];
const isResidual = (cause: GateCause) => toEarth.includes(cause);

/** Older jobs know one test across the bulk, with or without a number: without one it says nothing. */
function isCheck(event: PowerEvent): boolean {
  if (event.kind === "short_test") return event.hasShort === true || event.resistanceOhms !== null;
  // A rail or a sink is a matter of the work that was done, not of the way to the mains.
  return event.kind === "gate_check" && event.item !== "rail" && event.item !== "sink";
}

function isLow(event: PowerEvent): boolean {
  const { item } = asDemand(event);
  return event.hasShort === true || gateFinding(item, checkValues(event), event.reason !== null) === "contradicts";
}

function asDemand(event: PowerEvent): Pick<GateDemand, "item" | "subjectId"> {
  return event.kind === "short_test"
    ? { item: "bulk", subjectId: null }
    : { item: event.item ?? "bulk", subjectId: event.subjectId };
}

/** The numbers of a check. */
export function checkValues(event: PowerEvent): readonly GateValue[] {
  if (event.kind !== "short_test") return event.values;
  return event.resistanceOhms === null ? [] : [event.resistanceOhms];
}

/** How a demand stands by what was tested; a tick that its numbers contradict never passed anything. */
export function answer(demand: GateDemand, checks: ReadonlyMap<string, PowerEvent>): AnsweredDemand {
  const check = checks.get(demandKey(demand)) ?? null;
  if (!check) return { ...demand, state: "open", check };
  if (isLow(check)) return { ...demand, state: "low", check };
  const finding = gateFinding(demand.item, checkValues(check), check.reason !== null);
  return { ...demand, state: finding === "incomplete" ? "open" : "passed", check };
}
