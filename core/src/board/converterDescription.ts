/** How current comes into a rail's first capacitors. */
export const outputConverters = [
  "flyback_discontinuous",
  "flyback_continuous",
  "forward",
  "half_bridge",
  "buck",
] as const;
export type OutputConverter = (typeof outputConverters)[number];

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
});
