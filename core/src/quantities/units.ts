/** Units in which the application stores and shows. Lengths are typed in millimetres and stored in metres; "" is a plain number. */
export type Unit = "F" | "Ω" | "V" | "A" | "Hz" | "W" | "J" | "s" | "h" | "H" | "°C" | "K" | "mm" | "%" | "";

interface UnitFacts {
  /** Spellings accepted behind a number, longest first. */
  readonly spellings: readonly string[];
  readonly takesPrefix: boolean;
  /** Decimal exponent from the unit as typed to the stored SI value. */
  readonly storedExponent: number;
}

export const unitFacts: Readonly<Record<Unit, UnitFacts>> = {
  F: { spellings: ["farad", "F", "f"], takesPrefix: true, storedExponent: 0 },
  Ω: { spellings: ["ohms", "ohm", "Ω", "Ω", "R", "r"], takesPrefix: true, storedExponent: 0 },
  V: { spellings: ["volts", "volt", "V", "v"], takesPrefix: true, storedExponent: 0 },
  A: { spellings: ["A", "a"], takesPrefix: true, storedExponent: 0 },
  Hz: { spellings: ["Hz", "hz", "HZ"], takesPrefix: true, storedExponent: 0 },
  W: { spellings: ["W", "w"], takesPrefix: true, storedExponent: 0 },
  J: { spellings: ["J", "j"], takesPrefix: true, storedExponent: 0 },
  s: { spellings: ["s", "S"], takesPrefix: true, storedExponent: 0 },
  h: { spellings: ["h", "H"], takesPrefix: false, storedExponent: 0 },
  H: { spellings: ["H", "h"], takesPrefix: true, storedExponent: 0 },
  "°C": { spellings: ["°C", "°c", "C", "c", "°"], takesPrefix: false, storedExponent: 0 },
  K: { spellings: ["K"], takesPrefix: false, storedExponent: 0 },
  mm: { spellings: ["mm", "MM"], takesPrefix: false, storedExponent: -3 },
  "%": { spellings: ["%"], takesPrefix: false, storedExponent: -2 },
  "": { spellings: [], takesPrefix: false, storedExponent: 0 },
};
