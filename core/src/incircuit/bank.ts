/** A capacitor of a bank as the impedance of the bank sees it. */
export interface BankCapacitor {
  readonly capacitanceFarads: number;
  readonly esrOhms: number;
  readonly eslHenrys?: number;
  /** Behind the choke rather than at the probe. */
  readonly isBehindChoke?: boolean;
  /** Measured by itself: its values are what it is, and no other state of it is thought of. */
  readonly isKnown?: boolean;
}

/** What else hangs on the probe: a parallel load, a choke to a second bank, the leads. */
export interface BankNetwork {
  readonly parallelOhms?: number | null;
  readonly chokeHenrys?: number | null;
  readonly chokeOhms?: number;
  readonly leadOhms?: number;
}
