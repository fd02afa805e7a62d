import { type FactMoment, inOrder } from "../readings/factMoment";

/** Visual signs of a part, in the order in which one looks. */
export const visualSigns = [
  "domed",
  "vented",
  "burst",
  "crust",
  "leak",
  "base_lifted",
  "sleeve_damaged",
  "board_browned",
  "cracked_joint",
  "adhesive_brown",
] as const;
export type VisualSign = (typeof visualSigns)[number];

/** Those that a part without can, vent and sleeve can show. */
export const deviceSigns = [
  "burst",
  "crust",
  "board_browned",
  "cracked_joint",
  "adhesive_brown",
] as const satisfies VisualSign[];

export type SignState = "seen" | "not_seen" | "not_looked";

/** What was seen on a part, or looked for and not seen. */
export interface SignObservation extends Pick<FactMoment, "sequence"> {
  /** A capacitor; null with any other part, which is told by its place. */
  readonly fittedPartId: string | null;
  readonly positionId?: string | null | undefined;
  readonly sign: VisualSign;
  readonly state: SignState;
  readonly observedAt: string;
}

/**
 * The state of each sign that was stored last.
 *
 * @param subjectId a found capacitor, or the place of any other part
 */
export function latestSigns(
  observations: readonly SignObservation[],
  subjectId: string,
): Partial<Record<VisualSign, SignState>> {
  const latest: Partial<Record<VisualSign, SignState>> = {};
  const own = observations.filter((one) => one.fittedPartId === subjectId || one.positionId === subjectId);
  for (const { sign, state } of inOrder(own)) latest[sign] = state;
  return latest;
}
