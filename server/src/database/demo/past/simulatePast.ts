import { type BoardNet, expectedEsrOfPart, seededRandom } from "@pale-cap/core";
import type { DemoCapacitor, DemoJob } from "../demoJob";
import { demoJobs } from "../demoJobs";
import {
  badLot,
  goodLots,
  otherComebackShare,
  type PastModel,
  pastModels,
  switchAfterOutput,
  switchAlone,
  trueSeries,
  warmedFactor,
} from "./truth";

/** One capacitor of a unit, as it really was. */
export interface PastCapacitor {
  readonly at: string;
  readonly like: DemoCapacitor;
  readonly section: BoardNet["section"];
  readonly series: (typeof trueSeries)[keyof typeof trueSeries];
  readonly isWarmed: boolean;
  readonly hasFailed: boolean;
  /** What a meter reads of it by itself. */
  readonly esrOhms: number;
  readonly farads: number;
  readonly isReadInCircuit: boolean;
  readonly isReadOut: boolean;
  readonly isDomed: boolean;
  readonly isReplaced: boolean;
  /** It was put in here, when the unit came before. */
  readonly isRenewed: boolean;
}

/** A unit that came in and was closed. */
export interface PastUnit {
  readonly model: PastModel;
  readonly like: DemoJob;
  readonly serial: string;
  readonly ageYears: number;
  readonly hoursPerDay: number;
  readonly daysAgo: number;
  readonly symptoms: readonly string[];
  readonly capacitors: readonly PastCapacitor[];
  /** null: the board has none, or nobody tested it. */
  readonly isSwitchShorted: boolean | null;
  readonly outcome: "repaired" | "no_fault_found" | "declined" | "scrapped";
  readonly spentMinutes: number;
  readonly quotedMinutes: number | null;
  readonly lot: string | null;
  readonly person: number;
  /** Which unit of the list it is the return of, and since when. */
  readonly returnOf: number | null;
  readonly opening: boolean;
}

const years = 3;
const seed = 20261211;

/** Symptoms by what had failed, as people told them; other chances than the fault knowledge has. */
const told: Readonly<Record<string, Readonly<Record<string, number>>>> = {
  output: {
    repeated_attempts: 0.5,
    worse_over_months: 0.55,
    fails_under_load: 0.35,
    whine: 0.2,
    drops_after_seconds: 0.25,
  },
  vcc: { repeated_attempts: 0.85, ticking: 0.35, cold_start_fails: 0.5, worse_over_months: 0.4 },
  bulk: { hum: 0.5, fails_under_load: 0.6 },
  pfc: { hum: 0.4, fails_under_load: 0.6 },
  standby: { dead: 0.35, repeated_attempts: 0.3, relay_clicks: 0.25 },
  "output-post": { resets: 0.4, no_picture: 0.25 },
  feedback: { voltage_high: 0.3, whine: 0.3 },
  switch: { dead: 1, fuse_blown: 0.8, bang: 0.45 },
  nothing: { intermittent: 0.6, no_picture: 0.3 },
};

/**
 * Three years of repairs, the same under the same seed. Units come at any age, for whatever had failed by then: parts live by their
 * series' own dice, the transistor goes by its own chance or after dried outputs, and what is left comes for nothing in the supply.
 */
export function simulatePast(): readonly PastUnit[] {
  const random = seededRandom(seed);
  const waiting = pastModels.flatMap((model) => Array.from({ length: model.units }, () => model));
  shuffle(waiting, random);
  const units: PastUnit[] = [];
  waiting.forEach((model, n) => {
    const daysAgo = 20 + (years * 365 - 20) * (1 - (n + random()) / waiting.length);
    units.push(unitOf(model, daysAgo, units.length, random));
  });
  for (let n = 0; n < waiting.length; n++) {
    const back = returnOf(units, n, random);
    if (back) units.push(back);
  }
  return inOrderOfClosing(units);
}

