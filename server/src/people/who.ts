import { passwordRights, type Right, type Role, rightsOf, type SignedIn } from "@pale-cap/contract";
import type { Request } from "express";

/** Who sends a request: what their own client is told of them. */
export type Who = SignedIn;

/** Whoever is at a machine that runs alone: the person is whom the page names. */
export const everyone: Who = {
  ...{ accountId: null, personId: null, name: "", role: "everyone", rights: rightsOf.everyone, by: "password" },
  ...{ benchId: null, hasPin: false },
} as const;

/** A PIN of a few digits opens less than a password. */
export function rightsBy(role: Role, by: Who["by"]): readonly Right[] {
  return by === "pin" ? rightsOf[role].filter((right) => !passwordRights.includes(right)) : rightsOf[role];
}

const known = new WeakMap<Request, Who>();

export const setWho = (request: Request, who: Who): void => {
  known.set(request, who);
};

/** null: nobody is signed in. What was never asked for its session is nobody's either. */
export const whoOf = (request: Request): Who | null => known.get(request) ?? null;
