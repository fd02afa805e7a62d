import type { CapacitorClass } from "@pale-cap/core";

/** What is printed on a part: from its value to its class. */
export type UsualKind = readonly [
  microfarads: number,
  volts: number,
  diameter: number,
  height: number,
  capacitorClass: CapacitorClass,
];

/** New ESR at 100 kHz as usual series have it: by the can's side area, its class, and by loss where volts are high. */
export function usualOhms([microfarads, volts, diameter, height, capacitorClass]: UsualKind): number {
  if (volts >= 160) return (0.2 * 0.12) / (2 * Math.PI * 120 * microfarads * 1e-6);
  const small = diameter <= 5 ? 2.1 : 1;
  const byVolts = volts > 35 ? 1.4 : 1;
  const byClass = { gp: 2.4, lowz: 1, ultra: 0.5, polymer: 0.3, hybrid: 0.4 }[capacitorClass];
  return 0.031 * (200 / (diameter * height)) ** 1.15 * small * byVolts * byClass;
}

/** Dissipation factor at 120 Hz of usual new parts: about half of what sheets allow at their volts. */
export function usualLoss([microfarads, volts, , , capacitorClass]: UsualKind): number {
  const rows = [
    [6.3, 0.22],
    [10, 0.19],
    [16, 0.16],
    [25, 0.14],
    [35, 0.12],
    [100, 0.1],
    [500, 0.2],
  ] as const;
  const allowed = (rows.find(([most]) => volts <= most) ?? rows[6])[1] + 0.02 * Math.max(microfarads / 1000 - 1, 0);
  return 0.5 * allowed * (capacitorClass === "gp" ? 1.3 : 1);
}
