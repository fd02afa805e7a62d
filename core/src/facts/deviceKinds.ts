/** What comes across the counter. */
export const deviceKinds = [
  "monitor",
  "television",
  "console",
  "adapter",
  "computer-supply",
  "small-appliance",
  "instrument",
  "industrial",
  "other",
] as const;
export type DeviceKind = (typeof deviceKinds)[number];

/** Kinds with a backlight: lamps or strings at dangerous volts on the output side. */
export const hasBacklight = (kind: DeviceKind): boolean => kind === "monitor" || kind === "television";
