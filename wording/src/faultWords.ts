import type { Stage } from "@pale-cap/core";

export const stageLabels: Readonly<Record<Stage, string>> = {
  input: "inlet, fuse, thermistor",
  bridge: "bridge",
  pfc: "PFC stage",
  bulk: "bulk capacitor",
  "primary-switch": "switching transistor and shunt",
  "control-supply": "control IC and its Vcc capacitor",
  standby: "standby supply",
  "output-rectifier": "output rectifier",
  "output-capacitors": "output capacitors",
  feedback: "feedback and reference",
  load: "the load, not the supply",
};

const checkTexts: Readonly<Record<string, string>> = {
  lead_and_fuse: "Lead, plug fuse, rear switch, then the board's fuse: continuity, unplugged.",
  swap_or_bench_feed: "Is it the supply at all? Swap in a known-good one or feed the load from a bench supply.",
  look_for_domes: "Look for domed tops, open vents, crust and lifted bases.",
  shorts_on_primary: "Drained and verified: bridge diode by diode, transistor three ways, PFC parts, for shorts.",
  esr_output: "ESR of the output capacitors, bank by bank.",
  esr_control_supply: "ESR of the Vcc and standby capacitors, cold.",
  rectifier_diode_test: "Output rectifiers, both halves, diode test.",
  bulk_capacitance: "Bulk out of circuit: C, ESR and voltage loss, after DC volts read low.",
  feedback_parts: "Optocoupler, reference and feedback capacitor; leave the load unplugged.",
  bulk_voltage: "Bulk voltage live, only if qualified: insulated probe, black to the hot ground.",
};

export const firstCheckWords = (code: string): string => checkTexts[code] ?? code;
