import { planningConstants } from "../constants/planningConstants";
import { OutOfRangeError } from "../errors";
import { lifeWithRippleHeating, type RippleHeatingSchool } from "../life/lifeWithRipple";
import { requireNonNegative, requirePositive } from "../numerics/requireRange";
import type { ParallelPart } from "./parallelParts";

/** A part that could stand in one of the places. */
export interface BankCandidate extends ParallelPart {
  readonly id: string;
  readonly ratedVolts: number;
  readonly temperatureClassCelsius: number;
  readonly diameterMetres: number;
  readonly heightMetres: number;
  readonly pitchMetres: number;
  readonly priceMinor: number;
  /** Null or absent: as many as are asked for. */
  readonly count?: number | null | undefined;
}

export interface BankPlace {
  readonly diameterMaxMetres: number;
  readonly heightMaxMetres: number;
  /** Null: any. */
  readonly pitchMetres: number | null;
  readonly mayStayEmpty: boolean;
}

export interface BankQuestion {
  readonly candidates: readonly BankCandidate[];
  readonly places: readonly BankPlace[];
  readonly capacitanceMinFarads: number;
  readonly capacitanceMaxFarads: number | null;
  readonly leastRatedVolts: number;
  readonly leastTemperatureClassCelsius: number;
  readonly frequencyHertz: number;
  /** As one current at 100 kHz. */
  readonly rippleAmpsRms: number;
  readonly ambientCelsius: number;
  readonly ratedCoreRiseKelvin: number;
  readonly school?: RippleHeatingSchool | null;
  readonly esrMaxOhms: number | null;
  /** The lower end of what the regulation bears; null or absent: none. */
  readonly esrMinOhms?: number | null;
  readonly mostLoadRatio: number;
  readonly leastLifeHours: number;
  readonly mode: "life" | "price";
  /** By how much leads are formed; absent: the constants'. */
  readonly pitchToleranceMetres?: number;
}

/** One way to fill the bank. */
export interface BankFilling {
  /** By place; null: left empty. Where one place holds two cans, the second stands last. */
  readonly ids: readonly (string | null)[];
  /** The place that holds two; absent: none does. */
  readonly sharedAt?: number;
  readonly capacitanceFarads: number;
  readonly esrOhms: number;
  readonly worstLifeHours: number;
  readonly mostLoadRatio: number;
  readonly priceMinor: number;
  readonly partCount: number;
}

export interface BankChoice {
  readonly best: BankFilling | null;
  /** Best of each kit of parts that fits, best first; as many as were asked for. */
  readonly ranked: readonly BankFilling[];
  readonly feasibleCount: number;
  readonly kitCount: number;
}

const slack = 1e-9;

/**
 * Fills the places of one parallel bank: every kit of candidates that fits the places is tried, so the best one is the best
 * there is. Only the kit matters electrically (places are never interchangeable): kits are listed, the ways of placing each are
 * counted.
 *
 *     I_k = I |Z|/|z_k|,  life_k = min(ten-kelvin life at I_k, cap)
 *     feasible: C, Re Z, load and life within their limits
 *     order by life: whole hours of the worst part falling, price; by price: price, hours; then fewer parts, then ids by place
 *
 * The arithmetic is solid, life is usual.
 *
 * @param count how many kits to rank; the best of each
 * @throws {OutOfRangeError} no candidates or places, more than the constants allow, the same id twice, values out of range
 */
export function chooseBank(question: BankQuestion, count = 1, constants = planningConstants.G): BankChoice {
  const { candidates, places } = question;
  checkQuestion(question, constants);
  const tolerance = question.pitchToleranceMetres ?? constants.pitch_tol_mm / 1e3;
  const fits = places.map((place) => candidates.map((part) => canStand(question, part, place, tolerance)));
  const usable = candidates.map((_, k) => fits.some((row) => row[k]));
  const parts = candidates.map((part) => seenAt(part, question.frequencyHertz));
  const found: { readonly counts: readonly number[]; readonly filling: Omit<BankFilling, "ids"> }[] = [];
  let feasibleCount = 0;
  const counts = candidates.map(() => 0);
  const visit = (from: number, used: number) => {
    if (used > 0) {
      const kit = counts.flatMap((n, k) => (n > 0 ? [[parts[k] as SeenPart, n] as const] : []));
      const filling = electrically(question, kit, constants.cap_h);
      if (filling) {
        const ways = waysToPlace(fits, places, counts);
        if (ways > 0) {
          feasibleCount += ways;
          found.push({ counts: [...counts], filling });
        }
      }
    }
    if (used === places.length) return;
    for (let k = from; k < candidates.length; k++) {
      const left = candidates[k]?.count ?? Number.POSITIVE_INFINITY;
      if (!usable[k] || (counts[k] as number) >= left) continue;
      counts[k] = (counts[k] as number) + 1;
      visit(k, used + 1);
      counts[k] = (counts[k] as number) - 1;
    }
  };
  visit(0, 0);
  const order = (a: (typeof found)[number], b: (typeof found)[number]) => byMode(question.mode, a.filling, b.filling);
  found.sort(order);
  const ranked: BankFilling[] = [];
  for (let n = 0; n < found.length && ranked.length < count; ) {
    // Kits that are even are told apart by their ids, place by place.
    let end = n + 1;
    while (end < found.length && order(found[n] as never, found[end] as never) === 0) end += 1;
    const even = found.slice(n, end).map(({ counts: each, filling }) => ({
      ...filling,
      ids: firstPlacing(fits, places, candidates, each),
    }));
    even.sort((a, b) => compareIds(a.ids, b.ids));
    ranked.push(...even);
    n = end;
  }
  return { best: ranked[0] ?? null, ranked: ranked.slice(0, count), feasibleCount, kitCount: found.length };
}

