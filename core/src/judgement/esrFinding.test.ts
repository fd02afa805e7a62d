import { describe, expect, it } from "vitest";
import { samplePart, samplePosition, sampleReading, sampleRules } from "../../testing/sampleJob";
import type { FittedPart } from "../board/board";
import { expectedEsrOfPart } from "../capacitors/expectedEsrOfPart";
import { tradeConstants } from "../constants/tradeConstants";
import type { JudgementRules } from "../facts/jobRules";
import type { Reading } from "../readings/reading";
import { esrUncertainty, findEsr } from "./esrFinding";
import { tunedConstants } from "./tunedConstants";
import { type BankSurroundings, openSurroundings, type PlacedPart } from "./verdict";

const rules: JudgementRules = { ...sampleRules.judgement, contactOhms: 0 };
const placed = (name: string, more: Partial<FittedPart> = {}): PlacedPart => ({
  position: samplePosition(name),
  part: samplePart(name, more),
});
const at20 = { temperatureCelsius: 20 } as const;
const bankReads = (value: number, more: Partial<Reading> = {}) =>
  sampleReading("C1", { value, circuitState: "in_circuit", ...at20, ...more });
const lifted = (name: string, value: number, more: Partial<Reading> = {}) =>
  sampleReading(name, { value, ...at20, ...more });

/** What counts for C1 of a bank, from all that was read of it. */
function found(
  names: readonly string[],
  readings: readonly Reading[],
  more: {
    readonly around?: Partial<BankSurroundings>;
    readonly rules?: JudgementRules;
    readonly last?: Partial<FittedPart>;
  } = {},
) {
  const bank = names.map((name, n) => placed(name, n === names.length - 1 ? more.last : {}));
  return findEsr(
    {
      subject: bank[0] as PlacedPart,
      bank,
      readings: readings.filter((one) => one.fittedPartId === "part-C1"),
      bankReadings: readings,
      signs: {},
      rules: more.rules ?? rules,
      surroundings: { ...openSurroundings, ...more.around },
    },
    tunedConstants,
  );
}
const typicalOhms = expectedEsrOfPart(samplePart("C1"), 100e3, 20, tunedConstants.A)?.typicalOhms as number;

describe("the ESR that counts for a part", () => {
  it("is its own with a lead up before what its bank says", () => {
    expect(found(["C1", "C2"], [bankReads(0.5), lifted("C1", 0.04)])).toMatchObject({ esrOhms: 0.04, interval: null });
    expect(found(["C1", "C2"], [])).toBeNull();
  });
  it("is the bank's where it stands alone, and only a bound where it does not", () => {
    expect(found(["C1"], [bankReads(0.5)])?.esrOhms).toBe(0.5);
    // Far above what two could read if one were good: each is at least twice the reading.
    const two = found(["C1", "C2"], [bankReads(2)]);
    expect(two?.interval?.verdict).toBe("condemned");
    expect(two?.esrOhms).toBeCloseTo((two?.interval?.multipleMin as number) * typicalOhms, 9);
    expect(found(["C1", "C2"], [bankReads(0.02)])).toMatchObject({ esrOhms: null, interval: { verdict: "masked" } });
  });
  it("is nothing in a bank that reads no ohms, and none alone that does", () => {
    const own = { testerShows: "real", leadOhms: 0.05 } as const;
    const taken = { ...rules, ...own };
    expect(found(["C1"], [bankReads(0.04)], { rules: taken })).toMatchObject({ esrOhms: 0, interval: null });
    expect(found(["C1", "C2"], [bankReads(0.04)], { rules: taken })).toMatchObject({ esrOhms: null, interval: null });
  });
  it("says nothing of a bank with a part that nobody can expect anything of", () => {
    const unknown = { last: { capacitanceFarads: null } };
    expect(found(["C1", "C2"], [bankReads(2)], unknown)).toMatchObject({ esrOhms: null, interval: null });
  });
});

