import { fc, test } from "@fast-check/vitest";
import { describe, expect, it } from "vitest";
import {
  sampleJob,
  sampleNet,
  samplePart,
  samplePosition,
  sampleReading,
  sampleRules,
  sampleTips,
} from "../../testing/sampleJob";
import type { FittedPart } from "../board/board";
import type { JobFacts } from "../facts/jobFacts";
import { areTipsFirst } from "../measuring/tipsFirst";
import type { Reading } from "../readings/reading";
import { judgeBoard } from "./judgeBoard";
import type { PartJudgement } from "./verdict";

const rules = { ...sampleRules.judgement, failedFromRatio: 0.5 };
const judged = (more: Partial<JobFacts>) => judgeBoard(sampleJob(more), rules);
const codes = (one: PartJudgement | undefined) => one?.ledger.map(({ code }) => code) ?? [];
const lifted = (value: number | null, more: Partial<Reading> = {}, at = "C1") => sampleReading(at, { value, ...more });
const inCircuit = (value: number | null, more: Partial<Reading> = {}, at = "C1") =>
  sampleReading(at, { value, circuitState: "in_circuit", ...more });
const farads = (value: number, at = "C1") =>
  sampleReading(at, { quantity: "capacitance", value, frequencyHertz: 120, temperatureCelsius: 20 });
const at20 = { temperatureCelsius: 20 } as const;

/** C1 alone on its net, with leads that are known to add nothing. */
function alone(
  readings: readonly Reading[],
  part: Partial<FittedPart> = {},
  more: Partial<JobFacts> = {},
): PartJudgement {
  const fittedParts = [samplePart("C1", part)];
  const facts = { positions: [samplePosition("C1")], fittedParts, readings: [sampleTips(), ...readings], ...more };
  return judged(facts).get("at-C1") as PartJudgement;
}

describe("an open capacitor", () => {
  const open = { coarseCode: "over_range" } as const;
  it("is condemned with its lead up once the same probes have read anything", () => {
    const shown = alone([lifted(null, open)]);
    expect([shown.verdict, codes(shown).includes("open_out_of_circuit")]).toEqual(["failed", true]);
    expect(shown.failedProbability).toBeGreaterThan(0.5);
  });
  it("is told by the readings that showed it: those with the lead up, or those of the bank as it hangs", () => {
    const line = (one: PartJudgement | undefined, code: string) => one?.ledger.find((entry) => entry.code === code);
    const [up, down] = [lifted(null, open), inCircuit(null, open)];
    const own = line(alone([inCircuit(0.03, at20), up]), "open_out_of_circuit");
    expect(own).toMatchObject({ kind: "esr", source: "reading", readingIds: [up.id] });
    const shown = lifted(0.03, at20, "C2");
    const bank = judged({ readings: [sampleTips(), down, shown] }).get("at-C1");
    expect(line(bank, "open_in_circuit")).toMatchObject({ kind: "esr", readingIds: [down.id] });
    expect(line(bank, "open_out_of_circuit")).toBeUndefined();
  });
  it("may be probes that do not touch while they have read nothing", () => {
    const facts = {
      positions: [samplePosition("C1")],
      fittedParts: [samplePart("C1")],
      readings: [lifted(null, open)],
    };
    expect(judged(facts).get("at-C1")?.verdict).toBe("cannot_tell");
  });
  it("is not said to read open once it has shown a number", () => {
    const both = alone([lifted(null, open), lifted(0.031, at20), farads(985e-6)]);
    expect([both.verdict, codes(both).includes("open_out_of_circuit")]).toEqual(["sound", false]);
  });
  it("is not condemned in circuit, where its bank reads as a bank without it", () => {
    const facts = { readings: [sampleTips(), inCircuit(0.016, at20)] };
    const together = judged(facts).get("at-C1");
    const without = judged({ readings: [sampleTips(), inCircuit(0.033, at20)] }).get("at-C1");
    expect(without?.verdict).toBe("cannot_tell");
    expect(without?.failedProbability).toBeGreaterThan(2 * (together?.failedProbability ?? 1));
  });
});

describe("ohms with a lead up", () => {
  const ohms = (value: number) => sampleReading("C1", { quantity: "resistance", value, frequencyHertz: null });
  const big = { capacitanceFarads: 2200e-6, heightMetres: 0.025 };
  it("are a part that still charges as long as R C is what the seconds explain", () => {
    // 15 seconds over 2200 uF.
    const charging = alone([lifted(0.025, at20), farads(2180e-6), ohms(6.8e3)], big);
    expect([charging.verdict, charging.ledger.some((one) => one.kind === "leakage")]).toEqual(["sound", false]);
  });
  it("are a leak below that, and a short below an ohm, whatever else reads well", () => {
    const leaky = alone([lifted(0.025, at20), farads(2180e-6), ohms(200)], big);
    expect([leaky.verdict, codes(leaky).includes("leakage_resistance")]).toEqual(["failed", true]);
    expect(codes(alone([lifted(0.025, at20), ohms(0.4)], big))).toContain("short_resistance");
  });
  it("that nobody read leave a sound part with what was not looked for", () => {
    const before = alone([lifted(0.03, at20), farads(990e-6)]);
    expect([before.verdict, codes(before).includes("leak_not_looked_for")]).toEqual(["sound", true]);
    const after = alone([lifted(0.03, at20), farads(990e-6), ohms(20e3)]);
    expect([after.verdict, codes(after).includes("leak_not_looked_for")]).toEqual(["sound", false]);
    expect(after.failedProbability).toBeLessThan(before.failedProbability ?? 0);
  });
});

