import type { BoardNet } from "../board/board";
import { railBand } from "../board/railBand";
import type { RailRules } from "../board/railRules";
import { rippleLimitVolts } from "../board/rippleLimit";
import { sectionFacts } from "../board/sections";
import { tradeConstants } from "../constants/tradeConstants";
import type { JobAct } from "../facts/jobActs";
import type { ReworkTick } from "../facts/jobFacts";
import { isBefore, type LoggedFact } from "../readings/factMoment";
import { type Falsifier, falsifiedBy } from "../readings/falsified";
import { loggedReading, type Reading, standingReadings } from "../readings/reading";
import { lastChange, latest } from "./lastChange";

const { leastTellingShare, leastTellingAmps, tellingSteps, asNewMarginRatio, mostOverLimitRatio } =
  tradeConstants.proof;

/**
 * `part_load`: read, but not at the load that was promised; `unexplained`: it failed since the last act, reads well now,
 * and nobody said why; `wrong_sign`: the other way round; `as_new`: above the limit, and new parts would not do better.
 */
export type CheckState =
  | "passed"
  | "failed"
  | "wrong_sign"
  | "unexplained"
  | "part_load"
  | "as_new"
  | "not_measured"
  | "no_limit";

/** One check of a rail: what decides, its limits, and what stood before. */
export interface RailCheck {
  readonly state: CheckState;
  /** The reading that decides; null where none does. */
  readonly reading: Reading | null;
  readonly low: number | null;
  readonly high: number | null;
  /** With unexplained: the one that failed. */
  readonly failedBefore: Reading | null;
}

export interface RailProof {
  readonly netId: string;
  readonly unloaded: RailCheck;
  readonly loaded: RailCheck;
  readonly ripple: RailCheck;
  /** Share of the promise at which it was read, with part load. */
  readonly partLoadRatio: number | null;
  /** (unloaded - loaded) / nominal; null until both were measured. */
  readonly loadRegulationRatio: number | null;
  /** Volts per ampere of load; null where the drop cannot carry it. */
  readonly outputResistanceOhms: number | null;
  /** What new parts would leave of the ripple, where the limit is passed. */
  readonly asNewRippleVolts: number | null;
  /** Read, and proving nothing: through what. */
  readonly voided: readonly { readonly reading: Reading; readonly by: Falsifier }[];
  /** Read before the last part went in or the trim was turned: what the unit was like, not what it is. */
  readonly asReceived: readonly Reading[];
}

/** What a proof is drawn from. */
export interface ProofFacts {
  readonly readings: readonly Reading[];
  readonly ticks: readonly ReworkTick[];
  readonly acts: readonly JobAct[];
}

interface ProofOptions {
  /** Also what was read before the last act: what was wrong, not what is proved. */
  readonly isOfAnyTime?: boolean;
  /** Ripple of the rail with every part new, at the load of the reading; asked only where the limit is passed. */
  readonly asNewVolts?: (loadAmps: number) => number | null;
}

/**
 * What the readings on a rail prove, against its limits.
 *
 * Only what was read after the last part went in, or the rail's trim was turned, proves anything, and only at the house's
 * share of the promised load; a rail without a promise counts as loaded under any load. The worst standing reading decides:
 * a good repeat replaces a bad one only after an act or with a picked reason. What the rig falsifies is kept and proves
 * nothing. Load regulation is related to the nominal voltage; a resistance is said only where the load is at least a tenth
 * of the promise and 0.2 A, and the drop three steps of a usual meter.
 */
