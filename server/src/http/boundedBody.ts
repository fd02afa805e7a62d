import { type Fault, fault } from "@pale-cap/contract";
import type { AnySchema } from "yup";
import { HttpProblem } from "./problems";

/** Bounds of any body, whatever its schema: beyond them nothing of this program's own is that deep or wide. */
const mostDepth = 12;
const mostKeys = 120;
const mostItems = 1000;
const mostValues = 40_000;
/** A few unknown fields are told by name; a flood of them is refused before anybody reads it. */
const mostUnknownKeys = 10;
/** What no database column and no JSON value may hold: the zero character and halves of a character. */
const unstorable = /\0|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;

interface Described {
  readonly fields?: Readonly<Record<string, AnySchema>>;
  readonly innerType?: AnySchema;
}

/**
 * Walks a body once, before any rule is asked, and refuses at once what is deeper, wider or longer than the schema's own
 * limits or what no store could hold. What a validator may be asked to walk is bounded here.
 *
 * @returns how many values the body holds
 * @throws {HttpProblem} at the first thing beyond a bound
 */
export function refuseUnbounded(schema: AnySchema, body: unknown): number {
  let count = 0;
  walk(schema, body, "", 0);
  return count;

  function walk(rule: AnySchema | undefined, value: unknown, path: string, depth: number): void {
    count += 1;
    if (count > mostValues) refuse(path, fault("too_many_values", { most: mostValues }));
    if (typeof value === "string") {
      if (unstorable.test(value)) refuse(path, fault("not_storable"));
      return;
    }
    if (typeof value !== "object" || value === null) return;
    if (depth >= mostDepth) refuse(path, fault("too_deep", { most: mostDepth }));
    const { fields, innerType } = (rule ?? {}) as Described;
    if (Array.isArray(value)) {
      const most = listLimit(rule);
      if (value.length > most) refuse(path, fault("too_many_entries", { most }));
      for (const [index, one] of value.entries()) walk(innerType, one, `${path}[${index}]`, depth + 1);
      return;
    }
    const keys = Object.keys(value);
    if (keys.length > (fields ? Object.keys(fields).length + mostUnknownKeys : mostKeys)) {
      refuse(path, fault("too_many_fields"));
    }
    for (const key of keys) {
      // A field of that name would answer for every object's own.
      if (key in Object.prototype) refuse(path, fault("unknown_fields", { names: key }));
      walk(fields?.[key], (value as Record<string, unknown>)[key], join(path, key), depth + 1);
    }
  }
}

const join = (path: string, key: string) => (path === "" ? key : `${path}.${key}`).slice(0, 200);

function refuse(path: string, what: Fault): never {
  throw new HttpProblem("invalid_body", "Nothing was stored. See the fields below.", { errors: [{ path, ...what }] });
}

/** The schema's own `max`, where it has one. */
function listLimit(rule: AnySchema | undefined): number {
  for (const test of rule?.tests ?? []) {
    const { name, params } = test.OPTIONS ?? {};
    if (name === "max" && typeof params?.max === "number") return params.max;
  }
  return mostItems;
}
