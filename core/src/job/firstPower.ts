import { type BoardPosition, currentPart, foundPart, type PartKind } from "../board/board";
import type { ChargeEvent } from "../facts/chargeFacts";
import { factsBefore } from "../facts/factsBefore";
import type { JobFacts, ReworkTick } from "../facts/jobFacts";
import type { ChargeRules } from "../facts/jobRules";
import type { PowerEvent } from "../facts/powerEvents";
import { doneSteps, lastAct } from "../facts/reworkTicks";
import { closingList } from "../facts/teardown";
import { judgeDevices } from "../judgement/judgeDevice";
import { inOrder, isBefore, serverMilliseconds } from "../readings/factMoment";
import { loggedReading, overRangeCode, standingReadings } from "../readings/reading";
import { doPolaritiesAgree } from "../replacement/polarityCheck";
import type { ChargeState } from "../safety/chargeWatch";
import { demandKey, type GateDemand, gateItemRules, isOnMainsSide } from "../safety/gateChecks";
import { type AnsweredDemand, answer, type PowerGate, powerGate } from "../safety/powerGate";
import { jobChargeStates } from "./jobCharge";
import { hasBoardRecord } from "./partPoints";

/** What stands against the mains, beside a fuse that blew. */
export type ShutCode =
  | "part_out"
  | "bad_power_part_in"
  | "polarity_unseen"
  | "polarity_conflict"
  | "drain_on"
  | "check_missing"
  | "sheet_or_earth_out";

export interface Shutter {
  readonly code: ShutCode;
  /** Designators, rails or counts, as its sentence needs them. */
  readonly subjects: readonly string[];
  /** Places that one key may leave out on purpose. */
  readonly positionIds: readonly string[];
}

export interface FirstPower {
  readonly isShut: boolean;
  /** The gate after a blown fuse, a bang or a trip. */
  readonly gate: PowerGate;
  readonly shutters: readonly Shutter[];
  /** Cold checks that the work asks for, answered or not. */
  readonly demands: readonly AnsweredDemand[];
  /** Set where a person went on in spite of what stands against it; what came later is not meant by it. */
  readonly overruledBy: PowerEvent | null;
  /** The record of the first power-up since the last part went in; null: it is still to come. */
  readonly record: PowerEvent | null;
}

interface Dated extends Shutter {
  /** Place in the order of what made it: an overrule covers what was there before it. */
  readonly since: number;
}

/** Parts that carry the mains or a rail whole, and fail short. */
const powerKinds: readonly PartKind[] = ["transistor", "bridge", "diode"];

/**
 * What stands against the first power-up: a part of the mains side out and not in, a power part that reads bad and is still in, polarity
 * unseen or in conflict, a drain that hangs on a store, cold checks that the work asks for, a sheet or an earth screw that
 * is out. A person may overrule all of it with a reason, until something new stands against it; a sheet or earth screw
 * instead by saying for one power-up that the board lies insulated with its earth clipped on.
 */
export function firstPower(facts: JobFacts, states: readonly ChargeState[]): FirstPower {
  const gate = powerGate(facts, facts.symptoms, facts.powerEvents);
  const demands = coldDemands(facts);
  const overrule = lastOf(facts, "gate_overruled");
  const standing = [
    ...partShutters(facts),
    ...badParts(facts),
    ...drains(facts, states),
    ...missingChecks(facts, demands),
  ].filter((one) => overrule === null || one.since > order(overrule));
  const shutters = [...standing, ...openCase(facts)].map(({ since: _, ...shutter }) => shutter);
  return {
    isShut: gate.isShut || shutters.length > 0,
    gate,
    shutters,
    demands,
    overruledBy: overrule,
    record: recordSince(facts),
  };
}

const order = ({ sequence }: { readonly sequence: number | null }) => sequence ?? Number.POSITIVE_INFINITY;

function lastOf(facts: JobFacts, kind: PowerEvent["kind"]): PowerEvent | null {
  return inOrder(facts.powerEvents.filter((event) => event.kind === kind)).at(-1) ?? null;
}

/** The first power-up counts for what was in the unit then: a part fitted later makes it a new one. */
function recordSince(facts: JobFacts): PowerEvent | null {
  const record = lastOf(facts, "first_power");
  const act = lastAct(facts.ticks);
  return record && (act === null || order(record) > order(act)) ? record : null;
}

