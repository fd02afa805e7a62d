import { outsideItem } from "@pale-cap/core";
import { describe, expect, it } from "vitest";
import { isDecided, madeSteps } from "./generate";
import { type PracticeSupply, truthOf } from "./practiceSupply";
import { atOnce, bestSteps, type PolicyRun } from "./practiser";
import { supplyOf } from "./recipe";
import { recipes } from "./supplies";

/** All of them take minutes: `npm run test:long` sets it. */
const isLong = process.env.LONG_PRACTICE === "1";
const few = ["trips-the-earth", "buck-ceramic"];

const mistaken = (supply: PracticeSupply, { chances }: PolicyRun) =>
  [...truthOf(supply)].filter(([at, isBad]) => (chances.get(at) ?? 0) >= 0.5 !== isBad).map(([at]) => at);

describe("the application's own way, through the instruments", () => {
  it.each(recipes.filter((one) => isLong || few.includes(one.name)).map((one) => [one.name, one] as const))(
    "decides %s without hurting anything",
    (_, recipe) => {
      const supply = supplyOf(recipe);
      const best = atOnce(bestSteps(supply));
      expect(mistaken(supply, best)).toEqual([]);
      const hurt = best.happened.map((one) => one.code).filter((code) => code !== "earth_trip");
      expect(hurt).toEqual([]);
      expect(best.minutes).toBeGreaterThan(10);
      expect(best.minutes).toBeLessThan(90);
    },
  );
});

describe("made supplies", () => {
  const seeds = isLong ? [1, 2, 3, 4, 5, 6, 7, 8, 9, 10] : [5];
  it.each(seeds)("of seed %i can be decided, and are the same for the same seed", (seed) => {
    for (const difficulty of isLong ? ([1, 2, 3] as const) : ([1] as const)) {
      const { supply, best } = atOnce(madeSteps(difficulty, seed));
      expect(isDecided(supply, best)).toBe(true);
      expect([...truthOf(supply).values()]).toContain(true);
      expect(supply.symptoms.length).toBeGreaterThan(0);
      expect(atOnce(madeSteps(difficulty, seed)).supply).toEqual(supply);
    }
  });
  it("are not decided where the evidence is not there", () => {
    const supply = supplyOf(recipes.find((one) => one.name === "masked-bank") as (typeof recipes)[number]);
    const chances = new Map([...truthOf(supply)].map(([at, isBad]) => [at, isBad ? 0.9 : 0.1]));
    expect(isDecided(supply, { chances })).toBe(true);
    expect(isDecided(supply, { chances: new Map([...chances, ["C12", 0.4]]) })).toBe(false);
    expect(isDecided(supply, { chances: new Map([...chances, [outsideItem, 0.6]]) })).toBe(false);
  });
});
