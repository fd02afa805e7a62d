import { netValues, readingValues } from "@pale-cap/core/testing";
import { describe, expect, it } from "vitest";
import type { ValidationError } from "yup";
import { type Fault, faultOf } from "../faults";
import { removalSchema } from "../fields/fields";
import { houseRules } from "../houseRules/houseRules";
import { foldHouseRules, ruleProblem } from "../houseRules/ruleChanges";
import { createJobSchema } from "../jobs/job";
import { readingSchema } from "../readings/reading";
import { boardEditSchema } from "./board";

const id = "0190a5b0-0000-7000-8000-000000000001";
const said = (path: string | undefined, { code, values = {} }: Fault) =>
  [path, code, ...Object.values(values)].join(" ");
const problems = (schema: { validateSync: (v: unknown, o: object) => unknown }, body: unknown): string[] => {
  try {
    schema.validateSync(body, { abortEarly: false });
    return [];
  } catch (error) {
    return (error as ValidationError).inner.map((one) => said(one.path, faultOf(one)));
  }
};

const net = { ...netValues, fullLoadAmps: 3 };
const change = { table: "net", operation: "insert", id, version: null, values: net };

describe("a version", () => {
  it("is counted from one", () => {
    const writeId = id;
    expect(problems(removalSchema(), { writeId, version: 1 })).toEqual([]);
    expect(problems(removalSchema(), { writeId, version: 0 })).toEqual(["version below_least 1"]);
    expect(problems(removalSchema(), { writeId, version: 1.5 })).toHaveLength(1);
  });
});

describe("board edits", () => {
  it("take rows of every table and name the path of what is wrong inside them", () => {
    expect(problems(boardEditSchema, { id, changes: [change] })).toEqual([]);
    expect(problems(boardEditSchema, { id, changes: [{ ...change, values: { ...net, nominalVolts: 5000 } }] })).toEqual(
      ["changes[0].values.nominalVolts above_most 1000"],
    );
    expect(problems(boardEditSchema, { id, changes: [{ ...change, values: { ...net, section: "attic" } }] })).toEqual([
      "changes[0].values.section not_known_word",
    ]);
  });

  it("need the version that an update or delete came from, and no values for a delete", () => {
    expect(problems(boardEditSchema, { id, changes: [{ ...change, operation: "update" }] })).toEqual([
      "changes[0].version needed",
    ]);
    expect(
      problems(boardEditSchema, { id, changes: [{ ...change, operation: "delete", version: 2, values: null }] }),
    ).toEqual([]);
  });
});

describe("schemas at the boundary", () => {
  it("refuse unknown fields, numbers in quotes and numbers that are not finite", () => {
    const job = { id, deviceKind: "monitor", deviceMaker: null, deviceModel: null, complaint: null, personId: null };
    expect(problems(createJobSchema, job)).toEqual([]);
    expect(problems(createJobSchema, { ...job, owner: 1 })).toEqual([" unknown_fields owner"]);
    expect(problems(createJobSchema, { ...job, id: "one" })).toEqual(["id not_id"]);
    const reading = { ...readingValues, id, targetId: id, fittedPartId: id };
    expect(problems(readingSchema, reading)).toEqual([]);
    expect(problems(readingSchema, { ...reading, value: "0.041" }).length).toBe(1);
    expect(problems(readingSchema, { ...reading, value: Number.NaN }).length).toBeGreaterThan(0);
    expect(problems(readingSchema, { ...reading, value: -1 })).toEqual(["value below_least 0"]);
    expect(problems(readingSchema, { ...reading, measuredAt: "2026-02-30T10:00:00Z" }).length).toBe(1);
    // The database knows no year 0, and no clock of ours a year 3000.
    expect(problems(readingSchema, { ...reading, measuredAt: "0000-01-30T10:00:00Z" }).length).toBe(1);
    expect(problems(readingSchema, { ...reading, measuredAt: "3000-01-30T10:00:00Z" }).length).toBe(1);
    // A word that every object answers to is no quantity and no table.
    expect(problems(readingSchema, { ...reading, quantity: { toString: 1 } }).length).toBeGreaterThan(0);
  });
});

describe("house rules", () => {
  it("go back to their default on null and ignore a value that is no longer allowed", () => {
    const values = foldHouseRules([
      { key: "charge.workingVolts", value: 5 },
      { key: "charge.workingVolts", value: null },
      { key: "shop.warrantyMonths", value: -3 },
    ]);
    expect(values["charge.workingVolts"]).toBe(10);
    expect(values["shop.warrantyMonths"]).toBe(6);
  });
  it("all have a default that their own check lets through", () => {
    for (const [key, rule] of Object.entries(houseRules)) expect(ruleProblem(key, rule.value), key).toBeNull();
  });
  it.each([
    ["charge.workingVolts", 400, " outside_limits 1 60 V"],
    ["charge.workingVolts", "10", " wrong_type number"],
    ["judge.school", "lenient", " not_known_word"],
    ["shop.currency", "EURO", " not_currency"],
    ["shop.timeZone", "Middle/Earth", " not_time_zone"],
    [
      "charge.kit",
      [{ name: "short", kind: "resistor", count: 1, ohms: 0.001, watts: 5, volts: 500 }],
      "[0].ohms below_least 10",
    ],
    [
      "charge.kit",
      [{ name: "lamp", kind: "candle", count: 1, ohms: null, watts: 5, volts: 500 }],
      "[0].kind not_known_word",
    ],
    ["charge.kit", "everything", " wrong_type array"],
    ["no.such", 1, " not_rule"],
    ["toString", 1, " not_rule"],
  ])("refuse %s = %s", (key, value, words) => {
    const problem = ruleProblem(key, value);
    expect(problem && said(problem.path, problem)).toBe(words);
  });
});

it("house rules fold changes over defaults and ignore keys that are gone", () => {
  const values = foldHouseRules([
    { key: "charge.workingVolts", value: 5 },
    { key: "no.such.rule", value: 1 },
  ]);
  expect(values["charge.workingVolts"]).toBe(5);
  expect(values["judge.school"]).toBe("twenty");
  expect(Object.hasOwn(values, "no.such.rule")).toBe(false);
});
