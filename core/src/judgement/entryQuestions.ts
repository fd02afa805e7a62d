import { type BoardPosition, type FittedPart, foundPart } from "../board/board";
import type { CapacitorClass } from "../capacitors/capacitorClass";
import { expectedEsrOfPart, partForSchool } from "../capacitors/expectedEsrOfPart";
import type { JudgementConstants } from "../constants/judgementConstants";
import { tradeConstants } from "../constants/tradeConstants";
import type { JudgementRules } from "../facts/jobRules";
import { median } from "../numerics/median";
import { groupReadings, type ReadingGroup } from "../readings/groupReadings";
import { isInCircuit, type Reading, tellingReadings } from "../readings/reading";
import { isTipsTogether } from "./leadOffset";
import { tunedConstants } from "./tunedConstants";

const { entries } = tradeConstants.judgement;

/** What several equal parts contradict, and what they would fit. */
export interface EntryQuestion {
  readonly kind: "value" | "size" | "class";
  readonly positionIds: readonly string[];
  /** What they read over what the entry lets expect. */
  readonly ratio: number;
  /** Whether C was read of any of them: where it was, it is in order. */
  readonly isCapacitanceRead: boolean;
  readonly entered: FittedPart;
  readonly suggested: {
    readonly capacitanceFarads: number | null;
    readonly capacitorClass: CapacitorClass | null;
    readonly diameterMetres: number | null;
    readonly heightMetres: number | null;
  };
}

interface Board {
  readonly positions: readonly BoardPosition[];
  readonly fittedParts: readonly FittedPart[];
  readonly readings: readonly Reading[];
}

interface ReadPart {
  readonly position: BoardPosition;
  readonly part: FittedPart;
  readonly esrRatio: number | null;
  readonly capacitanceRatio: number | null;
}

/**
 * Entries that equal parts contradict together: parts of one batch seldom fail alike and never to one value, so where two or
 * more read the same far off, and another usual value, can or class fits what they read, the entry is asked about.
 *
 * Only what was read with a lead up counts, of parts that were found there. A question, never a change. Rough.
 */
export function entryQuestions(
  board: Board,
  rules: JudgementRules,
  constants: JudgementConstants = tunedConstants,
): readonly EntryQuestion[] {
  const standing = tellingReadings(board.readings);
  const tips = standing.filter(isTipsTogether).at(-1)?.value ?? 0;
  const kinds = new Map<string, ReadPart[]>();
  for (const position of board.positions) {
    const part = position.kind === "electrolytic" ? foundPart(board.fittedParts, position.id) : undefined;
    if (!part || part.capacitanceFarads === null || part.ratedVolts === null) continue;
    const own = standing.filter((one) => one.fittedPartId === part.id && !isInCircuit(one));
    const read = readPart(position, part, own, tips, rules, constants);
    if (read.esrRatio === null && read.capacitanceRatio === null) continue;
    const { capacitanceFarads, ratedVolts, capacitorClass, diameterMetres, heightMetres } = part;
    const key = [capacitanceFarads, ratedVolts, capacitorClass, diameterMetres, heightMetres].join();
    kinds.set(key, [...(kinds.get(key) ?? []), read]);
  }
  return [...kinds.values()].flatMap((parts) => {
    if (parts.length < entries.leastParts) return [];
    const question = valueQuestion(parts) ?? canQuestion(parts, rules, constants);
    return question ? [question] : [];
  });
}

function readPart(
  position: BoardPosition,
  part: FittedPart,
  own: readonly Reading[],
  tipsOhms: number,
  rules: JudgementRules,
  constants: JudgementConstants,
): ReadPart {
  const farads = part.capacitanceFarads as number;
  const esr = groupReadings(own, "esr").find((one) => one.frequencyHertz >= entries.leastHertz && one.value > tipsOhms);
  const capacitance = groupReadings(own, "capacitance").find((one) => one.value > 0);
  const expected = esr && typicalOhms(part, esr, rules, constants);
  return {
    ...{ position, part },
    esrRatio: esr && expected ? (esr.value - tipsOhms) / expected : null,
    capacitanceRatio: capacitance ? capacitance.value / farads : null,
  };
}

function typicalOhms(part: FittedPart, at: ReadingGroup, rules: JudgementRules, constants: JudgementConstants) {
  const known = partForSchool(part, rules.esrSourceSchool);
  return expectedEsrOfPart(known, at.frequencyHertz, at.temperatureCelsius, constants.A)?.typicalOhms ?? null;
}

/** The ratio that all share; null where they do not agree. */
function shared(ratios: readonly (number | null)[], spread: number): number | null {
  const known = ratios.filter((one) => one !== null);
  if (known.length < entries.leastParts) return null;
  return Math.max(...known) / Math.min(...known) <= spread ? median(known) : null;
}

