import {
  assumedChoke,
  type BoardNet,
  type BoardPosition,
  currentPart,
  type FittedPart,
  foundPart,
} from "../board/board";
import { canImpedance, pseudoRatedRippleAmpsRms } from "../capacitors/canImpedance";
import { canSurfaceSquareMetres } from "../capacitors/canSurface";
import { type CapacitorClass, hasPolymer } from "../capacitors/capacitorClass";
import { expectedEsrOfPart } from "../capacitors/expectedEsrOfPart";
import { usualInductanceHenrys } from "../capacitors/usualInductance";
import { wornColdFactor } from "../capacitors/wornColdFactor";
import { tradeConstants } from "../constants/tradeConstants";
import { groupReadings } from "../readings/groupReadings";
import { type Reading, tellingReadings } from "../readings/reading";
import { equivalentRippleCurrent } from "./equivalentRippleCurrent";
import { filterHarmonics } from "./filterHarmonics";
import type { FilterCapacitor, FilterNetwork } from "./filterNetwork";
import type { SourceCurrent } from "./sourceCurrent";
import { type RippleCourse, type SteadyRipple, steadyRipple } from "./steadyRipple";

const { typicalOfCatalogueRatio } = tradeConstants.ripple;

/** Which parts stand in the filter: as new, as they were read, or with what was chosen in their place. */
export const filterStates = ["healthy", "measured", "replaced"] as const;
export type FilterState = (typeof filterStates)[number];

/** A part that was chosen for a place, as far as the ripple cares. */
export interface ChosenPart {
  readonly capacitanceFarads: number;
  readonly esrOhms: number | null;
  readonly ratedRippleAmpsRms: number | null;
}

export interface RippleBoard {
  readonly nets: readonly BoardNet[];
  readonly positions: readonly BoardPosition[];
  readonly fittedParts: readonly FittedPart[];
  readonly readings: readonly Reading[];
  /** By position: what the plan puts there. */
  readonly chosen: ReadonlyMap<string, ChosenPart>;
  /** Places that the plan leaves empty. */
  readonly emptyIds?: ReadonlySet<string>;
}

/** Where the values of one capacitor in the filter come from. */
export type FilterSource = "marking" | "read" | "chosen";

export interface FilterPart {
  readonly positionId: string;
  readonly isBehindChoke: boolean;
  readonly capacitor: FilterCapacitor;
  readonly source: FilterSource;
  /** Rated ripple at 100 kHz, by its sheet or its can; null where neither is known. */
  readonly ratedAmpsRms: number | null;
  readonly marking: {
    readonly capacitanceFarads: number;
    readonly ratedVolts: number;
    readonly capacitorClass: CapacitorClass | null;
  };
}

export interface RailFilter {
  readonly parts: readonly FilterPart[];
  readonly network: FilterNetwork;
  readonly isChokeAssumed: boolean;
  /** Capacitors on the rail that cannot be reckoned with: no value or no voltage. */
  readonly leftOutIds: readonly string[];
}

interface FilterQuestion {
  readonly state: FilterState;
  readonly switchingHertz: number;
  readonly temperatureCelsius: number;
  /** Positions that are taken as replaced by new parts of the same marking, whatever is chosen. */
  readonly renewedIds?: readonly string[];
  /** On the load itself, behind everything. */
  readonly loadFarads?: number | null;
}

/** What a part that reads no capacitance at all still has, by its leads and its place: for a filter it is open. Rough. */
const openFarads = 1e-9;

/** ESR of what stands on a load: ceramic and short wires. Rough. */
const loadCapacitanceOhms = 0.01;

/**
 * The output filter of a rail as the board shows it: its capacitors, and across a choke those of the rail filtered from it.
 *
 * Healthy parts have their expected ESR and marked C. Read parts have their own readings out of circuit, carried from
 * the tester's frequency and temperature to the converter's by the ratio of expected values; what was not read counts as
 * healthy and says so. ESR follows the temperature. Parts without marking are left out. Each can has the
 * inductance of its pins, by pitch or size (usualInductance): it lowers the quiet ripple of good banks, shares the current
 * above some hundred kilohertz, and makes the spikes.
 *
 * @returns null where no capacitor of the rail can be reckoned with
 */
export function railFilter(board: RippleBoard, netId: string, question: FilterQuestion): RailFilter | null {
  const next = board.nets.find((one) => one.network?.behindNetId === netId);
  const leftOutIds: string[] = [];
  const partsOn = (id: string, isBehindChoke: boolean): FilterPart[] =>
    board.positions
      .filter((one) => one.kind === "electrolytic" && one.netId === id)
      .filter((one) => question.state !== "replaced" || !board.emptyIds?.has(one.id))
      .flatMap((position) => {
        const part = filterPart(board, position, isBehindChoke, question);
        if (!part && !isAdded(board, position)) leftOutIds.push(position.id);
        return part ? [part] : [];
      });
  const before = partsOn(netId, false);
  const after = next ? partsOn(next.id, true) : [];
  if (before.length === 0) return null;
  const choke =
    after.length > 0
      ? {
          inductanceHenrys: next?.network?.chokeHenrys ?? assumedChoke.henrys,
          resistanceOhms: next?.network?.chokeOhms ?? assumedChoke.ohms,
        }
      : null;
  const { loadFarads = null } = question;
  const load = loadFarads === null ? [] : [{ capacitanceFarads: loadFarads, esrOhms: loadCapacitanceOhms }];
  const values = (list: readonly FilterPart[]) => list.map((one) => one.capacitor);
  return {
    parts: [...before, ...after],
    // The load's own comes last, so that every part keeps its place among the currents.
    network: choke
      ? { before: values(before), choke, after: [...values(after), ...load] }
      : { before: [...values(before), ...load], choke, after: [] },
    isChokeAssumed: choke !== null && next?.network?.chokeHenrys == null,
    leftOutIds,
  };
}