export function byMode(mode: "life" | "price", a: Omit<BankFilling, "ids">, b: Omit<BankFilling, "ids">): number {
  const life = Math.floor(b.worstLifeHours + 0.001) - Math.floor(a.worstLifeHours + 0.001);
  const price = a.priceMinor - b.priceMinor;
  return (mode === "life" ? life || price : price || life) || a.partCount - b.partCount;
}

function compareIds(a: readonly (string | null)[], b: readonly (string | null)[]): number {
  for (let n = 0; n < a.length; n++) {
    const [x, y] = [a[n] ?? "", b[n] ?? ""];
    if (x !== y) return x < y ? -1 : 1;
  }
  return 0;
}

export function canStand(
  question: BankQuestion,
  part: BankCandidate,
  place: BankPlace,
  toleranceMetres: number,
): boolean {
  const most = (value: number, limit: number) => value <= limit + slack * Math.max(1, 1e3 * limit) * 1e-3;
  return (
    part.ratedVolts >= question.leastRatedVolts - slack &&
    part.temperatureClassCelsius >= question.leastTemperatureClassCelsius - slack &&
    most(part.diameterMetres, place.diameterMaxMetres) &&
    most(part.heightMetres, place.heightMaxMetres) &&
    (place.pitchMetres === null || most(Math.abs(part.pitchMetres - place.pitchMetres), toleranceMetres))
  );
}

export interface SeenPart {
  readonly part: BankCandidate;
  readonly re: number;
  readonly im: number;
  readonly magnitude: number;
}

export function seenAt(part: BankCandidate, hertz: number): SeenPart {
  const omega = 2 * Math.PI * hertz;
  const im = omega * (part.eslHenrys ?? 0) - 1 / (omega * part.capacitanceFarads);
  return { part, re: part.esrOhms, im, magnitude: Math.hypot(part.esrOhms, im) };
}

/** A kit under the ripple current; null where it breaks a limit. Cheap limits before dear ones. */
export function electrically(
  question: BankQuestion,
  kit: readonly (readonly [part: SeenPart, count: number])[],
  capHours: number,
): Omit<BankFilling, "ids"> | null {
  let [farads, g, b, price, partCount] = [0, 0, 0, 0, 0];
  for (const [{ part, re, im, magnitude }, count] of kit) {
    farads += count * part.capacitanceFarads;
    g += (count * re) / magnitude ** 2;
    b -= (count * im) / magnitude ** 2;
    price += count * part.priceMinor;
    partCount += count;
  }
  if (farads < question.capacitanceMinFarads * (1 - slack)) return null;
  if (question.capacitanceMaxFarads !== null && farads > question.capacitanceMaxFarads * (1 + slack)) return null;
  const squared = g * g + b * b;
  const esrOhms = g / squared;
  if (question.esrMaxOhms !== null && esrOhms > question.esrMaxOhms * (1 + slack)) return null;
  if (question.esrMinOhms != null && esrOhms < question.esrMinOhms * (1 - slack)) return null;
  const magnitude = 1 / Math.sqrt(squared);
  let [worst, load] = [Number.POSITIVE_INFINITY, 0];
  for (const [{ part, magnitude: own }] of kit) {
    const rippleAmpsRms = (question.rippleAmpsRms * magnitude) / own;
    load = Math.max(load, rippleAmpsRms / part.ratedRippleAmpsRms);
    if (load > question.mostLoadRatio * (1 + slack)) return null;
    worst = Math.min(worst, lifeUnder(question, part, rippleAmpsRms), capHours);
    if (worst < question.leastLifeHours * (1 - slack)) return null;
  }
  return {
    ...{ capacitanceFarads: farads, esrOhms, worstLifeHours: worst, mostLoadRatio: load },
    ...{ priceMinor: price, partCount },
  };
}