describe("a leakage current", () => {
  const leaking = (amps: number, part: Partial<FittedPart>) =>
    alone([sampleReading("C1", { quantity: "leakage_current", value: amps, circuitState: "out" })], part).verdict;
  it("is held against what sheets of its kind allow", () => {
    // 560 uF at 6.3 V: 35 uA for a liquid part, 0.7 mA for a polymer.
    const part = { capacitanceFarads: 560e-6, ratedVolts: 6.3 };
    expect(leaking(0.4e-3, { ...part, capacitorClass: "lowz" })).toBe("failed");
    expect(leaking(0.4e-3, { ...part, capacitorClass: "polymer" })).not.toBe("failed");
    expect(leaking(2e-3, { ...part, capacitorClass: "polymer" })).toBe("failed");
    // 150 uF at 400 V: 1.8 mA where 0.6 would be asked of a low-volt part.
    const bulk = { capacitanceFarads: 150e-6, ratedVolts: 400, capacitorClass: "gp" } as const;
    expect([leaking(0.9e-3, bulk), leaking(5e-3, bulk)]).toEqual(["cannot_tell", "failed"]);
  });
});

describe("leads that nobody zeroed", () => {
  const names = ["C1", "C2", "C3", "C4", "C5"];
  const nets = names.map((name) => sampleNet({ id: `net-${name}` }));
  const positions = names.map((name) => samplePosition(name, { netId: `net-${name}` }));
  const fittedParts = names.map((name) => samplePart(name));
  /** Sound parts near their typical 32 milliohms, all with 75 more. */
  const readings = [0.101, 0.108, 0.112, 0.104, 0.115].map((value, n) => lifted(value, at20, names[n]));
  const board = { nets, positions, fittedParts };
  it("show in all readings together, are told, and their tips are asked for first", () => {
    const all = judged({ ...board, readings });
    const first = all.get("at-C1");
    expect(first?.leads.probability).toBeGreaterThan(0.8);
    expect(first?.leads.ohms).toBeGreaterThan(0.05);
    expect(first?.leads.ohms).toBeLessThan(0.1);
    expect([areTipsFirst(all), codes(first).includes("leads_likely")]).toEqual([true, true]);
    expect(first?.verdict).not.toBe("failed");
  });
  it("are taken off once the tips were read together, and asked for no more", () => {
    const all = judged({ ...board, readings: [...readings, sampleTips(0.075)] });
    expect([...all.values()].map((one) => one.verdict)).toEqual(names.map(() => "sound"));
    expect(areTipsFirst(all)).toBe(false);
    expect(codes(all.get("at-C1"))).toContain("leads_measured");
    // With tips that add nothing the same readings are three parts and a half of new ones.
    const zeroed = judged({ ...board, readings: [...readings, sampleTips(0)] }).get("at-C5");
    expect(zeroed?.failedProbability).toBeGreaterThan(0.3);
  });
  it("are not suspected where some parts read as they should", () => {
    const sound = names.slice(0, 2).map((name) => lifted(0.03, at20, name));
    const one = judged({ ...board, readings: [...sound, ...readings.slice(2)] });
    expect(one.get("at-C1")?.leads.probability).toBeLessThan(0.3);
    expect(areTipsFirst(one)).toBe(false);
  });
});

describe("what speaks for a part", () => {
  it("is good capacitance: an ESR at the limit alone condemns, with it no longer", () => {
    const esr = lifted(0.13, at20);
    expect(alone([esr]).verdict).toBe("failed");
    expect(alone([esr, farads(985e-6)]).verdict).not.toBe("failed");
    expect(alone([esr, farads(600e-6)]).failedProbability).toBeGreaterThan(0.95);
  });
  it("is a series that reads so in all parts of its bank", () => {
    const names = ["C1", "C2", "C3"];
    const parts = {
      positions: names.map((one) => samplePosition(one)),
      fittedParts: names.map((one) => samplePart(one)),
    };
    const all = names.flatMap((one) => [lifted(0.085, at20, one), farads(970e-6, one)]);
    const three = judged({ ...parts, readings: [sampleTips(), ...all] }).get("at-C1");
    const single = alone(all.slice(0, 2));
    expect(three?.failedProbability).toBeLessThan(0.6 * (single.failedProbability ?? 0));
    expect(codes(three)).toContain("series_higher");
  });
  it("is not knowing the class, the size or the temperature: each is a range", () => {
    const esr = (more: Partial<Reading> = {}) => lifted(0.11, { ...at20, ...more });
    const known = alone([esr()]).failedProbability ?? 0;
    expect(alone([esr()], { capacitorClass: null }).failedProbability).toBeLessThan(0.7 * known);
    expect(alone([esr({ temperatureCelsius: null })]).failedProbability).toBeLessThan(known);
  });
});

