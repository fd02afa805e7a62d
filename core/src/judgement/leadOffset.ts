import type { Reading } from "../readings/reading";

/** The tips of an ESR meter held together: what its leads add to everything that it reads of this job. */
export const isTipsTogether = ({ targetKind, quantity, value }: Reading): boolean =>
  targetKind === "unit" && quantity === "esr" && value !== null;
