import type { QuantityKind } from "../readings/reading";
import type { PartKind } from "./board";

/** One standard test of a part that is no capacitor, on a cold board. */
export interface DeviceTest {
  readonly code: DeviceTestCode;
  /** Red first, as the bench names the pins. */
  readonly terminals: string;
  readonly quantity: QuantityKind;
  /** The band of a sound part; null where it must read open. */
  readonly band: { readonly low: number; readonly high: number } | null;
  /** Under power, at the part's own pins: never proposed, and a live reading like any other. */
  readonly isLive?: boolean;
  /** Only some parts have these pins, or only some shops the tester: missing, it leaves nothing open. */
  readonly isOptional?: boolean;
}

export type DeviceTestCode =
  | "fuse_through"
  | "ntc_cold"
  | "ptc_cold"
  | "relay_coil"
  | "relay_contact"
  | "film_insulated"
  | "varistor_open"
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
  | "coupler_switches"
  | "winding_rings"
  | "fan_turns"
  | "regulator_out"
  | "supply_least"
  | "supply_most";

const live = { quantity: "dc_voltage", isLive: true } as const;
/** Where the supply of a running control chip usually lies; its own sheet knows better. */
const controlSupply = { low: 8, high: 24 } as const;
const forward = { low: 0.1, high: 0.8 } as const;

/**
 * The tests that a bench does on each kind of part, in circuit, without power. Bands are those of usual silicon at a
 * meter's one milliampere; rough. A capacitor that charges looks like conduction for a moment: wait until it stands.
 */
export const deviceTests: Readonly<Partial<Record<PartKind, readonly DeviceTest[]>>> = {
  fuse: [{ code: "fuse_through", terminals: "1,2", quantity: "resistance", band: { low: 0, high: 12 } }],
  "thermal-fuse": [{ code: "fuse_through", terminals: "1,2", quantity: "resistance", band: { low: 0, high: 2 } }],
  ptc: [{ code: "ptc_cold", terminals: "1,2", quantity: "resistance", band: { low: 0.1, high: 500 } }],
  relay: [
    { code: "relay_coil", terminals: "coil", quantity: "resistance", band: { low: 20, high: 20e3 } },
    // Across a thermistor it reads that: only a welded contact reads next to nothing.
    { code: "relay_contact", terminals: "contact", quantity: "resistance", band: { low: 1e3, high: 200e6 } },
  ],
  film: [{ code: "film_insulated", terminals: "1,2", quantity: "resistance", band: { low: 1e3, high: 200e6 } }],
  varistor: [{ code: "varistor_open", terminals: "1,2", quantity: "resistance", band: { low: 200e3, high: 200e6 } }],
  zener: [
    { code: "junction_forward", terminals: "A,K", quantity: "diode_drop", band: { low: 0.35, high: 0.9 } },
    { code: "junction_backward", terminals: "K,A", quantity: "diode_drop", band: null },
  ],
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
    { code: "junction_forward", terminals: "A2,K", quantity: "diode_drop", band: forward, isOptional: true },
    { code: "junction_backward", terminals: "K,A2", quantity: "diode_drop", band: null, isOptional: true },
  ],
  transistor: [
    { code: "channel_off", terminals: "D,S", quantity: "resistance", band: { low: 10e3, high: 200e6 } },
    { code: "gate_insulated", terminals: "G,S", quantity: "resistance", band: { low: 1e3, high: 200e6 } },
    { code: "drain_gate_insulated", terminals: "D,G", quantity: "resistance", band: { low: 10e3, high: 200e6 } },
  ],
  resistor: [{ code: "resistor_value", terminals: "1,2", quantity: "resistance", band: null }],
  ic: [
    { code: "supply_not_shorted", terminals: "VCC,GND", quantity: "resistance", band: { low: 500, high: 200e6 } },
    { ...live, code: "supply_least", terminals: "VCC,GND least", band: controlSupply },
    { ...live, code: "supply_most", terminals: "VCC,GND most", band: controlSupply },
  ],
  optocoupler: [
    { code: "coupler_lamp", terminals: "A,K", quantity: "diode_drop", band: { low: 0.45, high: 1.4 } },
    {
      code: "coupler_switches",
      terminals: "C,E",
      quantity: "resistance",
      band: { low: 0, high: 5000 },
      isOptional: true,
    },
  ],
  transformer: [
    { code: "winding_through", terminals: "1,2", quantity: "resistance", band: { low: 0.01, high: 20 } },
    { code: "winding_rings", terminals: "rings", quantity: "tester_band", band: null, isOptional: true },
  ],
  choke: [{ code: "winding_through", terminals: "1,2", quantity: "resistance", band: { low: 0, high: 2 } }],
  fan: [{ code: "fan_turns", terminals: "", quantity: "observation", band: null }],
  regulator: [
    { code: "regulator_out", terminals: "OUT,GND", quantity: "resistance", band: { low: 50, high: 200e6 } },
    { ...live, code: "supply_least", terminals: "OUT,GND least", band: null },
    { ...live, code: "supply_most", terminals: "OUT,GND most", band: null },
  ],
};

/** The test of a kind between these pins; undefined where none is usual. */
export function deviceTestOf(kind: PartKind, terminals: string | null): DeviceTest | undefined {
  const tests = deviceTests[kind] ?? [];
  return terminals === null ? tests[0] : tests.find((one) => one.terminals === terminals);
}
