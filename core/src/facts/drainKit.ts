/** Something of the shop's own to drain with: `count` equal bodies in series. */
export interface DrainKitItem {
  readonly name: string;
  readonly kind: "resistor" | "lamp";
  readonly count: number;
  /** Of one resistor; null for a lamp. */
  readonly ohms: number | null;
  /** Rating of one body. */
  readonly watts: number;
  readonly volts: number;
}
