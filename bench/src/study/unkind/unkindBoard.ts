import { type CapacitorClass, type Section, seededRandom } from "@pale-cap/core";
import { dried, type Foil, foilImpedance, newFoil } from "../../virtualSupply/foil";
import { type UsualKind, usualLoss, usualOhms } from "../../virtualSupply/usualPart";
import type { Rates } from "./rates";

export type FailureMode = "batch" | "dry" | "heat" | "tab" | "leak" | "open" | "short";

/** What is true of a part against its own new values; `grey` is neither, and counts for nothing. */
export type UnkindTruth = "sound" | "failed" | "grey";

/** What was typed of a part; null: not entered. */
export interface EnteredPart {
  readonly microfarads: number;
  readonly volts: number;
  readonly capacitorClass: CapacitorClass | null;
  readonly can: readonly [diameterMillimetres: number, heightMillimetres: number] | null;
}

export interface UnkindPart {
  readonly at: string;
  readonly net: string;
  readonly foil: Foil;
  readonly entered: EnteredPart;
  readonly isDomed: boolean;
  readonly truth: UnkindTruth;
  readonly mode: FailureMode | null;
  /** What lies wrong with what was entered, for the breakdown. */
  readonly disturbances: readonly string[];
}

export interface UnkindNet {
  readonly name: string;
  readonly section: Section;
  readonly boardOhms: number;
  readonly ceramicFarads: number;
  readonly behind: {
    readonly net: string;
    readonly henrys: number;
    readonly ohms: number;
    readonly isDrawn: boolean;
  } | null;
}

export interface UnkindBoard {
  readonly seed: number;
  readonly nets: readonly UnkindNet[];
  readonly parts: readonly UnkindPart[];
}

interface Bank {
  readonly name: string;
  readonly section: Section;
  readonly count: readonly [number, number];
  readonly kinds: readonly UsualKind[];
  readonly boardOhms: readonly [number, number];
  readonly behind?: string;
}

const banks: readonly Bank[] = [
  {
    ...{ name: "Bulk", section: "bulk", count: [1, 1], boardOhms: [2e5, 3e6] },
    kinds: [
      [68, 400, 16, 31, "gp"],
      [100, 450, 18, 40, "gp"],
      [150, 400, 22, 35, "gp"],
    ],
  },
  {
    ...{ name: "Vcc", section: "vcc", count: [1, 1], boardOhms: [1e4, 1e5] },
    kinds: [
      [22, 50, 5, 11, "gp"],
      [47, 50, 6.3, 11, "lowz"],
      [100, 35, 6.3, 11, "lowz"],
    ],
  },
  {
    ...{ name: "12 V", section: "output", count: [1, 4], boardOhms: [600, 9e3] },
    kinds: [
      [470, 25, 10, 12.5, "lowz"],
      [1000, 25, 10, 20, "lowz"],
      [1000, 16, 10, 16, "ultra"],
      [2200, 16, 12.5, 20, "lowz"],
    ],
  },
  {
    ...{ name: "12 V post", section: "output-post", count: [1, 2], boardOhms: [2e3, 2e4], behind: "12 V" },
    kinds: [
      [220, 25, 8, 11.5, "lowz"],
      [470, 25, 10, 12.5, "lowz"],
      [470, 25, 10, 12.5, "gp"],
    ],
  },
  {
    ...{ name: "5 V", section: "output", count: [1, 3], boardOhms: [150, 2e3] },
    kinds: [
      [1000, 10, 8, 15, "lowz"],
      [2200, 10, 10, 20, "lowz"],
      [1500, 6.3, 8, 20, "ultra"],
      [1000, 10, 8, 20, "gp"],
    ],
  },
  {
    ...{ name: "5 V standby", section: "standby", count: [1, 2], boardOhms: [500, 5e3] },
    kinds: [
      [470, 10, 8, 11.5, "lowz"],
      [1000, 16, 10, 16, "lowz"],
    ],
  },
  {
    ...{ name: "Feedback", section: "feedback", count: [0, 1], boardOhms: [5e3, 5e4] },
    kinds: [
      [10, 50, 5, 11, "gp"],
      [47, 25, 5, 11, "gp"],
    ],
  },
];

const near: Readonly<Record<string, CapacitorClass>> = { gp: "lowz", lowz: "ultra", ultra: "lowz" };

