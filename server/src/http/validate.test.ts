import { fault } from "@pale-cap/contract";
import { describe, expect, it } from "vitest";
import { number, object, string } from "yup";
import { HttpProblem } from "./problems";
import { idParameter, isId, parseBody } from "./validate";

const id = "0190a5b0-0000-7000-8000-00000000000f";
const refusalOf = (act: () => unknown): HttpProblem => {
  try {
    act();
  } catch (error) {
    if (error instanceof HttpProblem) return error;
    throw error;
  }
  throw new Error("It was taken.");
};

describe("a body", () => {
  const schema = object({ name: string().max(3).required(), count: number().required() });
  it("is what its schema says, and nothing but an object", () => {
    expect(parseBody(schema, { name: "abc", count: 2 })).toEqual({ name: "abc", count: 2 });
    for (const body of [null, undefined, "text", 3, [], [{}]]) {
      const { code, detail } = refusalOf(() => parseBody(schema, body));
      expect([code, detail]).toEqual(["invalid_body", "The body must be a JSON object."]);
    }
  });
  it("has all its faults told together, each at its field, and none turned into something else", () => {
    const { code, detail, facts } = refusalOf(() => parseBody(schema, { name: "abcd", count: "2" }));
    expect([code, detail]).toEqual(["invalid_body", "Nothing was stored. See the fields below."]);
    expect(facts.errors?.map((one) => one.path).sort()).toEqual(["count", "name"]);
  });
  it("of a flood has only the first fault told", () => {
    const many = object(Object.fromEntries(Array.from({ length: 2001 }, (_, n) => [`f${n}`, number().required()])));
    const body = Object.fromEntries(Array.from({ length: 2001 }, (_, n) => [`f${n}`, "x"]));
    expect(refusalOf(() => parseBody(many, body)).facts.errors).toHaveLength(1);
  });
  it("does not echo a flood: paths and values are cut, numbers stay", () => {
    const told = object({
      name: string().test("long", fault("above_most", { max: 5, said: "y".repeat(300) } as never), () => false),
      [`f${"x".repeat(300)}`]: string().test("bare", fault("needed"), () => false),
    });
    const { facts } = refusalOf(() => parseBody(told, { name: "a", [`f${"x".repeat(300)}`]: "b" }));
    const [first, second] = [...(facts.errors ?? [])].sort((a, b) => b.path.length - a.path.length);
    expect([first?.path.length, first?.values]).toEqual([200, undefined]);
    expect(second).toEqual({ path: "name", code: "above_most", values: { max: 5, said: "y".repeat(200) } });
  });
  it("that is refused as a whole stands at no field", () => {
    const whole = object({}).test("never", fault("needed"), () => false);
    expect(refusalOf(() => parseBody(whole, {})).facts.errors).toEqual([{ path: "", code: "needed" }]);
  });
  it("whose check itself breaks is no refusal", () => {
    const broken = object({}).test("breaks", "x", () => {
      throw new TypeError("inside");
    });
    expect(() => parseBody(broken, {})).toThrow(TypeError);
  });
});

describe("an id", () => {
  it("is a whole one in small letters", () => {
    expect([id, `x${id}`, `${id}x`, id.toUpperCase(), "", 3, null, [id]].map(isId)).toEqual([
      ...[true, false, false, false, false, false, false, false],
    ]);
  });
  it("in an address that is none is an address with nothing behind it", () => {
    expect(idParameter(id)).toBe(id);
    const { code, detail } = refusalOf(() => idParameter("1"));
    expect([code, detail]).toEqual(["not_found", "The address does not hold a valid id."]);
  });
});