function dated(code: ShutCode, of: readonly { readonly position: BoardPosition; readonly since: number }[]): Dated[] {
  if (of.length === 0) return [];
  return [
    {
      code,
      subjects: of.map((one) => one.position.designator),
      positionIds: of.map((one) => one.position.id),
      since: Math.max(...of.map((one) => one.since)),
    },
  ];
}

function partShutters(facts: JobFacts): readonly Dated[] {
  const placed = facts.positions.map((position) => {
    const own = facts.ticks.filter((tick) => tick.positionId === position.id);
    return { position, done: doneSteps(facts.ticks, position.id), since: Math.max(...own.map(order), 0) };
  });
  const isLeftOut = ({ position }: { readonly position: BoardPosition }) =>
    facts.acts.some((act) => act.kind === "out_for_test" && act.subjectId === position.id) && !isBulk(facts, position);
  const partAt = ({ position }: { readonly position: BoardPosition }) =>
    currentPart(facts.fittedParts, position.id) ?? foundPart(facts.fittedParts, position.id);
  const fitted = placed.filter(
    (one) => one.done.has("fitted") && one.position.kind === "electrolytic" && partAt(one)?.isNonPolar !== true,
  );
  const stripe = (one: { readonly position: BoardPosition }) => partAt(one)?.stripeDegrees ?? null;
  const isSeen = (one: (typeof placed)[number]) =>
    one.done.has("polarity_board_mark") &&
    one.done.has("polarity_part_mark") &&
    hasBoardRecord(facts, one.position) &&
    stripe(one) !== null;
  return [
    ...dated(
      "part_out",
      placed.filter(
        (one) =>
          one.done.has("removed") && !one.done.has("fitted") && isOnMainsSide(facts, one.position) && !isLeftOut(one),
      ),
    ),
    ...dated(
      "polarity_unseen",
      fitted.filter((one) => !isSeen(one)),
    ),
    ...dated(
      "polarity_conflict",
      fitted.filter((one) => doPolaritiesAgree(one.position.boardNegativeDegrees, stripe(one)) === false),
    ),
  ];
}

/** A unit never runs without its bulk: that place is never left out on purpose. */
export function isBulk(facts: Pick<JobFacts, "nets">, { netId }: BoardPosition): boolean {
  const section = facts.nets.find((net) => net.id === netId)?.section;
  return section === "bulk" || section === "pfc";
}

function badParts(facts: JobFacts): readonly Dated[] {
  const devices = judgeDevices(facts);
  const isOut = (id: string) => {
    const steps = doneSteps(facts.ticks, id);
    return steps.has("removed") && !steps.has("fitted");
  };
  // A new one that reads bad shuts it like the old one did.
  const bad = facts.positions.filter(
    ({ id, kind }) => powerKinds.includes(kind) && devices.get(id)?.verdict === "failed" && !isOut(id),
  );
  const since = (id: string) => Math.max(...facts.readings.filter((reading) => reading.targetId === id).map(order), 0);
  return dated(
    "bad_power_part_in",
    bad.map((position) => ({ position, since: since(position.id) })),
  );
}

function drains(facts: JobFacts, states: readonly ChargeState[]): readonly Dated[] {
  const on = facts.energyStores.filter((store) => states.some((one) => one.storeId === store.id && one.isDrainOn));
  if (on.length === 0) return [];
  const own = facts.chargeEvents.filter((event) => on.some((store) => store.id === event.storeId));
  const since = Math.max(...own.map(order), 0);
  return [{ code: "drain_on", subjects: on.map((store) => store.name), positionIds: [], since }];
}

/** Sheets and earth screws that are out, unless the board is said to lie insulated, for the one power-up that follows. */
function openCase(facts: JobFacts): readonly Dated[] {
  const missing = closingList(facts.teardownSteps, facts.teardownReturns).filter(
    ({ step, missingCount }) => missingCount > 0 && (step.kind === "sheet" || step.kind === "earth_screws"),
  );
  if (missing.length === 0) return [];
  const told = inOrder(facts.acts.filter((act) => act.kind === "board_insulated")).at(-1);
  const isSpent = (since: number) =>
    facts.chargeEvents.some((event) => event.kind === "mains_disconnected" && order(event) > since);
  if (told && !isSpent(order(told))) return [];
  const subjects = missing.map(({ step, missingCount }) => `${step.kind}:${missingCount}`);
  return [{ code: "sheet_or_earth_out", subjects, positionIds: [], since: 0 }];
}