function unitOf(model: PastModel, daysAgo: number, index: number, random: () => number): PastUnit {
  const like = demoJobs.find((one) => one.intake.deviceModel === model.boardOf) as DemoJob;
  const ageYears = Math.round(10 * (1.5 + 9.5 * random())) / 10;
  const hoursPerDay = 5 + Math.floor(8 * random());
  const hours = ageYears * 365.25 * hoursPerDay;
  const drawn = like.capacitors.map((one) => capacitorOf(one, model, like, hours, random));
  const hasOutput = drawn.some((one) => one.hasFailed && one.section === "output");
  const hasTransistor = like.outlines.some(([, kind]) => kind === "transistor");
  const goes = random() < (hasOutput ? switchAfterOutput : switchAlone);
  const failed = [...new Set(drawn.filter((one) => one.hasFailed).map((one) => one.section as string))];
  const isSwitchShorted = hasTransistor ? goes : null;
  const causes = [...failed, ...(isSwitchShorted ? ["switch"] : [])];
  const isLit = model.deviceKind === "monitor" || model.deviceKind === "television";
  const symptoms = [
    ...symptomsOf(causes, random),
    // Of its own draw: lamps behind a picture go out where their rail sags.
    ...(isLit && hasOutput && random() < 0.3 ? ["backlight_drops_out"] : []),
  ];
  const isNothing = causes.length === 0;
  const ends = random();
  const outcome = isNothing ? "no_fault_found" : ends < 0.06 ? "declined" : ends < 0.09 ? "scrapped" : "repaired";
  const usual = 25 + 7 * drawn.filter((one) => one.isReplaced).length + (isSwitchShorted ? 35 : 0);
  const spentMinutes = Math.round(usual * Math.exp(0.3 * gaussian(random)));
  const isQuoted = random() < 0.6;
  return {
    ...{ model, like, ageYears, hoursPerDay, daysAgo, symptoms, isSwitchShorted, outcome, spentMinutes },
    serial: `${model.model.slice(0, 2).toUpperCase()}-${String(100_000 + Math.floor(900_000 * random()))}`,
    // What is not repaired has nothing taken off its board.
    capacitors: outcome === "repaired" ? drawn : drawn.map((one) => ({ ...one, isReplaced: false, isReadOut: false })),
    quotedMinutes: isQuoted ? Math.round(usual * Math.exp(0.2 * gaussian(random)) * 0.85) : null,
    // Bought one after the other; the bad lot lay in the drawer for some months of the second year.
    lot: lotOn(daysAgo, random),
    person: index % 3,
    returnOf: null,
    opening: random() < 0.12,
  };
}

function lotOn(daysAgo: number, random: () => number): string {
  if (daysAgo > 430 && daysAgo < 640 && random() < 0.75) return badLot.lot;
  const n = Math.floor((goodLots.length * (years * 365 - daysAgo)) / (years * 365));
  return goodLots[Math.min(Math.max(n, 0), goodLots.length - 1)] as string;
}

const figures = (at: string, shift: number) => at.replace(/\d+/, (digits) => String(Number(digits) + shift));

/** A place by its name on another model's board. */
export const placeName = figures;

function capacitorOf(
  like: DemoCapacitor,
  model: PastModel,
  job: DemoJob,
  hours: number,
  random: () => number,
): PastCapacitor {
  const at = figures(like.at, model.shift);
  const section = (job.nets[like.net] as { section: BoardNet["section"] }).section;
  const series = trueSeries[model.series[section] ?? model.series.other];
  const isWarmed = model.warmed.includes(at);
  const lifeHours = series.etaHours * (isWarmed ? warmedFactor : 1) * (-Math.log(1 - random())) ** (1 / series.beta);
  const hasFailed = lifeHours <= hours;
  const typical = typicalOhms(like);
  const spread = Math.exp(0.13 * gaussian(random));
  const esrOhms = typical * spread * (hasFailed ? 4.5 + 9 * random() : 1 + 0.5 * (hours / lifeHours) ** 2);
  const farads = (like.microfarads / 1e6) * (hasFailed ? 0.3 + 0.42 * random() : 0.93 + 0.1 * random());
  const isReplaced = hasFailed || random() < 0.12;
  return {
    ...{ at, like, section, series, isWarmed, hasFailed, esrOhms, farads, isReplaced },
    isReadInCircuit: random() < 0.85,
    isReadOut: isReplaced || random() < 0.45,
    isDomed: hasFailed && like.microfarads >= 330 && random() < 0.4,
    isRenewed: false,
  };
}

