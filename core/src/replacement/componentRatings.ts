import type { PartKind } from "../board/board";
import type { Unit } from "../quantities/units";

/** Other parts than electrolytics, by what of them has to match. */
export const componentKinds = [
  ...(["transistor", "diode", "bridge", "rectifier", "fuse", "ntc", "varistor", "shunt"] as const),
  ...(["fusible_resistor", "x_capacitor", "y_capacitor", "optocoupler", "regulator", "control_ic", "fan"] as const),
] as const;
export type ComponentKind = (typeof componentKinds)[number];

/** How a rating of the new part stands to the old one's. */
export type RatingRule =
  /** At least, or at most, so many times the old one's. */
  | { readonly rule: "at_least" | "at_most"; readonly ratio: number }
  | { readonly rule: "within"; readonly low: number; readonly high: number }
  | { readonly rule: "same_word" }
  /** Words from the weakest to the strongest: the same or a stronger one. */
  | { readonly rule: "not_weaker"; readonly order: readonly string[] };

export type ComponentRating = RatingRule & {
  readonly name: RatingName;
  /** null: a word. */
  readonly unit: Unit | null;
  /** No reason overrides it. */
  readonly isHard: boolean;
};

export const ratingNames = [
  ...(["ratedVolts", "ratedAmps", "onOhms", "gateChargeCoulombs", "recoverySeconds", "surgeAmps"] as const),
  ...(["forwardVolts", "breakingAmps", "coldOhms", "steadyAmps", "joules", "ohms", "watts"] as const),
  ...(["toleranceRatio", "capacitanceFarads", "transferRatioMin", "transferRatioMax", "isolationVolts"] as const),
  ...(["creepageMetres", "outputVolts", "dropoutVolts", "startVolts", "stopVolts", "frequencyHertz"] as const),
  ...(["senseVolts", "airflow", "pitchMetres", "sizeMetres"] as const),
  ...(["channel", "package", "tab", "speed", "size", "safetyClass", "fusible", "pinout", "connector"] as const),
] as const;
export type RatingName = (typeof ratingNames)[number];

type Flags = { readonly isHard?: boolean };
const rating = (
  name: RatingName,
  unit: Unit | null,
  rule: RatingRule,
  { isHard = false }: Flags = {},
): ComponentRating => ({
  ...rule,
  ...{ name, unit, isHard },
});
const least = (ratio = 1): RatingRule => ({ rule: "at_least", ratio });
const most = (ratio = 1): RatingRule => ({ rule: "at_most", ratio });
const within = (low: number, high: number): RatingRule => ({ rule: "within", low, high });
const same: RatingRule = { rule: "same_word" };
const hard = { isHard: true } as const;
/** A cent of a rating is not told apart by any meter. */
const equal = within(0.99, 1.01);

/**
 * What of each kind has to match, old against new. Rough where a ratio stands: how much more gate charge a driver bears, how far a
 * thermistor may differ. The sheet of the old part decides; where it is not known, nothing can be said of that rating.
 */
