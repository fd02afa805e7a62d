import type { InstrumentKind } from "@pale-cap/contract";
import type { Bench } from "./bench";
import type { Instrument } from "./instrument";
import { lcr } from "./lcr";
import { load } from "./load";
import { mains } from "./mains";
import { multimeter } from "./multimeter";
import { oscilloscope } from "./oscilloscope";
import { thermometer } from "./thermometer";

/** Every instrument of a bench, by kind. */
export const instruments = {
  lcr,
  multimeter,
  oscilloscope,
  load,
  thermometer,
  mains,
} as const satisfies Readonly<Record<InstrumentKind, (bench: Bench) => Instrument>>;
