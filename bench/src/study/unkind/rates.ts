/**
 * What an unkind bench does to a record, and how often: every rate of the unkind study in one place. Rough, from no count;
 * an unkind guess rather than a kind one.
 */
export const rates = {
  /** Shares of banks and parts that have gone, by how they went. */
  modes: {
    /** A whole bank of a bad batch, swollen and dry. */
    batchBank: 0.06,
    dry: 0.07,
    heat: 0.025,
    tab: 0.014,
    leak: 0.016,
    open: 0.006,
    short: 0.004,
    /** On the way, between new and gone: left out of what is found and of what is condemned. */
    ageing: 0.14,
  },
  /** Domed: of dry ones, of hot ones, of sound ones. */
  domed: { batch: 0.8, dry: 0.3, heat: 0.35, sound: 0.003 },
  /** Standard deviations of the logarithm of a series' new ESR against the trade's table, and of a part within it. */
  seriesSpread: 0.27,
  partSpread: 0.08,
  /** What was typed in. */
  entry: { wrongClass: 0.08, noClass: 0.17, wrongSize: 0.04, noSize: 0.06, wrongValue: 0.015 },
  bench: {
    /** Boards whose leads nobody zeroed, and what they add. */
    leadsNotZeroed: 0.2,
    leadOhms: [0.03, 0.15],
    slip: 0.004,
    oneKilohertz: 0.13,
    tenKilohertz: 0.1,
    /** Where C is read at a kilohertz, not at 120 Hz. */
    capacitanceAtOneKilohertz: 0.25,
    celsius: [6, 32],
    temperatureRecorded: 0.65,
    esrNoiseRatio: 0.03,
    capacitanceNoiseRatio: 0.02,
    /** Mean of what a probe's tip adds. */
    contactOhms: 0.004,
  },
  board: {
    /** A post filter has a choke; how often it was entered. */
    chokeDrawn: 0.55,
    chokeHenrys: [1e-6, 22e-6],
    /** Ceramic capacitors on an output that nobody entered. */
    ceramics: 0.3,
    ceramicFarads: [5e-6, 40e-6],
  },
} as const;

/** The same bench with nothing wrong on it: all entered right, leads zeroed, no slips, no leaks, opens or ageing parts. */
export const undisturbed: Rates = {
  ...rates,
  modes: { ...rates.modes, leak: 0, open: 0, ageing: 0 },
  entry: { wrongClass: 0, noClass: 0, wrongSize: 0, noSize: 0, wrongValue: 0 },
  bench: { ...rates.bench, leadsNotZeroed: 0, slip: 0, temperatureRecorded: 1 },
  board: { ...rates.board, chokeDrawn: 1, ceramics: 0 },
};

type Widened<T> = {
  readonly [K in keyof T]: T[K] extends number
    ? number
    : T[K] extends readonly [number, number]
      ? readonly [number, number]
      : Widened<T[K]>;
};
export type Rates = Widened<typeof rates>;
