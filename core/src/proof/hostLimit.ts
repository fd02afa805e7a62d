/** Above this share of its volts a rail may kill what hangs on it: below it the host is let near. Logic's own limits. Usual. */
const [hostRatio, lowRailVolts] = [1.1, [[3.3, 3.6] as const, [5, 5.5] as const]] as const;

/** The most volts of a rail at which its host may be connected. */
export function hostLimitVolts(nominalVolts: number): number {
  const nominal = Math.abs(nominalVolts);
  const named = lowRailVolts.find(([volts]) => Math.abs(nominal - volts) < 0.05);
  return named ? named[1] : hostRatio * nominal;
}
