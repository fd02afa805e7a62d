import { type Right, signedRights } from "@pale-cap/contract";
import type { AnyObject } from "yup";
import type { Who } from "../people/who";
import { HttpProblem } from "./problems";

/** What a route asks for; `anybody`: also who is not signed in. */
export type RouteRight = Right | "anybody";

/** What is signed for, nobody else sends. */
const isSigned = (right: RouteRight): boolean => (signedRights as readonly string[]).includes(right);

/** Who did it: what the body says, where nobody signs in. */
export function personOf(body: unknown): string | null {
  const { personId } = (body ?? {}) as { personId?: unknown };
  return typeof personId === "string" ? personId : null;
}

/**
 * A body as it is stored: who is signed in did it where it names nobody. What was measured or done may name another, so that an entry
 * that waited keeps its own; what is signed for never does.
 */
export function asSentBy<Body extends AnyObject>(who: Who | null, body: Body, right: RouteRight): Body {
  if (!who?.personId || !("personId" in body)) return body;
  const named = personOf(body);
  if (named !== null && named !== who.personId && isSigned(right)) {
    throw new HttpProblem(
      "not_allowed",
      "Somebody else signed this: it is stored when they are at this bench again. Nothing was changed.",
    );
  }
  return { ...body, personId: named ?? who.personId };
}