/** A place where nothing was found: a can that the plan adds beside another. */
function isAdded(board: RippleBoard, { id }: BoardPosition): boolean {
  return (
    foundPart(board.fittedParts, id) === undefined &&
    (board.chosen.has(id) || currentPart(board.fittedParts, id) !== undefined)
  );
}

function filterPart(
  board: RippleBoard,
  position: BoardPosition,
  isBehindChoke: boolean,
  question: FilterQuestion,
): FilterPart | null {
  const { switchingHertz, temperatureCelsius, state, renewedIds = [] } = question;
  if (isAdded(board, position) && state !== "replaced") return null;
  const part = foundPart(board.fittedParts, position.id) ?? currentPart(board.fittedParts, position.id);
  if (!part) return addedPart(board, position, isBehindChoke);
  if (part.capacitanceFarads === null || part.ratedVolts === null) return null;
  const here = expectedEsrOfPart(part, switchingHertz, temperatureCelsius);
  if (!here) return null;
  const { capacitanceFarads, ratedVolts, capacitorClass, diameterMetres } = part;
  const marking = { capacitanceFarads, ratedVolts, capacitorClass };
  const eslHenrys = usualInductanceHenrys({ pitchMetres: position.pitchMetres, diameterMetres });
  const common = { positionId: position.id, isBehindChoke, marking, ratedAmpsRms: ratedAmps(part) };
  const healthy: FilterPart = {
    ...common,
    source: "marking",
    capacitor: { capacitanceFarads, esrOhms: here.typicalOhms, eslHenrys },
  };
  if (state === "healthy" || renewedIds.includes(position.id)) return healthy;
  const chosen = state === "replaced" ? board.chosen.get(position.id) : undefined;
  if (chosen) {
    const at100k = expectedEsrOfPart(part, 100e3, 20);
    const carried = at100k ? here.typicalOhms / at100k.typicalOhms : 1;
    const esrOhms = chosen.esrOhms === null ? here.typicalOhms : typicalOfCatalogueRatio * chosen.esrOhms * carried;
    return {
      ...common,
      source: "chosen",
      ratedAmpsRms: chosen.ratedRippleAmpsRms ?? common.ratedAmpsRms,
      capacitor: { capacitanceFarads: chosen.capacitanceFarads, esrOhms, eslHenrys },
    };
  }
  const own = tellingReadings(board.readings).filter((one) => one.fittedPartId === part.id);
  const esr = groupReadings(own, "esr").find((one) => !one.isInCircuit && one.value > 0);
  const farads = groupReadings(own, "capacitance").find((one) => !one.isInCircuit);
  if (!esr && !farads) return healthy;
  const there = esr && expectedEsrOfPart(part, esr.frequencyHertz, esr.temperatureCelsius);
  const esrOhms =
    esr && there
      ? (esr.value * here.typicalOhms * colder(esr, there, part, temperatureCelsius)) / there.typicalOhms
      : here.typicalOhms;
  return {
    ...common,
    source: "read",
    capacitor: {
      capacitanceFarads: farads ? Math.max(farads.value, openFarads) : capacitanceFarads,
      esrOhms,
      eslHenrys,
    },
  };
}

/** A can that the plan adds where nothing was found, by its sheet alone. */
function addedPart(board: RippleBoard, position: BoardPosition, isBehindChoke: boolean): FilterPart | null {
  const chosen = board.chosen.get(position.id);
  if (chosen?.esrOhms == null) return null;
  const { capacitanceFarads, esrOhms, ratedRippleAmpsRms: ratedAmpsRms } = chosen;
  const ratedVolts = Math.abs(board.nets.find((one) => one.id === position.netId)?.nominalVolts ?? 25) || 25;
  const eslHenrys = usualInductanceHenrys({ pitchMetres: position.pitchMetres, diameterMetres: null });
  return {
    ...{ positionId: position.id, isBehindChoke, source: "chosen", ratedAmpsRms },
    marking: { capacitanceFarads, ratedVolts, capacitorClass: "lowz" },
    capacitor: { capacitanceFarads, esrOhms: typicalOfCatalogueRatio * esrOhms, eslHenrys },
  };
}

