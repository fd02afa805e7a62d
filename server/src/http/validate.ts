import { type Fault, type FieldProblem, fault, faultOf, mostFieldProblems } from "@pale-cap/contract";
import { type AnyObject, type ObjectSchema, ValidationError } from "yup";
import { refuseUnbounded } from "./boundedBody";
import { HttpProblem } from "./problems";

/** Up to so many values every fault of a body is looked for; of a larger one only the first is told. */
const smallBody = 2000;

/** Parses what came over the wire once; behind this line types are trusted. Faults are told together, within bounds. */
export function parseBody<T extends AnyObject>(schema: ObjectSchema<T>, body: unknown): T {
  if (typeof body !== "object" || body === null || Array.isArray(body)) {
    throw new HttpProblem("invalid_body", "The body must be a JSON object.");
  }
  const valueCount = refuseUnbounded(schema, body);
  try {
    return schema.validateSync(body, {
      abortEarly: valueCount > smallBody,
      strict: true,
      disableStackTrace: true,
    } as object) as T;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const found = error.inner.length > 0 ? error.inner : [error];
    throw new HttpProblem("invalid_body", "Nothing was stored. See the fields below.", {
      errors: found.slice(0, mostFieldProblems).map((one) => told(one.path ?? "", faultOf(one))),
    });
  }
}

/** An answer does not echo a flood. */
const longestTold = 200;

function told(path: string, { code, values }: Fault): FieldProblem {
  const short = Object.entries(values ?? {}).map(([name, value]) => [
    name,
    typeof value === "string" ? value.slice(0, longestTold) : value,
  ]);
  return { path: path.slice(0, longestTold), ...fault(code, values && Object.fromEntries(short)) };
}

const uuidPattern = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

export const isId = (value: unknown): value is string => typeof value === "string" && uuidPattern.test(value);

/** An id from the address; a bad one is an address with nothing behind it. */
export function idParameter(value: unknown): string {
  if (!isId(value)) throw new HttpProblem("not_found", "The address does not hold a valid id.");
  return value;
}
