/** How current comes into a rail's first capacitors. */
export const outputConverters = [
  "flyback_discontinuous",
  "flyback_continuous",
  "flyback_quasi_resonant",
  "forward",
  "half_bridge",
  "push_pull",
  "resonant",
  "buck",
  "boost",
  "linear",
] as const;
export type OutputConverter = (typeof outputConverters)[number];

/** Converters whose current into the output comes in pulses with edges of their own. */
export const hasPulses = (kind: OutputConverter): boolean => kind.startsWith("flyback") || kind === "boost";

/** Both halves of the period feed the output: its ripple has twice the frequency of the switches. */
export const isFullWave = (kind: OutputConverter): boolean =>
  kind === "half_bridge" || kind === "push_pull" || kind === "resonant";

/** What a bench knows of the converter behind a rail; null where nobody knows. */
export interface ConverterDescription {
  readonly kind: OutputConverter;
  readonly switchingHertz: number | null;
  /** Share of the period: the switch conducts (continuous flyback, buck, forward), or the secondary current falls. */
  readonly dutyRatio: number | null;
  /** Swing of the current over its mean while it flows; a discontinuous flyback has none of its own. */
  readonly rippleRatio: number | null;
  readonly inductanceHenrys: number | null;
  /** At the choke: input of a buck, secondary of a forward or half bridge. */
  readonly inputVolts: number | null;
  /** Edges of the secondary current. */
  readonly riseSeconds: number | null;
  /** Capacitance on the load itself, mostly ceramic; null: none that is known. */
  readonly loadFarads: number | null;
  /** The rail of this unit that it draws from, as a regulator does; null or absent: the transformer, or nobody said. */
  readonly fedFromNetId?: string | null | undefined;
  /** The regulation takes its measure here; false: it follows another output. Null or absent: nobody said. */
  readonly isSensed?: boolean | null | undefined;
}

export const unknownConverter = (kind: OutputConverter): ConverterDescription => ({
  kind,
  switchingHertz: null,
  dutyRatio: null,
  rippleRatio: null,
  inductanceHenrys: null,
  inputVolts: null,
  riseSeconds: null,
  loadFarads: null,
  fedFromNetId: null,
  isSensed: null,
});
