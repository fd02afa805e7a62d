import type { DeviceTrap } from "@pale-cap/core";

/** What can mislead in a test of a part that is no capacitor. */
export const deviceTrapWords: Readonly<Record<DeviceTrap, string>> = {
  fuse_clears_nothing: "An intact fuse clears nothing behind it: an open shunt can have saved it.",
  charging_capacitor:
    "Neither open nor short: a capacitor that charges, or a winding beside it. Wait, or lift one end.",
  short_may_be_parallel:
    "Its twin on the same net may be the shorted one: lift one of the two before either is condemned.",
  needs_least_and_most: "Least and most together: a mean, or one of them alone, hides pulses.",
  needs_marking: "Without its marking, or the rail's volts, there is nothing to hold this against.",
  across_points_downstream: "Not open across: with four good diodes the short lies behind the bridge.",
  pulses: "Least far below most: the supply pulses. Its capacitor, its load, or it never takes over.",
};
