import { describe, expect, it } from "vitest";
import { verifyFiles } from "./verifyFiles";

const file = (cases: unknown) => ({ name: "x.json", read: () => JSON.stringify(cases) });
const good = { family: "a-kt", id: "one", inputs: { T_C: 20 }, expected: { kR: 1, clamped: false }, tolerance: 1e-5 };

describe("verifyFiles", () => {
  it("prints a line a case and a summary a family", () => {
    const { lines, isGood } = verifyFiles([file([good, { ...good, id: "two", inputs: { T_C: -10 } }])]);
    expect(isGood).toBe(false);
    expect(lines[0]).toMatch(/^ok a-kt one worst=/);
    expect(lines[1]).toMatch(/^FAIL a-kt two kR got=2\.3\d+ want=1$/);
    expect(lines.at(-1)).toMatch(/^a-kt: 1 of 2 passed/);
  });
  it("fails an unknown family, even one named like something every object has", () => {
    for (const family of ["z-nothing", "constructor"]) {
      expect(verifyFiles([file([{ ...good, family }])]).isGood).toBe(false);
    }
  });
  it("fails a file that is no list of cases", () => {
    expect(verifyFiles([file({})]).isGood).toBe(false);
    expect(verifyFiles([{ name: "x", read: () => "{" }]).isGood).toBe(false);
  });
  it("takes a missing input and a wrong kind for invalid input, as the cases do", () => {
    const expected = { error: "invalid_input" };
    expect(verifyFiles([file([{ ...good, inputs: {}, expected }])]).isGood).toBe(true);
    expect(verifyFiles([file([{ ...good, inputs: { T_C: "20" }, expected }])]).isGood).toBe(true);
    expect(verifyFiles([file([{ ...good, inputs: { T_C: 20, cls: "gold" }, expected }])]).isGood).toBe(true);
  });
});
