import {
  type CoarseCode,
  type DeviceTestCode,
  type ExpectationBasis,
  type ExpectedReading,
  formatQuantity,
  type LowEnergyTest,
  type ProbeCaution,
  type ProbeInstrument,
  type UnitSlip,
} from "@pale-cap/core";

const basisWords: Readonly<Record<ExpectationBasis, string>> = {
  new_alone: "new, alone",
  bank_in_circuit: "new, the bank together",
  rail_limits: "rail limits",
  rail_ripple: "rail limit",
  drained: "drained",
  marking: "as marked",
  no_leakage: "no leakage",
  leakage_limit: "catalogue limit, re-formed",
  loss_limit: "new, alone",
  device_test: "a sound part",
  temperature_class: "25 K under its class",
};

export function expectationWords({ basis, partCount }: ExpectedReading): string {
  return basis === "bank_in_circuit" ? `${partCount} new ones` : basisWords[basis];
}

export const coarseLabels: Readonly<Record<CoarseCode, string>> = {
  band_good: "green, good",
  band_doubtful: "yellow, doubtful",
  band_poor: "orange, poor",
  band_bad: "red, bad",
  leaky_or_in_circuit: "leaky or in circuit",
  no_reading: "no reading",
  smell: "smells burnt",
  whine: "whines",
  tick: "ticks",
  hiss: "hisses",
  fizzes_at_switch_off: "fizzes as it is switched off",
  silent: "silent",
  boots: "the device boots",
  picture: "a picture is there",
  hot: "hot to the touch",
  warm: "warm",
  cold: "stays cold",
  turns_hard: "turns hard or not",
  turns_freely: "turns freely",
  other: "other, with a note",
  over_range: "open",
};

/** Each test: what it is called, how to do it, and what a sound part shows. */
export const testWords: Readonly<
  Record<DeviceTestCode | LowEnergyTest, { readonly name: string; readonly how: string }>
> = {
  supply_least: {
    name: "least under power",
    how: "The meter's least value over some seconds: an average hides pulses. Least and most together, or nothing is said.",
  },
  supply_most: {
    name: "most under power",
    how: "The meter's most over the same seconds. Hot ground on the mains side: black clip first, one hand.",
  },
  coupler_switches: {
    name: "switches",
    how: "Some milliamperes through the lamp from the tester: collector to emitter falls below a few kilohms.",
  },
  winding_rings: {
    name: "rings",
    how: "A ring tester on the winding, its other windings open: a shorted turn rings short.",
  },
  fuse_through: { name: "through", how: "Under an ohm or two. An intact fuse does not clear the transistor." },
  varistor_open: { name: "across it", how: "Open, or many kiloohms: a few ohms and it took the fuse along." },
  ptc_cold: { name: "cold", how: "Some ohms, cold; far more once it is warm." },
  relay_coil: { name: "coil", how: "Some hundred ohms to some kiloohms: open, it never pulls in." },
  relay_contact: {
    name: "contact at rest",
    how: "As much as lies beside it, mostly the thermistor: next to nothing is a welded contact.",
  },
  film_insulated: { name: "across it", how: "Open once it is charged; low: one lead up, a neighbour may read low." },
  ntc_cold: { name: "cold", how: "A few ohms, cold; it falls as it warms." },
  junction_forward: {
    name: "forward",
    how: "One junction. A charging capacitor looks like conduction: wait until it stands.",
  },
  junction_backward: { name: "backward", how: "Open. A low value points to the part or to what lies behind it." },
  bridge_across: {
    name: "across",
    how: "Open in this direction. Shorted here with four good diodes: look downstream.",
  },
  channel_off: { name: "channel off", how: "High. Touch gate to source first: a charged gate keeps it on." },
  gate_insulated: { name: "gate to source", how: "Its resistor or more, never ohms." },
  drain_gate_insulated: { name: "drain to gate", how: "High. Of two in parallel lift one to test the other." },
  resistor_value: { name: "value", how: "As its rings say. A sense resistor that is open can have saved the fuse." },
  supply_not_shorted: { name: "supply pins", how: "Not a few ohms: a shorted control IC shows here." },
  coupler_lamp: {
    name: "lamp side",
    how: "About a volt. Its other side wants several milliamperes; a meter's one gives a false bad.",
  },
  winding_through: { name: "winding", how: "Milliohms to a few ohms, and no change when the board is bent." },
  fan_turns: { name: "turns freely", how: "By a finger, cold. A stuck fan has aged everything around it." },
  regulator_out: { name: "output", how: "Not a short. Under power it keeps a least AND a most." },
  vcc_start: {
    name: "Feed Vcc from outside",
    how: "Limited to 30 mA, raised slowly: note the volts at which the current jumps. Most control ICs start between 8 and 22 V: stop at 20 V unless its sheet allows more, and never with the mains connected.",
  },
  vcc_current: {
    name: "Current into Vcc",
    how: "After the start: some milliamperes. Tens of them before it: a short in the IC.",
  },
  gate_waveform: {
    name: "Gate waveform",
    how: "Scope at the gate against hot ground while Vcc is fed: clean pulses, steady.",
  },
  bulk_limited: {
    name: "Limited DC on the bulk",
    how: "30 to 60 V, limited to 100 mA, with Vcc fed: the rails try to come up in proportion. No current may flow without the gate. A chip with a brown-out pin stays silent below about 80 V: no fault. Secondary and drain can still reach hundreds of volts.",
  },
  rail_injection: {
    name: "Inject into a shorted rail",
    how: "Under 1 V, limited to 1 to 3 A, host unplugged: enough to warm what is shorted, too little for junctions.",
  },
  rail_warm_spot: {
    name: "What warms up",
    how: "With a thermal spot or a drop of alcohol: the first warm part is the short.",
  },
};

export const instrumentWords: Readonly<Record<ProbeInstrument, string>> = {
  lcr: "ESR or LCR meter, leads zeroed",
  multimeter: "multimeter",
  oscilloscope: "scope, AC coupled, 20 MHz limit, short ground",
  thermometer: "thermal spot",
  bench_supply: "bench supply with current limit",
  senses: "by hand, ear and nose",
};

export const probeCautionWords: Readonly<Record<ProbeCaution, string>> = {
  volts_first: "DC volts first.",
  live_hot_ground:
    "Live, mains potential, only if you are qualified for it: CAT II 300 V or better, range first, red last on and first off, one hand. The clip of an earthed scope there is a dead short: differential probe.",
  live_cold_ground: "Live: black to the cold ground.",
  two_channels: "Two scope channels never straddle the barrier.",
  scope_earth: "A scope's earth is never lifted.",
  limited_energy: "Plug out, bulk verified. The limit is set before the lead goes on.",
};

/** A number that may have slipped by a thousand: one key each way. */
export function slipWords({ value, other }: UnitSlip): string {
  const [as, or] = [value, other].map((one) => formatQuantity(one, "Ω", { significantDigits: 4 }).text);
  return `${as} or ${or}? Enter keeps ${as}, ${other > value ? "↑" : "↓"} makes it ${or}.`;
}