/** Hours of one part of a bank at its share of the current. */
export function lifeUnder(question: BankQuestion, part: BankCandidate, rippleAmpsRms: number): number {
  return lifeWithRippleHeating({
    ratedLifeHours: part.ratedLifeHours,
    ratedTemperatureCelsius: part.temperatureClassCelsius,
    ambientCelsius: question.ambientCelsius,
    rippleAmpsRms,
    ratedRippleAmpsRms: part.ratedRippleAmpsRms,
    ratedCoreRiseKelvin: question.ratedCoreRiseKelvin,
    school: question.school ?? planningConstants.G.A,
  }).lifeHours;
}

/** In how many ways a kit can be put into the places. */
function waysToPlace(
  fits: readonly (readonly boolean[])[],
  places: readonly BankPlace[],
  counts: readonly number[],
  from = 0,
): number {
  const left = [...counts];
  const total = left.reduce((sum, one) => sum + one, 0);
  const ways = (place: number, remaining: number): number => {
    if (remaining > places.length - place) return 0;
    if (place === places.length) return 1;
    let sum = places[place]?.mayStayEmpty ? ways(place + 1, remaining) : 0;
    for (let k = 0; k < left.length; k++) {
      if ((left[k] as number) === 0 || !fits[place]?.[k]) continue;
      left[k] = (left[k] as number) - 1;
      sum += ways(place + 1, remaining - 1);
      left[k] = (left[k] as number) + 1;
    }
    return sum;
  };
  return ways(from, total);
}

/** The first way in the order of ids by place, an empty place before all. */
export function firstPlacing(
  fits: readonly (readonly boolean[])[],
  places: readonly BankPlace[],
  candidates: readonly BankCandidate[],
  counts: readonly number[],
): readonly (string | null)[] {
  const left = [...counts];
  const order = candidates
    .map((_, k) => k)
    .sort((a, b) => ((candidates[a]?.id ?? "") < (candidates[b]?.id ?? "") ? -1 : 1));
  return places.map((place, n) => {
    if (place.mayStayEmpty && waysToPlace(fits, places, left, n + 1) > 0) return null;
    for (const k of order) {
      if ((left[k] as number) === 0 || !fits[n]?.[k]) continue;
      left[k] = (left[k] as number) - 1;
      if (waysToPlace(fits, places, left, n + 1) > 0) return candidates[k]?.id ?? null;
      left[k] = (left[k] as number) + 1;
    }
    return null;
  });
}

function checkQuestion(question: BankQuestion, constants: typeof planningConstants.G): void {
  const { candidates, places } = question;
  const within = (name: string, length: number, most: number) => {
    if (length < 1 || length > most) throw new OutOfRangeError(name, length, `from 1 to ${most}`);
  };
  within("candidates", candidates.length, constants.max_parts);
  within("places", places.length, constants.max_places);
  if (new Set(candidates.map((one) => one.id)).size < candidates.length) {
    throw new OutOfRangeError("candidates", candidates.length, "each id once");
  }
  for (const part of candidates) {
    if (part.id === "") throw new OutOfRangeError("id", part.id, "not empty");
    for (const key of [
      ...["capacitanceFarads", "esrOhms", "ratedVolts", "ratedLifeHours", "ratedRippleAmpsRms"],
      ...["diameterMetres", "heightMetres", "pitchMetres"],
    ] as const) {
      requirePositive(key, part[key as "pitchMetres"]);
    }
    requireNonNegative("eslHenrys", part.eslHenrys ?? 0);
    requireNonNegative("priceMinor", part.priceMinor);
    requireNonNegative("count", part.count ?? 0);
  }
  for (const place of places) {
    requirePositive("diameterMaxMetres", place.diameterMaxMetres);
    requirePositive("heightMaxMetres", place.heightMaxMetres);
    if (place.pitchMetres !== null) requirePositive("pitchMetres", place.pitchMetres);
  }
  requireNonNegative("capacitanceMinFarads", question.capacitanceMinFarads);
  for (const key of ["leastRatedVolts", "frequencyHertz", "rippleAmpsRms", "mostLoadRatio"] as const) {
    requirePositive(key, question[key]);
  }
  requireNonNegative("ratedCoreRiseKelvin", question.ratedCoreRiseKelvin);
  requireNonNegative("leastLifeHours", question.leastLifeHours);
  if (!Number.isFinite(question.leastTemperatureClassCelsius)) {
    throw new OutOfRangeError("leastTemperatureClassCelsius", question.leastTemperatureClassCelsius, "finite");
  }
  if (!(question.ambientCelsius > -273.15)) {
    throw new OutOfRangeError("ambientCelsius", question.ambientCelsius, "above absolute zero");
  }
  if (question.esrMaxOhms !== null) requirePositive("esrMaxOhms", question.esrMaxOhms);
  if (question.capacitanceMaxFarads !== null) requirePositive("capacitanceMaxFarads", question.capacitanceMaxFarads);
}