export function railProof(net: BoardNet, facts: ProofFacts, rules: RailRules, options: ProofOptions = {}): RailProof {
  const { isMainsSide } = sectionFacts[net.section];
  const own = standingReadings(facts.readings).filter(
    (reading) => reading.targetKind === "rail" && reading.targetId === net.id && reading.isPowered,
  );
  const change = options.isOfAnyTime ? null : lastChange(net.id, facts);
  const isSince = (reading: Reading) => change === null || isBefore(change, loggedReading(reading));
  const current = own.filter(isSince);
  const voided = current.flatMap((reading) => {
    const by = falsifiedBy(reading, isMainsSide);
    return by ? [{ reading, by }] : [];
  });
  const valid = current.filter((reading) => falsifiedBy(reading, isMainsSide) === null && reading.value !== null);
  const full = net.fullLoadAmps === null ? null : net.fullLoadAmps * rules.loadShareRatio;
  const isFull = ({ loadAmps }: Reading) => (loadAmps ?? 0) > 0 && (full === null || (loadAmps ?? 0) >= full);
  const isIdle = ({ loadAmps }: Reading) => (loadAmps ?? 0) === 0;
  const explained = explanationOf(net, facts);

  const volts = valid.filter((one) => one.quantity === "dc_voltage");
  const [idleBand, loadedBand] = [railBand(net, rules, false), railBand(net, rules, true)];
  const unloaded = decide(volts.filter(isIdle), idleBand, net, explained);
  const atFull = decide(volts.filter(isFull), loadedBand, net, explained);
  const part = largestLoad(volts.filter((one) => !isIdle(one) && !isFull(one)));
  const loaded =
    atFull.state === "not_measured" && part ? { ...atFull, state: "part_load" as const, reading: part } : atFull;

  const limit = rippleLimitVolts(net, rules);
  const rippleBand = limit === null ? null : { low: 0, high: limit };
  const ripples = valid.filter((one) => one.quantity === "ripple_voltage");
  const rippleAtFull = decide(ripples.filter(isFull), rippleBand, null, explained);
  const ripplePart = largestLoad(ripples.filter((one) => !isFull(one)));
  const rippleRead =
    rippleAtFull.state === "not_measured" && ripplePart
      ? { ...rippleAtFull, state: "part_load" as const, reading: ripplePart }
      : rippleAtFull;
  const rippleAmps = rippleRead.reading?.loadAmps ?? 0;
  const asNewRippleVolts = rippleRead.state === "failed" ? (options.asNewVolts?.(rippleAmps) ?? null) : null;
  const ripple = isAsNew(rippleRead, limit, asNewRippleVolts)
    ? { ...rippleRead, state: "as_new" as const }
    : rippleRead;

  const [idle, under] = [unloaded.reading, loaded.state === "part_load" ? part : loaded.reading];
  const drop = idle && under ? Math.abs(idle.value ?? 0) - Math.abs(under.value ?? 0) : null;
  const nominal = net.nominalVolts === 0 ? null : net.nominalVolts;
  return {
    netId: net.id,
    unloaded,
    loaded,
    ripple,
    partLoadRatio: loaded.state === "part_load" && net.fullLoadAmps ? (part?.loadAmps ?? 0) / net.fullLoadAmps : null,
    loadRegulationRatio: drop === null || nominal === null ? null : drop / Math.abs(nominal),
    outputResistanceOhms: drop === null || !under ? null : tellingOhms(net, drop, under),
    asNewRippleVolts,
    voided,
    asReceived: own.filter((reading) => !isSince(reading)),
  };
}

/** What explained by the way of measuring why the rail had failed. */
function explanationOf(net: BoardNet, { acts }: ProofFacts): LoggedFact | null {
  return latest(acts.filter((act) => act.kind === "retest_explained" && act.subjectId === net.id));
}

type Band = { readonly low: number; readonly high: number };

/** @param net for the sign of its volts; null where a quantity has none */
function decide(
  readings: readonly Reading[],
  band: Band | null,
  net: BoardNet | null,
  explained: LoggedFact | null,
): RailCheck {
  const edges = { low: band?.low ?? null, high: band?.high ?? null };
  const last = readings.at(-1) ?? null;
  const nothing = { ...edges, reading: last, failedBefore: null };
  if (last === null) return { ...nothing, state: "not_measured" };
  if (band === null) return { ...nothing, state: "no_limit" };
  const isWrongWay = ({ value }: Reading) => net?.nominalVolts != null && (value ?? 0) * net.nominalVolts < 0;
  const isOut = ({ value }: Reading) => (value ?? 0) < band.low || (value ?? 0) > band.high;
  if (isWrongWay(last)) return { ...nothing, state: "wrong_sign" };
  if (isOut(last)) return { ...nothing, state: "failed" };
  const isTold = (one: Reading) => explained !== null && !isBefore(explained, loggedReading(one));
  const failed = readings.filter((one) => isOut(one) && !isTold(one)).at(-1) ?? null;
  return failed ? { ...nothing, state: "unexplained", failedBefore: failed } : { ...nothing, state: "passed" };
}

function largestLoad(readings: readonly Reading[]): Reading | null {
  return readings.reduce<Reading | null>(
    (most, one) => (most === null || (one.loadAmps ?? 0) >= (most.loadAmps ?? 0) ? one : most),
    null,
  );
}

/** Above the limit as new parts are, and never above twice the limit: then the limit is at fault, and that is said. */
function isAsNew({ reading, state }: RailCheck, limit: number | null, asNewVolts: number | null): boolean {
  if (state !== "failed" || limit === null || asNewVolts === null || asNewVolts <= limit) return false;
  const volts = reading?.value ?? Number.POSITIVE_INFINITY;
  return volts <= asNewMarginRatio * asNewVolts && volts <= mostOverLimitRatio * limit;
}

/** The drop as a resistance, where load and drop are large enough to tell one. */
function tellingOhms(net: BoardNet, drop: number, { loadAmps, value }: Reading): number | null {
  const amps = loadAmps ?? 0;
  const leastAmps = Math.max(leastTellingShare * (net.fullLoadAmps ?? 0), leastTellingAmps);
  // A usual meter shows four digits.
  const stepVolts = 10 ** (Math.floor(Math.log10(Math.max(Math.abs(value ?? 0), 0.1))) - 3);
  return amps < leastAmps || Math.abs(drop) < tellingSteps * stepVolts ? null : drop / amps;
}
