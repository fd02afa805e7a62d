import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { compare, type ReferenceCase } from "./compare";
import { families, runFamily } from "./families";

const folder = join(import.meta.dirname, "cases");
const cases = readdirSync(folder).flatMap(
  (file) => JSON.parse(readFileSync(join(folder, file), "utf8")) as ReferenceCase[],
);

describe("reference cases", () => {
  it("sweep every family that has an adapter, invalid inputs included", () => {
    expect(new Set(cases.map((one) => one.family))).toEqual(new Set(Object.keys(families)));
    expect(cases.filter((one) => JSON.stringify(one.expected).includes("invalid_input")).length).toBeGreaterThan(20);
    expect(cases.length).toBeGreaterThan(300);
  });

  it.each(cases)("$id", ({ family, inputs, expected, tolerance }) => {
    expect(compare(runFamily(family, inputs), expected, tolerance).failure).toBeNull();
  });
});

describe("compare", () => {
  it("fails a float beyond tolerance, a missing key, a wrong length and a wrong kind", () => {
    expect(compare({ a: 1.01 }, { a: 1 }, 1e-3).failure?.key).toBe("a");
    expect(compare({}, { a: 1 }, 1).failure?.key).toBe("a");
    expect(compare({ a: [1, 2] }, { a: [1] }, 1).failure?.key).toBe("a");
    expect(compare({ a: "1" }, { a: 1 }, 1).failure?.key).toBe("a");
    expect(compare({ a: 1.0001, extra: 9 }, { a: 1 }, 1e-3).failure).toBeNull();
  });
});
