import type { PartKind } from "../board/board";
import type { Section } from "../board/sections";
import type { CapacitorClass } from "../capacitors/capacitorClass";

/** Words that name a section; the first of each is the one that is printed. */
export const sectionWords: Readonly<Record<Section, readonly string[]>> = {
  bulk: ["bulk"],
  pfc: ["pfc"],
  vcc: ["vcc"],
  standby: ["stby", "standby"],
  output: ["out", "output"],
  "output-post": ["post"],
  feedback: ["fb", "feedback"],
  gate: ["gate"],
  "board-regulator": ["reg", "regulator"],
  "linear-regulator": ["ldo", "linear"],
  other: ["other"],
};

export const classWords: Readonly<Record<CapacitorClass, readonly string[]>> = {
  gp: ["gp"],
  lowz: ["lowz"],
  ultra: ["ultra"],
  polymer: ["poly", "polymer"],
  hybrid: ["hybrid"],
};

/** Where the stripe points, as 0 right, 90 down. */
export const stripeWords: Readonly<Record<string, number>> = { "-right": 0, "-down": 90, "-left": 180, "-up": 270 };

/** A part without polarity; the first is the one that is printed. */
export const nonPolarWords: readonly string[] = ["np", "bp"];

/** What a designator's letters say of the part; a kind that is spelled out wins. */
const kindPrefixes: readonly (readonly [prefix: string, kind: PartKind])[] = [
  ["FAN", "fan"],
  ["REG", "regulator"],
  ["NTC", "ntc"],
  ["VAR", "varistor"],
  ["RV", "varistor"],
  ["PTC", "ptc"],
  ["RLY", "relay"],
  ["RY", "relay"],
  ["K", "relay"],
  ["TF", "thermal-fuse"],
  ["ZD", "zener"],
  ["HS", "heat-sink"],
  ["BR", "bridge"],
  ["BD", "bridge"],
  ["RT", "ntc"],
  ["OC", "optocoupler"],
  ["PC", "optocoupler"],
  ["IC", "ic"],
  ["CN", "connector"],
  ["CX", "film"],
  ["CY", "film"],
  ["C", "electrolytic"],
  ["F", "fuse"],
  ["D", "diode"],
  ["Q", "transistor"],
  ["R", "resistor"],
  ["U", "ic"],
  ["T", "transformer"],
  ["L", "choke"],
  ["J", "connector"],
];

/** The kind that a designator's letters stand for on most boards; an unknown one is an electrolytic nowhere. */
export function kindOfDesignator(designator: string): PartKind {
  const letters = /^[A-Z]+/.exec(designator.toUpperCase())?.[0] ?? "";
  return kindPrefixes.find(([prefix]) => letters === prefix)?.[1] ?? (letters.startsWith("C") ? "electrolytic" : "ic");
}
