import { describe, expect, it } from "vitest";
import { array, number, object, string } from "yup";
import { refuseUnbounded } from "./boundedBody";
import type { HttpProblem } from "./problems";

const schema = object({ name: string(), few: array(number()).max(3), many: array(object({ note: string() })) });

function refused(body: unknown) {
  try {
    return refuseUnbounded(schema, body);
  } catch (error) {
    return (error as HttpProblem).facts.errors;
  }
}
const deep = (levels: number): unknown => (levels === 0 ? 1 : { in: deep(levels - 1) });
const keys = (count: number) => Object.fromEntries(Array.from({ length: count }, (_, n) => [`k${n}`, n]));
const items = (count: number) => Array.from({ length: count }, (_, n) => n);

describe("a body", () => {
  it.each([
    ["its values", { name: "a", few: [1, 2, 3] }, 6],
    ["a list as long as its schema lets it be", { few: [1, 2, 3] }, 5],
    ["another list of a thousand", { other: items(1000) }, 1002],
    ["ten fields more than the schema has", { ...keys(13) }, 14],
    ["unknown things of a hundred and twenty fields", { other: keys(120) }, 122],
    ["twelve levels", deep(12), 13],
    ["forty thousand values", { other: Array.from({ length: 40 }, () => items(998)).concat([items(37)]) }, 40_000],
    ["a character of two halves", { name: "\u{1f527}" }, 2],
  ])("may have %s", (_, body, count) => {
    expect(refused(body)).toBe(count);
  });
  it.each([
    ["one item too many", { few: [1, 2, 3, 4] }, { path: "few", code: "too_many_entries", values: { most: 3 } }],
    ["a long list", { other: items(1001) }, { path: "other", code: "too_many_entries", values: { most: 1000 } }],
    ["many unknown fields", keys(14), { path: "", code: "too_many_fields" }],
    ["a wide thing", { other: keys(121) }, { path: "other", code: "too_many_fields" }],
    ["a deep thing", { name: deep(13) }, { code: "too_deep", values: { most: 12 } }],
    [
      "too much of everything",
      { other: Array.from({ length: 40 }, () => items(998)).concat([items(38)]) },
      { code: "too_many_values", values: { most: 40_000 } },
    ],
    ["the zero character", { many: [{ note: "a" }, { note: "b\0" }] }, { path: "many[1].note", code: "not_storable" }],
    ["half a character", { name: "\ud83d" }, { path: "name", code: "not_storable" }],
    ["the other half", { name: "\udd27" }, { path: "name", code: "not_storable" }],
    ["a name of every object", JSON.parse('{"many": [{"__proto__": 1}]}'), { path: "many[0]", code: "unknown_fields" }],
  ])("is refused with %s", (_, body, error) => {
    expect(refused(body)).toMatchObject([error]);
  });
  it("is refused without an endless path", () => {
    const path = expect.stringMatching(/^xy{199}$/);
    expect(refused({ [`x${"y".repeat(400)}`]: "\0" })).toMatchObject([{ path }]);
  });
});