/** All read the C of another usual value, and not the ESR of dried parts. */
function valueQuestion(parts: readonly ReadPart[]): EntryQuestion | null {
  const ratio = shared(
    parts.map((one) => one.capacitanceRatio),
    entries.valueSpread,
  );
  if (ratio === null || Math.abs(Math.log(ratio)) < Math.log(entries.valueFactor)) return null;
  const isDried = ratio < 1 && parts.some((one) => (one.esrRatio ?? 1) > entries.driedEsrFactor);
  const first = parts[0] as ReadPart;
  const read = ratio * (first.part.capacitanceFarads as number);
  const usual = nearestUsualFarads(read);
  if (isDried || Math.abs(Math.log(usual / read)) > Math.log(entries.valueNearFactor)) return null;
  return question("value", parts, ratio, { ...first.part, capacitanceFarads: usual });
}

/** All read the ESR of another can or class at a C that is in order. */
function canQuestion(
  parts: readonly ReadPart[],
  rules: JudgementRules,
  constants: JudgementConstants,
): EntryQuestion | null {
  const ratio = shared(
    parts.map((one) => one.esrRatio),
    entries.esrSpread,
  );
  if (ratio === null || Math.abs(Math.log(ratio)) < Math.log(entries.esrFactor)) return null;
  if (parts.some((one) => (one.capacitanceRatio ?? 1) < entries.soundRatio)) return null;
  const { part } = parts[0] as ReadPart;
  const at = { frequencyHertz: 100e3, temperatureCelsius: 20 } as ReadingGroup;
  const typical = typicalOhms(part, at, rules, constants);
  if (typical === null) return null;
  const distance = (one: FittedPart) => {
    const other = typicalOhms(one, at, rules, constants);
    return other === null ? Number.POSITIVE_INFINITY : Math.abs(Math.log(other / typical / ratio));
  };
  const fitting = [...otherCans(part), ...otherClasses(part)]
    .map((one) => ({ one, off: distance(one) }))
    .filter(({ off }) => off < Math.log(entries.fitFactor))
    .sort((a, b) => a.off - b.off)[0]?.one;
  if (!fitting) return null;
  return question(fitting.capacitorClass === part.capacitorClass ? "size" : "class", parts, ratio, fitting);
}

function question(
  kind: EntryQuestion["kind"],
  parts: readonly ReadPart[],
  ratio: number,
  { capacitanceFarads, capacitorClass, diameterMetres, heightMetres }: FittedPart,
): EntryQuestion {
  return {
    ...{ kind, ratio, positionIds: parts.map((one) => one.position.id), entered: (parts[0] as ReadPart).part },
    isCapacitanceRead: parts.some((one) => one.capacitanceRatio !== null),
    suggested: { capacitanceFarads, capacitorClass, diameterMetres, heightMetres },
  };
}

/** Usual cans next to the entered one: as wide with another height, or one step wider or narrower. */
function otherCans(part: FittedPart): FittedPart[] {
  const { diameterMetres, heightMetres } = part;
  if (diameterMetres === null || heightMetres === null) return [];
  const widths = [...new Set(entries.cansMillimetres.map(([d]) => d))];
  const at = widths.findIndex((one) => Math.abs(one - diameterMetres * 1e3) < 0.3);
  const near = widths.filter((_, n) => Math.abs(n - at) <= 1);
  return entries.cansMillimetres
    .filter(
      ([d, h]) =>
        near.includes(d) && !(Math.abs(d - diameterMetres * 1e3) < 0.3 && Math.abs(h - heightMetres * 1e3) < 0.6),
    )
    .map(([d, h]) => ({ ...part, diameterMetres: d / 1e3, heightMetres: h / 1e3 }));
}

const liquidClasses = ["gp", "lowz", "ultra"] as const;
function otherClasses(part: FittedPart): FittedPart[] {
  if (part.capacitorClass === "polymer" || part.capacitorClass === "hybrid") return [];
  return liquidClasses
    .filter((one) => one !== part.capacitorClass)
    .map((capacitorClass) => ({ ...part, capacitorClass }));
}

/** The usual series of values: 1, 1.5, 2.2, 3.3, 4.7, 6.8 and their decades. */
function nearestUsualFarads(farads: number): number {
  const decade = 10 ** Math.floor(Math.log10(farads));
  const steps = [1, 1.5, 2.2, 3.3, 4.7, 6.8, 10].map((one) => one * decade);
  return steps.reduce((best, one) =>
    Math.abs(Math.log(one / farads)) < Math.abs(Math.log(best / farads)) ? one : best,
  );
}
