import type { Intake } from "@pale-cap/contract";

/** One field that two people changed: what stands there now, and what was typed here. */
export interface IntakeConflict {
  /** `complaint`, or `intakeDetails.purpose`. */
  readonly field: string;
  readonly theirs: unknown;
  readonly mine: unknown;
}

type Fields = Readonly<Record<string, unknown>>;

/**
 * What was typed here, laid over what somebody else stored meanwhile, field by field: what only one of the two touched is taken; where
 * both did, what was typed stays in the form and both are told.
 *
 * @param base what the form was filled from
 */
export function mergeIntake(
  base: Intake,
  mine: Intake,
  theirs: Intake,
): { readonly values: Intake; readonly conflicts: readonly IntakeConflict[] } {
  const { intakeDetails: baseDetails, ...baseFields } = base;
  const { intakeDetails: mineDetails, ...mineFields } = mine;
  const { intakeDetails: theirDetails, ...theirFields } = theirs;
  const outer = merged(baseFields, mineFields, theirFields);
  const inner = merged(baseDetails, mineDetails, theirDetails);
  return {
    values: { ...outer.values, intakeDetails: inner.values } as Intake,
    conflicts: [...outer.conflicts, ...inner.conflicts.map((one) => ({ ...one, field: `intakeDetails.${one.field}` }))],
  };
}

function merged(base: Fields, mine: Fields, theirs: Fields) {
  const conflicts: IntakeConflict[] = [];
  const values: Record<string, unknown> = {};
  for (const field of Object.keys({ ...theirs, ...mine })) {
    const [was, own, other] = [base[field], mine[field], theirs[field]];
    const isMine = !isSame(own, was);
    if (isMine && !isSame(other, was) && !isSame(own, other)) conflicts.push({ field, theirs: other, mine: own });
    values[field] = isMine ? own : other;
  }
  return { values, conflicts };
}

/** An emptied field and an unknown one are the same. */
const isSame = (a: unknown, b: unknown) => JSON.stringify(plain(a)) === JSON.stringify(plain(b));
const plain = (value: unknown) => (value === "" || value === undefined ? null : value);

/** The form with one conflict settled: theirs, or for words both, one after the other. */
export function settledIntake(values: Intake, { field, theirs, mine }: IntakeConflict, how: "theirs" | "both"): Intake {
  const value = how === "theirs" ? theirs : `${String(theirs)}\n${String(mine)}`;
  const [outer, inner] = field.split(".") as [string, string?];
  if (inner === undefined) return { ...values, [outer]: value };
  return { ...values, intakeDetails: { ...values.intakeDetails, [inner]: value } };
}

export const areWords = ({ theirs, mine }: IntakeConflict): boolean =>
  typeof theirs === "string" && typeof mine === "string" && theirs !== "" && mine !== "";
