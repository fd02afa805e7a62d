import { planningConstants } from "../constants/planningConstants";
import {
  type BankCandidate,
  type BankFilling,
  type BankQuestion,
  byMode,
  canStand,
  electrically,
  firstPlacing,
  lifeUnder,
  type SeenPart,
  seenAt,
} from "./bankChoice";

export interface TwoKinds {
  /** Best first; each kit once. */
  readonly ranked: readonly BankFilling[];
  /** Kits that keep every limit, among those that could still stand in the ranking. */
  readonly keptCount: number;
}

/**
 * The best kits of one or two kinds of part out of any number of candidates: every pair and every count of each is tried or
 * turned down by a bound that no kit of it can beat, so none of one or two kinds is better.
 *
 *     bound: hours <= the lesser life without ripple, at the kit's own price
 *
 * A part twice and four of another count as one kit wherever they stand. The arithmetic is that of `chooseBank`.
 *
 * @yields the share that is done; whoever drives it may stop
 */
export function* bankOfTwoKinds(question: BankQuestion, count: number): Generator<number, TwoKinds> {
  const constants = planningConstants.G;
  const tolerance = question.pitchToleranceMetres ?? constants.pitch_tol_mm / 1e3;
  const { places } = question;
  const ready = question.candidates
    .map((part) => readied(question, part, tolerance))
    .filter((one) => one.mask !== 0)
    .sort((a, b) => (question.mode === "life" ? b.mostHours - a.mostHours : a.part.priceMinor - b.part.priceMinor));
  const must = places.reduce((mask, place, n) => (place.mayStayEmpty ? mask : mask | (1 << n)), 0);
  const canPlace = placing(places.length, must);
  const [least, most] = [
    question.capacitanceMinFarads * (1 - 1e-9),
    (question.capacitanceMaxFarads ?? Number.POSITIVE_INFINITY) * (1 + 1e-9),
  ];
  const top: Found[] = [];
  let keptCount = 0;
  const consider = (a: Ready, n: number, b: Ready | null, m: number) => {
    const farads = n * a.part.capacitanceFarads + (b ? m * b.part.capacitanceFarads : 0);
    if (farads < least || farads > most) return;
    const priceMinor = n * a.part.priceMinor + (b ? m * b.part.priceMinor : 0);
    const hours = b ? Math.min(a.mostHours, b.mostHours) : a.mostHours;
    const last = top[count - 1];
    const bound = { worstLifeHours: hours, priceMinor, partCount: n + m, mostLoadRatio: 0, esrOhms: 0 };
    if (last && byMode(question.mode, { ...bound, capacitanceFarads: farads }, last.filling) >= 0) return;
    if (!canPlace(a.mask, n, b?.mask ?? 0, m)) return;
    const kit = b
      ? ([
          [a.seen, n],
          [b.seen, m],
        ] as const)
      : ([[a.seen, n]] as const);
    const filling = electrically(question, kit, constants.cap_h);
    if (!filling) return;
    keptCount += 1;
    const at = top.findIndex((one) => byMode(question.mode, filling, one.filling) < 0);
    top.splice(at === -1 ? top.length : at, 0, { filling, parts: b ? [a, b] : [a], counts: b ? [n, m] : [n] });
    if (top.length > count) top.pop();
  };
  for (const [i, a] of ready.entries()) {
    for (let n = 1; n <= places.length; n++) consider(a, n, null, 0);
    for (let j = i + 1; j < ready.length; j++) {
      const b = ready[j] as Ready;
      for (let n = 1; n < places.length; n++) {
        for (let m = 1; n + m <= places.length; m++) consider(a, n, b, m);
      }
    }
    if (i % 64 === 0) yield i / ready.length;
  }
  return { ranked: top.map((one) => placed(question, one, tolerance)), keptCount };
}

interface Ready {
  readonly part: BankCandidate;
  readonly seen: SeenPart;
  /** The places it can stand in, a bit each. */
  readonly mask: number;
  readonly mostHours: number;
}

interface Found {
  readonly filling: Omit<BankFilling, "ids">;
  readonly parts: readonly Ready[];
  readonly counts: readonly number[];
}

function readied(question: BankQuestion, part: BankCandidate, tolerance: number): Ready {
  const mask = question.places.reduce(
    (bits, place, n) => (canStand(question, part, place, tolerance) ? bits | (1 << n) : bits),
    0,
  );
  const mostHours = mask === 0 ? 0 : Math.min(lifeUnder(question, part, 0), planningConstants.G.cap_h);
  return { part, seen: seenAt(part, question.frequencyHertz), mask, mostHours };
}

/** Whether so many of two parts can be put into places that they fit, every place filled that must be. */
function placing(placeCount: number, must: number) {
  const known = new Map<string, boolean>();
  const bitsOf = (mask: number) => {
    let bits = 0;
    for (let rest = mask; rest !== 0; rest &= rest - 1) bits += 1;
    return bits;
  };
  const find = (maskA: number, n: number, maskB: number, m: number): boolean => {
    for (let a = 0; a < 1 << placeCount; a++) {
      if ((a & ~maskA) !== 0 || bitsOf(a) !== n) continue;
      for (let b = 0; b < 1 << placeCount; b++) {
        if ((b & ~maskB) !== 0 || (a & b) !== 0 || bitsOf(b) !== m) continue;
        if (((a | b) & must) === must) return true;
      }
    }
    return false;
  };
  return (maskA: number, n: number, maskB: number, m: number): boolean => {
    const key = `${maskA} ${n} ${maskB} ${m}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    const found = find(maskA, n, maskB, m);
    known.set(key, found);
    return found;
  };
}

function placed(question: BankQuestion, { filling, parts, counts }: Found, tolerance: number): BankFilling {
  const candidates = parts.map((one) => one.part);
  const fits = question.places.map((place) => candidates.map((part) => canStand(question, part, place, tolerance)));
  return { ...filling, ids: firstPlacing(fits, question.places, candidates, counts) };
}

/** Kits of several searches as one ranking, each once. */
export function mergedBanks(
  mode: BankQuestion["mode"],
  lists: readonly (readonly BankFilling[])[],
  count: number,
): readonly BankFilling[] {
  const seen = new Set<string>();
  return lists
    .flat()
    .sort((a, b) => byMode(mode, a, b))
    .filter((one) => {
      const key = one.ids
        .filter((id) => id !== null)
        .sort()
        .join();
      if (seen.has(key)) return false;
      seen.add(key);
      return true;
    })
    .slice(0, count);
}