/** A board as an unkind bench brings it in, the same for the same seed. */
export function unkindBoard(seed: number, rates: Rates): UnkindBoard {
  const random = seededRandom(seed * 7919 + 17);
  const between = (low: number, high: number) => low + (high - low) * random();
  const logBetween = (low: number, high: number) => Math.exp(between(Math.log(low), Math.log(high)));
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const happens = (share: number) => random() < share;

  const nets: UnkindNet[] = [];
  const parts: UnkindPart[] = [];
  for (const bank of banks) {
    const count = Math.round(between(...bank.count));
    nets.push({
      name: bank.name,
      section: bank.section,
      boardOhms: logBetween(...bank.boardOhms),
      ceramicFarads:
        bank.section.startsWith("output") && happens(rates.board.ceramics)
          ? logBetween(...rates.board.ceramicFarads)
          : 0,
      behind: bank.behind
        ? {
            ...{ net: bank.behind, henrys: logBetween(...rates.board.chokeHenrys), ohms: between(0.004, 0.03) },
            isDrawn: happens(rates.board.chokeDrawn),
          }
        : null,
    });
    const kind = pick(bank.kinds);
    const series = Math.exp(rates.seriesSpread * normal());
    const isBatch = happens(rates.modes.batchBank);
    const entry = entryOf(kind, rates, happens, pick);
    for (let n = 0; n < count; n++) {
      const fresh = newFoil(
        kind[0] * 1e-6 * between(0.88, 1.06),
        usualOhms(kind) * series * Math.exp(rates.partSpread * normal()),
        usualLoss(kind),
      );
      const { foil, mode, isDomed } = fate(fresh, isBatch, rates, { between, logBetween, happens });
      parts.push({
        at: `C${parts.length + 1}`,
        net: bank.name,
        ...{ foil, isDomed, mode, truth: truthOf(foil, fresh, kind[0]) },
        ...entry,
        disturbances: [...entry.disturbances, ...(Math.abs(Math.log(series)) > 0.35 ? ["unusual series"] : [])],
      });
    }
  }
  return { seed, nets, parts };
}

interface Chance {
  readonly between: (low: number, high: number) => number;
  readonly logBetween: (low: number, high: number) => number;
  readonly happens: (share: number) => boolean;
}

function fate(fresh: Foil, isBatch: boolean, { modes, domed }: Rates, { between, logBetween, happens }: Chance) {
  const steepness = between(2, 6);
  const gone = (mode: FailureMode, foil: Foil, domes = 0) => ({ foil, mode, isDomed: happens(domes) });
  if (isBatch && happens(0.85)) return gone("batch", dried(fresh, between(0.12, 0.66), steepness), domed.batch);
  if (happens(modes.dry)) return gone("dry", dried(fresh, between(0.1, 0.72), steepness), domed.dry);
  if (happens(modes.heat)) {
    const cooked = {
      ...fresh,
      paperOhms: fresh.paperOhms * logBetween(4, 30),
      farads: fresh.farads * between(0.7, 0.95),
    };
    return gone("heat", cooked, domed.heat);
  }
  if (happens(modes.tab)) return gone("tab", { ...fresh, tabOhms: fresh.tabOhms * logBetween(30, 200) });
  if (happens(modes.leak)) return gone("leak", { ...fresh, leakOhms: logBetween(8, 2e4) });
  if (happens(modes.open)) return gone("open", { ...fresh, isOpen: true });
  if (happens(modes.short)) return gone("short", { ...fresh, leakOhms: logBetween(0.05, 2) });
  const isAgeing = happens(modes.ageing);
  const foil = isAgeing ? dried(fresh, between(0.72, 0.95), steepness) : fresh;
  return { foil, mode: null, isDomed: happens(domed.sound) };
}

/** Three times its own new ESR, 70 % of its own new C, ten times the leakage that sheets allow, or open; the grey between is nobody's. */
function truthOf(foil: Foil, fresh: Foil, microfarads: number): UnkindTruth {
  const now = foilImpedance({ ...foil, leakOhms: Number.POSITIVE_INFINITY }, 100e3, 20);
  const then = foilImpedance(fresh, 100e3, 20);
  if (!now || !then) return "failed";
  const [esr, c] = [now.re / then.re, foil.farads / fresh.farads];
  // Ten times 0.01 CV: ohms x farads below 10 s.
  const isLeaking = foil.leakOhms * microfarads * 1e-6 < 10;
  if (esr >= 3 || c <= 0.7 || isLeaking) return "failed";
  return esr <= 1.9 && c >= 0.82 && !Number.isFinite(foil.leakOhms) ? "sound" : "grey";
}

function entryOf(kind: UsualKind, { entry }: Rates, happens: Chance["happens"], pick: <T>(list: readonly T[]) => T) {
  const [microfarads, volts, diameter, height, capacitorClass] = kind;
  const disturbances: string[] = [];
  const told = <T>(share: number, name: string, wrong: T, right: T): T => {
    if (!happens(share)) return right;
    disturbances.push(name);
    return wrong;
  };
  const size = told<readonly [number, number]>(
    entry.wrongSize,
    "wrong size",
    pick([
      [diameter, height + 5],
      [diameter + 2.5, height],
      [diameter, Math.max(height - 5, 7)],
    ]),
    [diameter, height],
  );
  const entered: EnteredPart = {
    microfarads: told(entry.wrongValue, "wrong value", pick([microfarads * 2.2, microfarads / 2.2]), microfarads),
    volts,
    capacitorClass: told(
      entry.noClass,
      "no class",
      null,
      told<CapacitorClass>(entry.wrongClass, "wrong class", near[capacitorClass] ?? "gp", capacitorClass),
    ),
    can: told(entry.noSize, "no size", null, size),
  };
  return { entered, disturbances };
}
