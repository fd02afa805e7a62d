/** Where on a supply a net lies, in the order in which energy flows. */
export const sections = [
  "bulk",
  "pfc",
  "vcc",
  "standby",
  "output",
  "output-post",
  "feedback",
  "gate",
  "board-regulator",
  "linear-regulator",
  "other",
] as const;

export type Section = (typeof sections)[number];

/** Positions for which replacement limits are known (table `pos` of the constants). */
export type PositionClass =
  | "mains_bulk"
  | "pfc_bulk"
  | "vcc"
  | "standby_out"
  | "main_pre"
  | "main_post"
  | "feedback"
  | "gate_drive";

interface SectionFacts {
  readonly positionClass: PositionClass;
  /** Before the isolation barrier: at mains potential. */
  readonly isMainsSide: boolean;
  /** Behind the switching transformer or a switching regulator: only low-ESR parts belong here. */
  readonly isSwitchingOutput: boolean;
  readonly label: string;
}

/** The one map from a section to what follows from it. `other` is treated like an output after the choke. */
export const sectionFacts: Readonly<Record<Section, SectionFacts>> = {
  bulk: { positionClass: "mains_bulk", isMainsSide: true, isSwitchingOutput: false, label: "Bulk" },
  pfc: { positionClass: "pfc_bulk", isMainsSide: true, isSwitchingOutput: false, label: "PFC bulk" },
  vcc: { positionClass: "vcc", isMainsSide: true, isSwitchingOutput: false, label: "Control supply (Vcc)" },
  standby: { positionClass: "standby_out", isMainsSide: false, isSwitchingOutput: true, label: "Standby output" },
  output: { positionClass: "main_pre", isMainsSide: false, isSwitchingOutput: true, label: "Output, before choke" },
  "output-post": {
    positionClass: "main_post",
    isMainsSide: false,
    isSwitchingOutput: true,
    label: "Output, after choke",
  },
  feedback: { positionClass: "feedback", isMainsSide: false, isSwitchingOutput: false, label: "Feedback" },
  gate: { positionClass: "gate_drive", isMainsSide: true, isSwitchingOutput: false, label: "Gate drive" },
  "board-regulator": {
    positionClass: "main_post",
    isMainsSide: false,
    isSwitchingOutput: true,
    label: "Board regulator, switching",
  },
  // Its loop needs an ESR that is neither high nor low: a window, and no switching current.
  "linear-regulator": {
    positionClass: "main_post",
    isMainsSide: false,
    isSwitchingOutput: false,
    label: "Linear regulator",
  },
  other: { positionClass: "main_post", isMainsSide: false, isSwitchingOutput: false, label: "Other" },
};

/** A section that another rail of the unit feeds. */
export const isRegulator = (section: Section | undefined): boolean =>
  section === "board-regulator" || section === "linear-regulator";
