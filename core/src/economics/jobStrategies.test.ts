import { describe, expect, it } from "vitest";
import { sampleJob, sampleNet, samplePart, samplePosition, sampleReading, sampleRules } from "../../testing/sampleJob";
import { judgeBoard } from "../judgement/judgeBoard";
import { jobStrategies, type StrategyQuestion } from "./jobStrategies";
import { compareStrategies } from "./repairStrategy";

const facts = sampleJob({
  device: { kind: "monitor", topology: "flyback", ageYears: 6 },
  nets: [sampleNet(), sampleNet({ id: "net-5", nominalVolts: 5 })],
  positions: [samplePosition("C1"), samplePosition("C2"), samplePosition("C3", { netId: "net-5" })],
  fittedParts: ["C1", "C2", "C3"].map((one) => samplePart(one)),
  readings: [sampleReading("C1", { value: 0.6, circuitState: "out" })],
});
const question = (more: Partial<StrategyQuestion> = {}): StrategyQuestion => ({
  ...{ facts, judgements: judgeBoard(facts, sampleRules.judgement), places: new Map(), hoursPerDay: 8 },
  ...{ warrantyMonths: 12, labourPerHourMinor: 6000, usualMinutes: 60, minutesPerPart: 8, usualPartMinor: 80 },
  supplyMinor: null,
  ...more,
});
const weighed = (more: Partial<StrategyQuestion> = {}) => {
  const answer = jobStrategies(question(more));
  if (typeof answer === "string") throw new Error(answer);
  return answer;
};

describe("the ways to repair a job", () => {
  it("replace what failed, its like on its rail, or all; each more costs work and saves returns", () => {
    const places = new Map(["C1", "C2", "C3"].map((one) => [`at-${one}`, { ambientCelsius: 85, partMinor: null }]));
    const { rows } = weighed({ places }).comparison;
    expect(rows.map((one) => [one.strategy, one.replaced?.length])).toEqual([
      ["failed_only", 1],
      ["same_rail_series", 2],
      ["every", 3],
    ]);
    expect(rows[0]?.fixedCost).toBeCloseTo(80 + (44 + 8) * 100, 6);
    const chances = rows.map((one) => one.returnProbability);
    expect(chances).toEqual([...chances].sort((a, b) => b - a));
  });
  it("fear returns more where it is hot, and count a chosen part's own price", () => {
    const at = (ambientCelsius: number) =>
      weighed({
        places: new Map(["C1", "C2", "C3"].map((one) => [`at-${one}`, { ambientCelsius, partMinor: 500 }])),
      }).comparison.rows[0];
    expect(at(85)?.returnProbability).toBeGreaterThan(2 * (at(55)?.returnProbability ?? 1));
    expect(at(55)?.fixedCost).toBeCloseTo(500 + 5200, 6);
  });
  it("offer the whole supply only where its price is told", () => {
    expect(weighed({ supplyMinor: 4000 }).comparison.rows.at(-1)).toMatchObject({
      strategy: "swap",
      replaced: null,
      fixedCost: 6000,
    });
    expect(weighed().comparison.rows.some((one) => one.strategy === "swap")).toBe(false);
  });
  it("say what is missing", () => {
    expect(jobStrategies(question({ hoursPerDay: null }))).toBe("hours");
    expect(jobStrategies(question({ facts: { ...facts, device: { ...facts.device, ageYears: null } } }))).toBe("age");
    expect(jobStrategies(question({ judgements: new Map() }))).toBe("nothing_failed");
    expect(jobStrategies(question({ facts: { ...facts, positions: [] } }))).toBe("no_capacitors");
  });
});

describe("compareStrategies", () => {
  it("weighs a bench's own example: replacing all costs most at once and least in the end", () => {
    const part = (group: string, hasFailed: boolean) => ({
      ...{ group, rail: group, series: "x", ageHours: 14_000, etaHours: 20_000, beta: 4, hasFailed },
      ...{ newEtaHours: 20_000, newBeta: 4, partCost: 0.8, minutes: 6 },
    });
    const parts = [part("a", true), part("a", true), part("a", false), part("b", false)];
    const common = { ratePerHour: 60, fixedMinutes: 48, returnCost: 61.6, hasFrailty: true, swap: null };
    const { rows, winner, runnerUp, breakEvenReturnCost } = compareStrategies({
      parts,
      warrantyHours: 4000,
      ...common,
    });
    const [failedOnly, sameRail] = rows.map((one) => one.returnProbability);
    // By hand over the five frailties: 76.5 %, and 28.8 % once the third of the group goes too.
    expect(failedOnly).toBeCloseTo(0.765, 2);
    expect(sameRail).toBeCloseTo(0.288, 2);
    expect([winner, runnerUp]).toEqual(["every", "same_rail_series"]);
    const [, second, all] = rows;
    expect(breakEvenReturnCost).toBeCloseTo(
      ((all?.fixedCost ?? 0) - (second?.fixedCost ?? 0)) /
        ((second?.returnProbability ?? 0) - (all?.returnProbability ?? 0)),
      9,
    );
  });
});