describe("neighbours that were read by themselves", () => {
  it("are taken off as they read: what is left belongs to the rest", () => {
    // Two in parallel read 40 milliohms; one reads 45 alone, so the other carries little, and next to nothing beside 30.
    const known = found(["C1", "C2"], [bankReads(0.04), lifted("C2", 0.045)]);
    expect(known).toMatchObject({ knownPositionIds: ["at-C2"], interval: { verdict: "masked" } });
    const unknown = found(["C1", "C2"], [bankReads(0.04)]);
    expect(unknown?.knownPositionIds).toEqual([]);
    expect(known?.interval?.multipleMin).toBeGreaterThan(1.5 * (unknown?.interval?.multipleMin ?? 9));
    expect(found(["C1", "C2"], [bankReads(0.04), lifted("C2", 0.03)])?.interval?.verdict).toBe("condemned");
  });
  it("decide only where the bound holds with less and with more of what they read", () => {
    const beside = (ohms: number) => found(["C1", "C2"], [bankReads(0.02), lifted("C2", ohms)])?.interval;
    expect(beside(0.1)).toMatchObject({ verdict: "cleared" });
    expect(beside(0.1)?.multipleMax).toBeCloseTo(0.9, 1);
    // With 30 % less of 45 milliohms taken off it would be cleared, with 30 % more it is not.
    expect(beside(0.045)?.verdict).toBe("masked");
    expect(beside(0.045)?.multipleMax).toBeCloseTo(1.19, 1);
  });
  it("count at about the frequency of the bank's reading, with ohms, and never as the part itself", () => {
    const far = lifted("C2", 0.045, { frequencyHertz: 1000 });
    expect(found(["C1", "C2"], [bankReads(0.04), far])?.knownPositionIds).toEqual([]);
    expect(found(["C1", "C2"], [bankReads(0.04), lifted("C2", 0)])?.knownPositionIds).toEqual([]);
    expect(
      found(["C1", "C2"], [bankReads(0.04), bankReads(0.04, { targetId: "at-C2", fittedPartId: "part-C2" })])
        ?.knownPositionIds,
    ).toEqual([]);
  });
});

describe("what lies around a bank", () => {
  const across = [placed("C9")];
  it("across a choke takes part of the current, and below the resonance of chokes no bound holds", () => {
    const low = bankReads(0.5, { frequencyHertz: tradeConstants.judgement.bank.resonantBelowHertz / 2 });
    const behind = { acrossChoke: across, chokeHenrys: 1e-6 };
    expect(found(["C1"], [low])?.esrOhms).toBe(0.5);
    expect(found(["C1"], [low], { around: behind })).toMatchObject({ interval: null, esrOhms: null });
    expect(found(["C1"], [bankReads(2)], { around: behind })?.interval).not.toBeNull();
    // A choke that leads nowhere is none.
    expect(found(["C1"], [low], { around: { chokeHenrys: 1e-6 } })?.esrOhms).toBe(0.5);
  });
  it("a resistor across it that was read is taken off", () => {
    const reading = bankReads(0.1);
    expect(found(["C1", "C2"], [reading])?.interval?.verdict).toBe("masked");
    expect(found(["C1", "C2"], [reading], { around: { parallelOhms: 0.2 } })?.interval?.verdict).toBe("condemned");
  });
});

describe("how well a group of readings is known", () => {
  const group = (values: readonly number[]) =>
    found(
      ["C1"],
      values.map((value) => lifted("C1", value)),
    )?.group ?? (null as never);
  it("gets better with repeats, and takes the whole spread of repeats that contradict one another", () => {
    const one = esrUncertainty(group([0.04]), rules);
    expect(one).toBeCloseTo(rules.esrUncertaintyRatio, 12);
    const near = group([0.04, 0.042, 0.038, 0.04]);
    expect(esrUncertainty(near, rules)).toBeCloseTo(Math.hypot(0.1, near.spreadRatio / 2), 12);
    const far = group([0.02, 0.08]);
    expect(esrUncertainty(far, rules)).toBeCloseTo(Math.hypot(0.1, far.spreadRatio), 12);
  });
  it("counts the contact beside the meter, for more at a few milliohms", () => {
    const contact = { ...rules, contactOhms: 0.004 };
    expect(esrUncertainty(group([0.04]), contact)).toBeCloseTo(Math.hypot(0.1, 0.1), 12);
    expect(esrUncertainty(group([0.4]), contact)).toBeCloseTo(Math.hypot(0.1, 0.01), 12);
  });
});
