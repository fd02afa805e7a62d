import { faultCodes } from "@pale-cap/contract";
import { expect, it } from "vitest";
import { fieldFaultWords, fieldProblemWords } from "./fieldFaultWords";

const values = { type: "number", least: 1, most: 9, limit: 5, unit: "V", names: "owner" };

it("says something of its own for every fault that the contract knows, with its values", () => {
  const said = faultCodes.map((code) => fieldFaultWords({ code, values }));
  expect(new Set(said).size).toBe(faultCodes.length);
  expect(said.filter((words) => words.length < 8 || words.includes("undefined"))).toEqual([]);
  expect(fieldFaultWords({ code: "outside_limits", values })).toBe("must lie between 1 and 9 V");
});

it("names the field where it cannot stand at its place", () => {
  const problem = { path: "changes[0].values.nominalVolts", code: "above_most", values: { most: 1000 } } as const;
  expect(fieldProblemWords(problem)).toBe("nominalVolts must be at most 1000");
  expect(fieldProblemWords({ path: "", code: "too_many_fields" })).toBe("has too many fields");
});