/** What the cold does to a worn part beyond what it does to a new one, from where it was read to where it works. */
function colder(
  esr: { readonly value: number; readonly temperatureCelsius: number },
  there: { readonly typicalOhms: number },
  { capacitorClass }: FittedPart,
  temperatureCelsius: number,
): number {
  if (capacitorClass !== null && hasPolymer(capacitorClass)) return 1;
  const wear = esr.value / there.typicalOhms;
  return wornColdFactor(wear, temperatureCelsius) / wornColdFactor(wear, esr.temperatureCelsius);
}

function ratedAmps(part: FittedPart): number | null {
  const { diameterMetres, heightMetres, ratedVolts, capacitorClass } = part;
  const liquid = capacitorClass ?? "lowz";
  if (diameterMetres === null || heightMetres === null || ratedVolts === null || ratedVolts > 100) return null;
  if (hasPolymer(liquid)) return null;
  const { impedanceMaxOhms } = canImpedance({ diameterMetres, heightMetres, ratedVolts, capacitorClass: liquid });
  return pseudoRatedRippleAmpsRms(canSurfaceSquareMetres(diameterMetres, heightMetres), impedanceMaxOhms);
}

/** Current of one capacitor against what it is rated for. */
export interface CapacitorShare {
  readonly positionId: string;
  readonly ampsRms: number;
  /** The same as one current at 100 kHz, every harmonic weighed by itself. */
  readonly equivalentAmpsRms: number;
  readonly ratedAmpsRms: number | null;
  /** Of the current into the bank before the choke or behind it. */
  readonly shareRatio: number;
}

/** One period of a node with straight lines in place of the edges. */
export interface QuietRipple {
  readonly values: Float64Array;
  readonly peakToPeak: number;
  /** How far the edges reach beyond the quiet ripple, by the inductance of the cans alone. */
  readonly spikeVolts: number;
}

export interface RailRipple {
  readonly filter: RailFilter;
  readonly ripple: SteadyRipple;
  /** Volts at each node without its spikes. */
  readonly quiet: readonly QuietRipple[];
  /** Quiet ripple at the load: behind the choke where there is one. */
  readonly loadPeakToPeakVolts: number;
  readonly shares: readonly CapacitorShare[];
}

const harmonicCount = 40;

/**
 * What is left of a node's ripple without the edges of the source: two numbers instead of one, as a bench reads them. While a
 * current is switched over, L di/dt stands on the node; outside, the same L takes a little off the step of the ESR.
 */
function quietRipple(seconds: Float64Array, course: RippleCourse, { edges }: SourceCurrent): QuietRipple {
  const values = course.values.slice();
  // Both sides of an edge's ends are samples of their own: the outer ones are quiet.
  for (const [start, end] of edges) {
    const first = seconds.indexOf(start);
    const [from, to] = [Math.max(0, start === 0 ? first : seconds.indexOf(start, first + 1)), seconds.lastIndexOf(end)];
    const before = start === 0 ? (values.at(-1) ?? 0) : (values[from - 1] ?? 0);
    const after = values[to] ?? 0;
    for (let n = from; n < to; n++) {
      const t = seconds[n] as number;
      values[n] = before + ((after - before) * (t - start)) / (end - start);
    }
  }
  // The course itself knows the turns between samples: without edges it has the last word.
  const peakToPeak = edges.length === 0 ? course.peakToPeak : rangeOf(values);
  return { values, peakToPeak, spikeVolts: Math.max(course.peakToPeak - peakToPeak, 0) };
}

function rangeOf(values: Float64Array): number {
  let [low, high] = [Infinity, -Infinity];
  for (const one of values) {
    low = Math.min(low, one);
    high = Math.max(high, one);
  }
  return high - low;
}

/** Ripple of a rail and the current in each of its capacitors, under a source. */
export function railRipple(filter: RailFilter, source: SourceCurrent): RailRipple {
  const ripple = steadyRipple(source, filter.network);
  const quiet = ripple.nodeVolts.map((course) => quietRipple(ripple.seconds, course, source));
  const spectra = filterHarmonics(source, filter.network, harmonicCount);
  const sumOf = (isBehind: boolean) =>
    filter.parts.reduce(
      (sum, part, n) => sum + (part.isBehindChoke === isBehind ? (ripple.capacitorAmps[n]?.rms ?? 0) : 0),
      0,
    );
  const sums = [sumOf(false), sumOf(true)] as const;
  return {
    filter,
    ripple,
    quiet,
    loadPeakToPeakVolts: quiet.at(-1)?.peakToPeak ?? 0,
    shares: filter.parts.map((part, n) => {
      const ampsRms = ripple.capacitorAmps[n]?.rms ?? 0;
      const split = equivalentRippleCurrent(part.marking, spectra[n] ?? []);
      const all = sums[part.isBehindChoke ? 1 : 0];
      return {
        positionId: part.positionId,
        ampsRms,
        // What the first harmonics leave out is high in frequency, where a rating holds as it stands.
        equivalentAmpsRms: Math.hypot(
          split.equivalentAmpsRms,
          Math.sqrt(Math.max(ampsRms ** 2 - split.trueAmpsRms ** 2, 0)),
        ),
        ratedAmpsRms: part.ratedAmpsRms,
        shareRatio: all > 0 ? ampsRms / all : 0,
      };
    }),
  };
}
