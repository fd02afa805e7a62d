import type { Inputs } from "./inputs";

/** Maps the keys of one family onto core's function and its result back. */
export type FamilyAdapter = (inputs: Inputs) => unknown;
