import type { CircuitState, QuantityKind } from "../readings/reading";

/** A reading worth taking next. */
export interface ProposedTarget {
  readonly positionId: string;
  /** Which pins, where the part has tests of its own. */
  readonly terminals: string | null;
  readonly quantity: QuantityKind;
  readonly circuitState: CircuitState;
  readonly minutes: number;
  /** Expected information about this part, in bits, after what it can change in the plan. */
  readonly gainBits: number;
  /** Its store is charged or unknown: volts come first. */
  readonly isChargeOpen: boolean;
}

/** What to read, without the place. */
export type Proposal = Pick<ProposedTarget, "quantity" | "circuitState" | "minutes" | "gainBits">;

/** Bench minutes: probing in circuit; lifting a lead, reading, and soldering it back. Usual, rough. */
export const probingMinutes = 0.4;
export const liftingMinutes = 3.5;
/** How much of a part's doubt a reading with its lead up can settle, less what an iron can spoil. Rough. */
export const liftedShare = 0.95;