/**
 * The cold checks that the work asks for: on an output its rail, not shorted; after a power part its own path, the bridge and
 * its insulation from the sink. A reading on the rail that was taken since counts like a check; once the unit ran since the
 * work, a cold check of it comes too late to tell anything.
 */
export function coldDemands(facts: JobFacts): readonly AnsweredDemand[] {
  const acts = inOrder(facts.ticks.filter((tick) => tick.step === "fitted" && tick.isDone));
  const wanted = new Map<string, { readonly demand: GateDemand; readonly since: number }>();
  const hasRunSince = (act: ReworkTick) =>
    standingReadings(facts.readings).some((reading) => reading.isPowered && isBefore(act, loggedReading(reading)));
  for (const act of acts) {
    if (hasRunSince(act)) continue;
    const position = facts.positions.find((one) => one.id === act.positionId);
    if (!position || !doneSteps(facts.ticks, position.id).has("fitted")) continue;
    for (const demand of demandsAfter(facts, position)) wanted.set(demandKey(demand), { demand, since: order(act) });
  }
  return [...wanted.values()].map(({ demand, since }) => {
    const later = inOrder(facts.powerEvents.filter((one) => one.kind === "gate_check" && order(one) > since));
    const checks = new Map(
      later.map((one) => [demandKey({ item: one.item ?? "bulk", subjectId: one.subjectId }), one]),
    );
    const answered = answer(demand, checks);
    return answered.state === "open" && isReadSince(facts, demand, since) ? { ...answered, state: "passed" } : answered;
  });
}

function demandsAfter(facts: JobFacts, position: BoardPosition): readonly GateDemand[] {
  const own = (item: GateDemand["item"]): GateDemand => {
    const { id, designator } = position;
    return { item, subjectId: id, designator };
  };
  if (!isOnMainsSide(facts, position)) {
    const net = facts.nets.find((one) => one.id === position.netId);
    const rail: GateDemand[] = net ? [{ item: "rail", subjectId: net.id, designator: net.name }] : [];
    return powerKinds.includes(position.kind) ? [...rail, own("sink")] : rail;
  }
  if (position.kind === "transistor") {
    const bridge: GateDemand = { item: "bridge", subjectId: null, designator: null };
    return [own("transistor"), bridge, own("sink")];
  }
  return position.kind === "bridge" ? [own("bridge"), own("sink")] : [];
}

/** Ohms that were read on the rail, or on one of its parts in circuit, are the check of the rail. */
function isReadSince(facts: JobFacts, { item, subjectId }: GateDemand, since: number): boolean {
  if (item !== "rail" || subjectId === null) return false;
  const onNet = new Set(facts.positions.filter((one) => one.netId === subjectId).map((one) => one.id));
  return standingReadings(facts.readings).some((reading) => {
    const isHere = reading.targetId === subjectId || onNet.has(reading.targetId);
    if (!isHere || reading.quantity !== "resistance" || reading.isPowered || order(reading) <= since) return false;
    if (reading.coarseCode === overRangeCode) return true;
    return reading.value !== null && gateItemRules.rail.usual([reading.value]);
  });
}

function missingChecks(facts: JobFacts, demands: readonly AnsweredDemand[]): readonly Dated[] {
  const open = demands.filter((one) => one.state !== "passed");
  if (open.length === 0) return [];
  const acts = facts.ticks.filter((tick) => tick.step === "fitted" && tick.isDone);
  const subjects = open.map((one) => `${one.item}:${one.designator ?? ""}`);
  return [{ code: "check_missing", subjects, positionIds: [], since: Math.max(...acts.map(order), 0) }];
}

/**
 * The mains connections that were made while something stood against them: a fact is taken whatever it is, and said for what
 * it was.
 */
export function connectedAgainstGate(facts: JobFacts, rules: ChargeRules): readonly ChargeEvent[] {
  return facts.chargeEvents.filter((event) => {
    if (event.kind !== "mains_connected") return false;
    const then = factsBefore(facts, event);
    const states = jobChargeStates(then, rules, serverMilliseconds(event) ?? Date.parse(event.at));
    return firstPower(then, states).isShut;
  });
}
