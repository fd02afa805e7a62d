import type { CascadeCheck, Explanation, JobExplanation } from "@pale-cap/core";
import { symptomLabels } from "@pale-cap/core";
import { listWords } from "./boardWords";

/** Every fault of the model: what it is called, and how it is looked for. */
const faults: Readonly<Record<string, readonly [name: string, test: string]>> = {
  lead_or_inlet_open: ["lead, plug fuse, switch or inlet open", "Continuity from the plug to the fuse, unplugged."],
  fuse_open_alone: ["the fuse is open", "Through the fuse: under two ohms. Find the short before a new one goes in."],
  inrush_limiter_open: ["the inrush thermistor is open", "A few ohms cold; open after a hard short."],
  joint_cracked: [
    "a cracked joint",
    "Look with a lens at heavy parts and connectors; reheat, and test while bending lightly.",
  ],
  bridge_shorted: ["a bridge diode is shorted", "Diode by diode. Shorted with four good diodes points downstream."],
  bridge_diode_open: ["a bridge diode is open", "Diode by diode, forward: one reads open."],
  bulk_dried: ["the bulk capacitor has dried", "Out of circuit: C, ESR and voltage loss, after DC volts read low."],
  bulk_shorted: ["the bulk capacitor is shorted", "Ohms across it, one lead lifted, after DC volts read low."],
  control_capacitor_dried: [
    "the Vcc capacitor has dried",
    "Its ESR, cold. Under power a scope, not a meter: it pulses.",
  ],
  start_resistor_open: ["a start-up resistor is open", "Ohms against its rings, one end lifted if in doubt."],
  control_ic_faulty: ["the control IC is faulty", "Supply pins not a few ohms; feed Vcc from outside: does it start?"],
  feedback_capacitor_dried: ["a feedback capacitor has dried", "Its ESR and C out of circuit."],
  regulation_lost: [
    "regulation is lost: optocoupler, reference or divider",
    "Lamp side about a volt; the other side wants several milliamperes.",
  ],
  host_overvolted: ["the host was driven too high", "The host on a bench supply at its own volts; its clamps tested."],
  load_faulty: ["the load, not the supply", "Feed the load from a bench supply; run the supply into a dummy load."],
  overheated_inside: [
    "everything inside ran hot",
    "Fan by a finger, vents by eye; the other capacitors have lost life too.",
  ],
  output_capacitors_dried: [
    "output capacitors have dried",
    "ESR bank by bank; lift a lead where a neighbour could hide one.",
  ],
  post_filter_capacitors_dried: ["capacitors behind the choke have dried", "Their ESR, as a bank of its own."],
  rectifier_shorted: ["an output rectifier is shorted", "Both halves, diode test; before new capacitors go in."],
  rectifier_open: ["an output rectifier is open", "Forward, both halves."],
  switch_shorted: ["the switching transistor is shorted", "Three ways; of two in parallel lift one."],
  shunt_open: ["the current-sense resistor is open", "Fractions of an ohm. Open, it can have saved the fuse."],
  small_parts_gone: [
    "small parts around the gate are gone",
    "Gate resistor, its diode, zener: each against its marking.",
  ],
  standby_capacitor_dried: ["a capacitor of the standby supply has dried", "Its ESR, cold; hours on standby tell."],
  boost_bulk_dried: [
    "the bulk behind the boost stage has dried",
    "ESR and C of each, out of circuit; look at the vents.",
  ],
  boost_switch_shorted: ["the boost transistor is shorted", "Three ways, every paralleled one alone."],
  boost_shunt_open: ["the boost stage's shunt is open", "Fractions of an ohm; open after its transistor went."],
  regulator_faulty: ["a regulator is faulty", "Its output against ground for a short; under power least and most."],
  over_voltage: [
    "over-voltage at the host",
    "Host unplugged, dummy load: every rail below its upper limit; output clamps tested.",
  ],
};

const findings: Readonly<Record<string, string>> = {
  fuse_open: "fuse reads open",
  inrush_limiter_reads_open: "thermistor reads open",
  joint_seen_cracked: "a joint seen cracked",
  bridge_reads_shorted: "bridge reads shorted",
  bridge_reads_open: "a bridge diode reads open",
  bulk_never_charged: "no volts on the bulk",
  bulk_stays_full: "bulk stays at full volts",
  bulk_capacitor_bad: "bulk capacitor bad",
  boost_capacitor_bad: "boost bulk bad",
  control_capacitor_bad: "Vcc capacitor bad",
  standby_capacitor_bad: "standby capacitor bad",
  output_capacitor_bad: "output capacitor bad",
  post_capacitor_bad: "capacitor behind the choke bad",
  feedback_capacitor_bad: "feedback capacitor bad",
  control_supply_pulses: "Vcc pulses",
  control_supply_absent: "no Vcc",
  control_ic_reads_shorted: "control IC shorted at its supply pins",
  switch_reads_shorted: "switching transistor reads shorted",
  boost_switch_reads_shorted: "boost transistor reads shorted",
  shunt_reads_open: "shunt reads open",
  gate_parts_read_wrong: "gate parts read wrong",
  rectifier_reads_shorted: "rectifier reads shorted",
  rectifier_reads_open: "rectifier reads open",
  rail_reads_shorted: "a rail reads shorted",
  rail_too_high: "a rail too high",
  rail_too_low: "a rail too low without load",
  rail_falls_under_load: "a rail falls under load",
  ripple_mains_measured: "mains ripple measured",
  ripple_switching_measured: "switching ripple measured",
  coupler_or_reference_bad: "optocoupler or reference bad",
  regulator_output_wrong: "regulator output wrong",
  bench_supply_feeds_load_badly: "load bad on a bench supply",
  fan_found_stuck: "fan stuck",
  fuse_blown: "fuse open or breaker tripped",
};

export const faultName = (code: string): string => faults[code]?.[0] ?? code;
export const faultTest = (code: string): string => faults[code]?.[1] ?? "";
export const findingWords = (finding: string): string => findings[finding] ?? symptomLabels[finding] ?? finding;

/** The whole story in two or three sentences: what began it, what followed, what stays open. */
export function explanationSentences(explanation: Explanation, checks: readonly CascadeCheck[]): string {
  const followed = explanation.faults.filter((code) => !explanation.first.includes(code));
  const began = listWords(explanation.first.map(faultName));
  const against = explanation.contradicted;
  const sureness =
    explanation.probability < 0.5
      ? "Likeliest so far, and not yet likely: "
      : against.length > 0
        ? "Likeliest so far, though what was read speaks against it: "
        : "";
  const rest = followed.length > 0 ? `, and took along: ${listWords(followed.map(faultName))}` : "";
  const sentences = [`${capital(`${sureness}${began}${rest}`)}.`];
  if (explanation.explained.length > 0) {
    sentences.push(`That explains ${listWords(explanation.explained.map(findingWords))}.`);
  }
  if (against.length > 0) sentences.push(`Looked for and not found: ${listWords(against.map(findingWords))}.`);
  if (explanation.unexplained.length > 0) {
    sentences.push(`Not explained by it: ${listWords(explanation.unexplained.map(findingWords))}.`);
  }
  const open = checks.filter((check) => check.state === "open").length;
  if (open > 0) sentences.push(`${open} thing${open === 1 ? " is" : "s are"} still to be checked beside it.`);
  return sentences.join(" ");
}

/** The verdict of a job as the model makes it; null while nothing explains anything. */
export function summaryOf(explanation: JobExplanation | null): string | null {
  const best = explanation?.ranking.explanations[0];
  return explanation && best ? explanationSentences(best, explanation.checks) : null;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
