import type { FactMoment } from "../readings/factMoment";
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

export type SignState = "seen" | "not_seen" | "not_looked";

/** What was seen on a part, or looked for and not seen. */
export interface SignObservation extends Pick<FactMoment, "sequence"> {
  readonly fittedPartId: string;
  readonly sign: VisualSign;
  readonly state: SignState;
  readonly observedAt: string;
}
