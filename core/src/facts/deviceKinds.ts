/** What comes across the counter. */
export const deviceKinds = [
  "monitor",
  "television",
  "console",
  "adapter",
  "computer-supply",
  "small-appliance",
  "instrument",
  "other",
] as const;
export type DeviceKind = (typeof deviceKinds)[number];
