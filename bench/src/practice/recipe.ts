import type { CapacitorFate, HandCheck, Scenario, ScenarioDevice } from "@pale-cap/contract";
import type { VisualSign } from "@pale-cap/core";
import { type Base, type BaseName, bases } from "./bases";
import type { PracticeSupply } from "./practiceSupply";

/** What is wrong with a supply in order, and how it is told: short rows, made into a supply by `supplyOf`. */
export interface Recipe {
  readonly name: string;
  readonly title: string;
  readonly base: BaseName;
  readonly seed: number;
  readonly difficulty: 1 | 2 | 3;
  readonly story: string;
  readonly symptoms: readonly string[];
  /** Capacitors by place: how they went, how far, and how their series stands beside a usual one. */
  readonly fates?: Readonly<Record<string, readonly [mode: CapacitorFate, amount: number, seriesRatio?: number]>>;
  readonly devices?: Readonly<Record<string, "shorted" | "open">>;
  readonly weak?: Readonly<Record<string, NonNullable<ScenarioDevice["weak"]>>>;
  readonly looks?: Readonly<Record<string, readonly [words: string, ...signs: VisualSign[]]>>;
  readonly smell?: string;
  readonly outside?: HandCheck;
  /** What lies on the board and does not belong there. */
  readonly extra?: readonly ScenarioDevice[];
  readonly alter?: (scenario: Base["scenario"]) => Base["scenario"];
  readonly answer: string;
}

/** @throws where a recipe names a part that its base does not have */
export function supplyOf(recipe: Recipe): PracticeSupply {
  const base: Base = bases[recipe.base];
  const { alter = (scenario) => scenario, fates = {}, devices = {}, weak = {}, looks = {} } = recipe;
  const known = alter(base.scenario);
  const all = [...known.devices, ...(recipe.extra ?? [])];
  const names = new Set([...known.capacitors, ...all].map((one) => one.at));
  for (const at of [fates, devices, weak, looks].flatMap((rows) => Object.keys(rows))) {
    if (!names.has(at)) throw new Error(`Practice supply ${recipe.name}: there is no ${at}.`);
  }
  const scenario: Scenario = {
    ...known,
    ...{ name: recipe.name, title: recipe.title, complaint: recipe.story, seed: recipe.seed, answer: recipe.answer },
    capacitors: known.capacitors.map((part) => {
      const [mode = "new", amount = 1, seriesRatio = 1] = fates[part.at] ?? [];
      return { ...part, fate: { mode, amount, seriesRatio }, looks: looks[part.at]?.[0] ?? null };
    }),
    devices: all.map((one) => ({
      ...one,
      condition: devices[one.at] ?? one.condition,
      weak: weak[one.at] ?? one.weak ?? null,
      looks: looks[one.at]?.[0] ?? one.looks ?? null,
    })),
  };
  return {
    scenario,
    ...{ deviceKind: base.deviceKind, deviceModel: base.deviceModel, story: recipe.story, symptoms: recipe.symptoms },
    ...{ difficulty: recipe.difficulty, smell: recipe.smell ?? null, outside: recipe.outside ?? null },
    signs: Object.fromEntries(Object.entries(looks).map(([at, [, ...signs]]) => [at, signs])),
    answer: recipe.answer,
  };
}