export const componentRatings: Readonly<Record<ComponentKind, readonly ComponentRating[]>> = {
  transistor: [
    rating("channel", null, same, hard),
    rating("ratedVolts", "V", least(), hard),
    rating("ratedAmps", "A", least()),
    rating("onOhms", "Ω", most()),
    // The driver has to charge it in the same time.
    rating("gateChargeCoulombs", "", most(1.2)),
    rating("recoverySeconds", "s", most()),
    rating("package", null, same),
    // A bare tab where an insulated one stood puts the drain onto the sink.
    rating("tab", null, { rule: "not_weaker", order: ["bare", "insulated"] }, hard),
  ],
  diode: [
    rating("ratedVolts", "V", least(), hard),
    rating("ratedAmps", "A", least()),
    rating("recoverySeconds", "s", most()),
    rating("surgeAmps", "A", least()),
    rating("package", null, same),
  ],
  bridge: [
    rating("ratedVolts", "V", least(), hard),
    rating("ratedAmps", "A", least()),
    rating("surgeAmps", "A", least()),
    rating("pinout", null, same, hard),
  ],
  rectifier: [
    rating("ratedVolts", "V", least(), hard),
    rating("ratedAmps", "A", least()),
    rating("forwardVolts", "V", most()),
    rating("pinout", null, same, hard),
    rating("package", null, same),
  ],
  fuse: [
    rating("ratedAmps", "A", equal, hard),
    rating("speed", null, same, hard),
    rating("breakingAmps", "A", least(), hard),
    rating("ratedVolts", "V", least(), hard),
    rating("size", null, same),
  ],
  ntc: [
    rating("coldOhms", "Ω", within(0.8, 1.5)),
    rating("steadyAmps", "A", least()),
    rating("joules", "J", least()),
    rating("sizeMetres", "mm", within(0.7, 1.3)),
  ],
  varistor: [
    rating("ratedVolts", "V", within(1, 1.1), hard),
    rating("surgeAmps", "A", least()),
    rating("joules", "J", least()),
    rating("sizeMetres", "mm", within(0.9, 1.5)),
  ],
  shunt: [rating("ohms", "Ω", equal, hard), rating("watts", "W", least()), rating("toleranceRatio", "%", most())],
  fusible_resistor: [
    rating("ohms", "Ω", within(0.95, 1.05), hard),
    // A stronger one does not open when it should.
    rating("watts", "W", equal, hard),
    rating("fusible", null, same, hard),
  ],
  x_capacitor: [
    rating("safetyClass", null, { rule: "not_weaker", order: ["X3", "X2", "X1"] }, hard),
    rating("capacitanceFarads", "F", within(0.9, 1.1)),
    rating("ratedVolts", "V", least(), hard),
    rating("pitchMetres", "mm", equal),
  ],
  y_capacitor: [
    rating("safetyClass", null, { rule: "not_weaker", order: ["Y4", "Y3", "Y2", "Y1"] }, hard),
    // More of it lets more current touch.
    rating("capacitanceFarads", "F", most(), hard),
    rating("ratedVolts", "V", least(), hard),
    rating("pitchMetres", "mm", equal),
  ],
  optocoupler: [
    rating("isolationVolts", "V", least(), hard),
    rating("creepageMetres", "mm", least(), hard),
    rating("transferRatioMin", "%", least()),
    rating("transferRatioMax", "%", most(1.5)),
    rating("pinout", null, same, hard),
  ],
  regulator: [
    rating("outputVolts", "V", equal, hard),
    rating("ratedAmps", "A", least()),
    rating("dropoutVolts", "V", most()),
    rating("pinout", null, same, hard),
  ],
  control_ic: [
    rating("pinout", null, same, hard),
    rating("startVolts", "V", within(0.95, 1.05)),
    rating("stopVolts", "V", within(0.95, 1.05)),
    rating("frequencyHertz", "Hz", within(0.9, 1.1)),
    rating("senseVolts", "V", within(0.95, 1.05)),
  ],
  fan: [
    rating("ratedVolts", "V", equal, hard),
    rating("sizeMetres", "mm", equal),
    rating("airflow", "", least()),
    rating("ratedAmps", "A", most(1.2)),
    rating("connector", null, same),
  ],
};

/** What a place of the board can hold, the usual one first; none where nothing of it is compared. */
export function componentKindsOf(kind: PartKind): readonly ComponentKind[] {
  return kindsOfPart[kind] ?? [];
}

const kindsOfPart: Readonly<Partial<Record<PartKind, readonly ComponentKind[]>>> = {
  film: ["x_capacitor", "y_capacitor"],
  fuse: ["fuse"],
  varistor: ["varistor"],
  ntc: ["ntc"],
  bridge: ["bridge"],
  diode: ["diode", "rectifier"],
  transistor: ["transistor"],
  ic: ["control_ic", "regulator"],
  optocoupler: ["optocoupler"],
  resistor: ["shunt", "fusible_resistor"],
  regulator: ["regulator"],
  fan: ["fan"],
};
