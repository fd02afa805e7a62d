import { describe, expect, it } from "vitest";
import { shopRecord } from "../../testing";
import { anyFault, type FaultTally } from "../facts/shopRecord";
import { surestTestOf } from "./cascadeChecks";
import { faultKnowledge } from "./faultKnowledge";
import { recordedKnowledge } from "./recordedKnowledge";

const knowledge = faultKnowledge("flyback");
const fault = (code: string) => knowledge.find((one) => one.code === code) as (typeof knowledge)[number];
const tally = (
  kind: FaultTally["kind"],
  code: string,
  other: string | null,
  count: number,
  total: number,
): FaultTally => ({
  ...{ kind, fault: code, other, of: "topology", count, total },
});
const told = (...tallies: FaultTally[]) => recordedKnowledge(knowledge, shopRecord([], tallies));
const moved = (result: ReturnType<typeof told>, code: string) => result.knowledge.find((one) => one.code === code);

describe("the fault knowledge as closed jobs move it", () => {
  it("blends what was counted with the default as twenty jobs: 4 of 14 beside 3.5 % is 13.8 %", () => {
    const result = told(tally("causes", "output_capacitors_dried", "switch_shorted", 4, 14));
    const expected = (4 + 20 * 0.035) / 34;
    expect(moved(result, "output_capacitors_dried")?.causes.switch_shorted).toBeCloseTo(expected, 10);
    expect(result.changes).toEqual([
      {
        ...{ kind: "causes", fault: "output_capacitors_dried", other: "switch_shorted", of: "topology" },
        ...{ defaultProbability: 0.035, probability: expected, count: 4, total: 14 },
      },
    ]);
    expect(moved(result, "switch_shorted")).toEqual(fault("switch_shorted"));
  });

  it("counts a prior against all jobs whose cause was shown, also of a fault that none of them had", () => {
    const { prior } = fault("bridge_shorted");
    const result = told(tally("prior", anyFault, null, 0, 80), tally("prior", "switch_shorted", null, 20, 20));
    expect(moved(result, "switch_shorted")?.prior).toBeCloseTo((20 + 20 * fault("switch_shorted").prior) / 100, 10);
    expect(moved(result, "bridge_shorted")?.prior).toBeCloseTo((20 * prior) / 100, 10);
    // One that was left out stays, whatever was counted of all.
    const kept = told(tally("prior", anyFault, null, 0, 80), tally("prior", "bridge_shorted", null, 0, 0));
    expect(moved(kept, "bridge_shorted")?.prior).toBe(prior);
  });

  it("leaves a fault that no test alone shows at its default: it can be the shown cause of no job", () => {
    const hidden = knowledge.filter((one) => surestTestOf(one) === null);
    expect(hidden.length).toBeGreaterThan(0);
    const result = told(tally("prior", anyFault, null, 0, 500));
    for (const { code, prior } of hidden) expect(moved(result, code)?.prior, code).toBe(prior);
  });

  it("takes the model's own count on top of that of supplies built alike, and too few for nothing", () => {
    const ofModel = { ...tally("shows", "switch_shorted", "bang", 9, 10), of: "model" as const };
    const result = told(tally("shows", "switch_shorted", "bang", 5, 20), ofModel);
    const first = (5 + 20 * 0.5) / 40;
    expect(moved(result, "switch_shorted")?.shows.bang).toBeCloseTo((9 + 20 * first) / 30, 10);
    expect(result.changes.map((one) => one.of)).toEqual(["topology", "model"]);
    expect(told(tally("shows", "switch_shorted", "bang", 4, 4)).changes).toEqual([]);
    expect(recordedKnowledge(knowledge, null)).toEqual({ knowledge, changes: [] });
  });

  it("makes nothing certain, however often it was so", () => {
    const result = told(
      tally("shows", "switch_shorted", "bang", 1e6, 1e6),
      tally("causes", "switch_shorted", "shunt_open", 0, 1e6),
    );
    expect(moved(result, "switch_shorted")?.shows.bang).toBe(0.995);
    expect(moved(result, "switch_shorted")?.causes.shunt_open).toBe(0.0005);
  });
});
