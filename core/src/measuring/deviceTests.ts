import type { PartKind } from "../board/board";
import type { QuantityKind } from "../readings/reading";

/** One standard test of a part that is no capacitor, on a cold board. */
export interface DeviceTest {
  readonly code: DeviceTestCode;
  /** Red first, as the bench names the pins. */
  readonly terminals: string;
  readonly quantity: QuantityKind;
  /** The band of a sound part; null where it must read open. */
  readonly band: { readonly low: number; readonly high: number } | null;
}

export type DeviceTestCode =
  | "fuse_through"
  | "ntc_cold"
  | "junction_forward"
  | "junction_backward"
  | "bridge_across"
  | "channel_off"
  | "gate_insulated"
  | "drain_gate_insulated"
  | "resistor_value"
  | "supply_not_shorted"
  | "coupler_lamp"
  | "winding_through"
  | "fan_turns"
  | "regulator_out";

const forward = { low: 0.1, high: 0.8 } as const;

/**
 * The tests that a bench does on each kind of part, in circuit, without power. Bands are those of usual silicon at a
 * meter's one milliampere; rough. A capacitor that charges looks like conduction for a moment: wait until it stands.
 */
export const deviceTests: Readonly<Partial<Record<PartKind, readonly DeviceTest[]>>> = {
  fuse: [{ code: "fuse_through", terminals: "1,2", quantity: "resistance", band: { low: 0, high: 2 } }],
  ntc: [{ code: "ntc_cold", terminals: "1,2", quantity: "resistance", band: { low: 1, high: 50 } }],
  bridge: [
    { code: "junction_forward", terminals: "L,+", quantity: "diode_drop", band: { low: 0.35, high: 0.8 } },
    { code: "junction_forward", terminals: "N,+", quantity: "diode_drop", band: { low: 0.35, high: 0.8 } },
    { code: "junction_forward", terminals: "-,L", quantity: "diode_drop", band: { low: 0.35, high: 0.8 } },
    { code: "junction_forward", terminals: "-,N", quantity: "diode_drop", band: { low: 0.35, high: 0.8 } },
    { code: "bridge_across", terminals: "+,-", quantity: "diode_drop", band: null },
  ],
  diode: [
    { code: "junction_forward", terminals: "A,K", quantity: "diode_drop", band: forward },
    { code: "junction_backward", terminals: "K,A", quantity: "diode_drop", band: null },
  ],
  transistor: [
    { code: "channel_off", terminals: "D,S", quantity: "resistance", band: { low: 10e3, high: 200e6 } },
    { code: "gate_insulated", terminals: "G,S", quantity: "resistance", band: { low: 1e3, high: 200e6 } },
    { code: "drain_gate_insulated", terminals: "D,G", quantity: "resistance", band: { low: 10e3, high: 200e6 } },
  ],
  resistor: [{ code: "resistor_value", terminals: "1,2", quantity: "resistance", band: null }],
  ic: [{ code: "supply_not_shorted", terminals: "VCC,GND", quantity: "resistance", band: { low: 500, high: 200e6 } }],
  optocoupler: [{ code: "coupler_lamp", terminals: "A,K", quantity: "diode_drop", band: { low: 0.9, high: 1.4 } }],
  transformer: [{ code: "winding_through", terminals: "1,2", quantity: "resistance", band: { low: 0.01, high: 20 } }],
  choke: [{ code: "winding_through", terminals: "1,2", quantity: "resistance", band: { low: 0, high: 2 } }],
  fan: [{ code: "fan_turns", terminals: "", quantity: "observation", band: null }],
  regulator: [{ code: "regulator_out", terminals: "OUT,GND", quantity: "resistance", band: { low: 50, high: 200e6 } }],
};

/** The test of a kind between these pins; undefined where none is usual. */
export function deviceTestOf(kind: PartKind, terminals: string | null): DeviceTest | undefined {
  const tests = deviceTests[kind] ?? [];
  return terminals === null ? tests[0] : tests.find((one) => one.terminals === terminals);
}
