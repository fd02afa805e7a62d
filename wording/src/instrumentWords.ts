import type { InstrumentFunction, InstrumentKind, InstrumentStatus } from "@pale-cap/contract";
import type { Unit } from "@pale-cap/core";

export const statusWords: Readonly<Record<InstrumentStatus, string>> = {
  elsewhere: "spoken to by another server process",
  connecting: "being reached",
  ready: "ready",
  slow: "does not answer in time",
  garbled: "answers nonsense",
  implausible: "says what cannot be",
  missing: "not there",
  off: "switched off",
};

export const kindLabels: Readonly<Record<InstrumentKind, string>> = {
  lcr: "ESR or LCR meter",
  multimeter: "multimeter",
  oscilloscope: "oscilloscope",
  load: "electronic load",
  thermometer: "thermometer",
  mains: "mains source",
};

export const functionFacts: Readonly<Record<InstrumentFunction, { readonly label: string; readonly unit: Unit }>> = {
  ESR: { label: "ESR", unit: "Ω" },
  CAP: { label: "C", unit: "F" },
  DISS: { label: "D", unit: "" },
  VLOS: { label: "Charge loss", unit: "%" },
  DCV: { label: "DC volts", unit: "V" },
  ACV: { label: "AC volts", unit: "V" },
  OHMS: { label: "Ohms", unit: "Ω" },
  DIOD: { label: "Diode", unit: "V" },
  CONT: { label: "Continuity", unit: "Ω" },
  COUP: { label: "Optocoupler", unit: "Ω" },
  LEAK: { label: "Leakage", unit: "A" },
  PKPK: { label: "Peak to peak", unit: "V" },
  FREQ: { label: "Frequency", unit: "Hz" },
  STAR: { label: "Mains to rails up", unit: "s" },
  HOLD: { label: "Hold-up", unit: "s" },
  VOLT: { label: "Volts", unit: "V" },
  CURR: { label: "Amperes", unit: "A" },
  POW: { label: "Watts", unit: "W" },
  TEMP: { label: "Temperature", unit: "°C" },
};
