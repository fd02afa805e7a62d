import { type AnyObject, type ObjectSchema, ValidationError } from "yup";
import { HttpProblem } from "./problems";

/** Parses what came over the wire once; behind this line types are trusted. All problems are reported together. */
export function parseBody<T extends AnyObject>(schema: ObjectSchema<T>, body: unknown): T {
  if (typeof body !== "object" || body === null || Array.isArray(body)) {
    throw new HttpProblem("invalid_body", "The body must be a JSON object.");
  }
  try {
    return schema.validateSync(body, { abortEarly: false, strict: true }) as T;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const found = error.inner.length > 0 ? error.inner : [error];
    throw new HttpProblem("invalid_body", "Nothing was stored. See the fields below.", {
      errors: found.map((one) => ({ path: one.path ?? "", message: one.errors[0] ?? "is not valid" })),
    });
  }
}

const uuidPattern = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** An id from the address; a bad one is an address with nothing behind it. */
export function idParameter(value: unknown): string {
  if (typeof value !== "string" || !uuidPattern.test(value)) {
    throw new HttpProblem("not_found", "The address does not hold a valid id.");
  }
  return value;
}