describe("a bank", () => {
  const four = ["C1", "C2", "C3", "C4"];
  const bank = { positions: four.map((one) => samplePosition(one)), fittedParts: four.map((one) => samplePart(one)) };
  it("does not condemn the last of four by what its read neighbours carry", () => {
    const at1k = { frequencyHertz: 1000, temperatureCelsius: 20 };
    const readings = [inCircuit(0.05, at1k), ...four.slice(1).map((one) => lifted(0.06, at1k, one))];
    expect(judged({ ...bank, readings: [sampleTips(), ...readings] }).get("at-C1")?.failedProbability).toBeLessThan(
      0.8,
    );
  });
  it("is not condemned below the resonance of its choke, where new banks read above all of their parts", () => {
    const network = { arrangement: "parallel", behindNetId: "net-12", chokeHenrys: 10e-6, chokeOhms: 0.01 } as const;
    const nets = [sampleNet(), sampleNet({ id: "net-post", section: "output-post", network })];
    const post = ["C5", "C6"];
    const board = {
      nets,
      positions: [...bank.positions, ...post.map((one) => samplePosition(one, { netId: "net-post" }))],
      fittedParts: [...bank.fittedParts, ...post.map((one) => samplePart(one, { capacitanceFarads: 3300e-6 }))],
    };
    const readings = [sampleTips(), inCircuit(0.042, { frequencyHertz: 1000, temperatureCelsius: 20 })];
    const first = judged({ ...board, readings }).get("at-C1");
    expect([first?.verdict, first?.interval]).toEqual(["cannot_tell", null]);
    expect(first?.failedProbability).toBeLessThan(0.5);
  });
  it("leaves nobody in circuit surely sound or surely failed", () => {
    for (const value of [0.004, 0.008, 0.016, 0.05, 2]) {
      const p = judged({ ...bank, readings: [sampleTips(), inCircuit(value, at20)] }).get("at-C1")?.failedProbability;
      expect(p).toBeGreaterThan(0.01);
      expect(p).toBeLessThan(0.9999);
    }
  });
  it("hears of a bad batch: where two have gone the others are likelier to have", () => {
    const third = (ohms: number, left: number) => {
      const read = ["C1", "C2"].flatMap((at) => [lifted(ohms, at20, at), farads(left, at)]);
      const domed = { fittedPartId: "part-C3", sign: "sleeve_damaged", state: "seen", sequence: 1 } as const;
      const signs = [{ ...domed, observedAt: "2026-11-23T10:00:00Z" }];
      return judged({ ...bank, signs, readings: [sampleTips(), ...read] }).get("at-C3")?.failedProbability ?? 0;
    };
    expect(third(1.2, 300e-6)).toBeGreaterThan(2 * third(0.03, 990e-6));
  });
});

describe("two numbers that cannot both be", () => {
  it("are read again before anything is concluded; a second look settles it", () => {
    const readings = [inCircuit(0.31, at20), lifted(0.031, at20), farads(990e-6)];
    const first = alone(readings);
    expect([first.verdict, codes(first).includes("read_again") || codes(first).includes("bad_then_good")]).toEqual([
      "cannot_tell",
      true,
    ]);
    const high = alone([inCircuit(0.03, at20), lifted(0.31, at20), farads(990e-6)]);
    expect(high.verdict).toBe("cannot_tell");
  });
});

test.prop([fc.array(fc.double({ min: 0.005, max: 5, noNaN: true }), { minLength: 1, maxLength: 4 })])(
  "chances stay chances, and who asks first does not matter",
  (values) => {
    const readings = values.map((value, n) => (n % 2 === 0 ? lifted(value, at20) : inCircuit(value, at20, "C2")));
    const all = judged({ readings });
    for (const one of all.values()) {
      if (one.failedProbability === null) continue;
      expect(one.failedProbability).toBeGreaterThanOrEqual(0);
      expect(one.wornProbability).toBeLessThanOrEqual(1);
      expect(one.failedProbability).toBeLessThanOrEqual(one.wornProbability ?? 0);
    }
    const turned = judgeBoard(
      { ...sampleJob({ readings }), positions: [samplePosition("C2"), samplePosition("C1")] },
      rules,
    );
    expect(turned.get("at-C1")?.failedProbability).toBeCloseTo(all.get("at-C1")?.failedProbability ?? 0, 9);
  },
);