const typicalOf = new Map<DemoCapacitor, number>();

function typicalOhms(like: DemoCapacitor): number {
  const known = typicalOf.get(like);
  if (known !== undefined) return known;
  const part = {
    ...{ id: "", positionId: "", capacitanceFarads: like.microfarads / 1e6, ratedVolts: like.volts },
    ...{ temperatureClassCelsius: like.celsius, capacitorClass: like.capacitorClass },
    ...{ diameterMetres: like.can[0] / 1e3, heightMetres: like.can[1] / 1e3, stripeDegrees: null },
    ...{ datasheetEsrOhms: null, toleranceRatio: null, series: null, origin: "found" as const },
    ...{ fittedAt: null, removedAt: null },
  };
  const typical = expectedEsrOfPart(part, 100e3, 20)?.typicalOhms ?? 0.05;
  typicalOf.set(like, typical);
  return typical;
}

function symptomsOf(causes: readonly string[], random: () => number): readonly string[] {
  const chances = causes.length === 0 ? [told.nothing] : causes.map((cause) => told[cause]);
  const symptoms = new Set<string>();
  for (const one of chances) {
    for (const [symptom, chance] of Object.entries(one ?? {})) if (random() < chance) symptoms.add(symptom);
  }
  return [...symptoms];
}

/** The same unit again, where what was fitted failed; nothing else of it has changed. */
function returnOf(units: readonly PastUnit[], index: number, random: () => number): PastUnit | null {
  const unit = units[index] as PastUnit;
  const fitted = unit.capacitors.filter((one) => one.isReplaced);
  const isBad = unit.lot === badLot.lot;
  const chance = isBad ? badLot.failedShare : otherComebackShare;
  if (unit.outcome !== "repaired" || fitted.length === 0 || random() >= chance) return null;
  const [from, to] = isBad ? badLot.failsWithin : [20, 300];
  const after = from + (to - from) * random();
  const daysAgo = unit.daysAgo - after;
  if (daysAgo < 12) return null;
  const bad = isBad ? fitted.filter((_, n) => n === 0 || random() < 0.6) : fitted.slice(0, 1);
  const names = new Set(bad.map((one) => one.at));
  const sections = [...new Set(bad.map((one) => one.section as string))];
  const capacitors = unit.capacitors.map((one): PastCapacitor => {
    const hasFailed = names.has(one.at) || (one.hasFailed && !one.isReplaced);
    const typical = typicalOhms(one.like);
    return {
      ...one,
      hasFailed,
      esrOhms: hasFailed ? typical * (5 + 6 * random()) : typical * Math.exp(0.12 * gaussian(random)),
      farads: (one.like.microfarads / 1e6) * (hasFailed ? 0.5 : 0.97),
      ...{ isReplaced: hasFailed, isReadOut: hasFailed, isReadInCircuit: true, isDomed: false },
      isRenewed: one.isReplaced,
    };
  });
  return {
    ...unit,
    ...{ daysAgo, capacitors, returnOf: index, symptoms: symptomsOf(sections, random), isSwitchShorted: null },
    ...{ lot: goodLots[2], spentMinutes: 30, quotedMinutes: null, opening: false },
  };
}

/** As they were closed, returns after what they are the returns of. */
function inOrderOfClosing(units: readonly PastUnit[]): readonly PastUnit[] {
  const order = units.map((_, n) => n).sort((a, b) => (units[b] as PastUnit).daysAgo - (units[a] as PastUnit).daysAgo);
  const placeOf = new Map(order.map((old, place) => [old, place]));
  return order.map((old) => {
    const unit = units[old] as PastUnit;
    return unit.returnOf === null ? unit : { ...unit, returnOf: placeOf.get(unit.returnOf) as number };
  });
}

function shuffle<T>(list: T[], random: () => number): void {
  for (let n = list.length - 1; n > 0; n--) {
    const other = Math.floor(random() * (n + 1));
    [list[n], list[other]] = [list[other] as T, list[n] as T];
  }
}

/** Box and Muller. */
function gaussian(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
