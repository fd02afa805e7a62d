import { describe, expect, it } from "vitest";
import { sampleJob, samplePart, samplePosition, sampleReading, sampleRules, sampleTips } from "../../testing/sampleJob";
import type { FittedPart } from "../board/board";
import { entryQuestions } from "./entryQuestions";

const names = ["C1", "C2", "C3", "C4"];
/** Four equal parts as entered, each read with its lead up: typically 32 milliohms. */
function asked(ohms: readonly number[], farads: readonly number[], part: Partial<FittedPart> = {}, tips = 0) {
  const at = { temperatureCelsius: 20 } as const;
  return entryQuestions(
    sampleJob({
      positions: names.map((one) => samplePosition(one)),
      fittedParts: names.map((one) => samplePart(one, part)),
      readings: [
        sampleTips(tips),
        ...ohms.map((value, n) => sampleReading(names[n] as string, { ...at, value })),
        ...farads.map((value, n) =>
          sampleReading(names[n] as string, { ...at, quantity: "capacitance", value, frequencyHertz: 120 }),
        ),
      ],
    }),
    sampleRules.judgement,
  );
}

describe("entries that equal parts contradict", () => {
  it("asks for another can where all read the half of it", () => {
    const [one, ...more] = asked([0.019, 0.0185, 0.0195, 0.019], [990e-6]);
    expect(more).toEqual([]);
    expect(one).toMatchObject({ kind: "size", positionIds: names.map((name) => `at-${name}`) });
    expect(one?.ratio).toBeCloseTo(0.59, 1);
    expect(one?.suggested.diameterMetres).toBeGreaterThanOrEqual(0.01);
    expect([one?.suggested.diameterMetres, one?.suggested.heightMetres]).not.toEqual([0.01, 0.02]);
  });
  it("asks for another class where no can next to it reads so", () => {
    expect(asked([0.1, 0.105, 0.098], [985e-6, 990e-6])[0]).toMatchObject({
      kind: "class",
      suggested: { capacitorClass: "gp" },
    });
  });
  it("asks for another value where all read one that is usual, and none has the ESR of a dried part", () => {
    expect(asked([0.033, 0.034], [468e-6, 472e-6])[0]).toMatchObject({
      kind: "value",
      suggested: { capacitanceFarads: 470e-6 },
    });
    expect(asked([0.4, 0.5], [468e-6, 472e-6])).toEqual([]);
    // Between two usual values it is no other marking.
    expect(asked([], [560e-6, 565e-6])).toEqual([]);
  });
  it("asks by those whose C was read, and takes dried parts for nothing else where they read less than is printed", () => {
    const ohms = [0.033, 0.034, 0.033, 0.034];
    expect(asked(ohms, [468e-6, 472e-6])[0]).toMatchObject({ kind: "value", suggested: { capacitanceFarads: 470e-6 } });
    expect(asked([0.4, 0.5], [1490e-6, 1510e-6])[0]).toMatchObject({ kind: "value" });
  });
  it("proposes a can only beside one that is entered whole", () => {
    const half = [0.019, 0.0185, 0.0195, 0.019];
    expect(asked(half, [], { heightMetres: null }).map(({ kind }) => kind)).not.toContain("size");
    expect(asked(half, [], { diameterMetres: null }).map(({ kind }) => kind)).not.toContain("size");
  });
  it("asks nothing of one part, of parts that do not agree, of dried ones and of sound ones", () => {
    expect(asked([0.019], [])).toEqual([]);
    expect(asked([0.019, 0.05], [])).toEqual([]);
    // Their middle alone would be another can's.
    expect(asked([0.008, 0.03], [])).toEqual([]);
    expect(asked([0.1, 0.102], [600e-6, 700e-6])).toEqual([]);
    expect(asked([0.033, 0.03, 0.035], [990e-6, 960e-6])).toEqual([]);
  });
  it("says whether C was read at all", () => {
    expect(asked([0.019, 0.0185], [])[0]?.isCapacitanceRead).toBe(false);
    expect(asked([0.019, 0.0185], [990e-6])[0]?.isCapacitanceRead).toBe(true);
  });
  it("takes off the leads first", () => {
    expect(asked([0.102, 0.104, 0.1], [990e-6, 985e-6], {}, 0.07)).toEqual([]);
    const [one] = asked([0.039, 0.0385, 0.0395, 0.039], [990e-6], {}, 0.02);
    expect([one?.kind, one?.ratio.toFixed(1)]).toEqual(["size", "0.6"]);
  });
});
