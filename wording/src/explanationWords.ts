import type { CascadeCheck, FaultChance, Headline, JobExplanation } from "@pale-cap/core";
import { headlineOf, symptomLabels } from "@pale-cap/core";
import { listWords } from "./boardWords";

/** Every fault of the model: what it is called, and how it is looked for. */
const faults: Readonly<Record<string, readonly [name: string, test: string]>> = {
  lead_or_inlet_open: ["lead, plug fuse, switch or inlet open", "Continuity from the plug to the fuse, unplugged."],
  fuse_open_alone: [
    "the fuse is open",
    "Through the fuse: a few ohms at most. Find the short before a new one goes in.",
  ],
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
  varistor_shorted: [
    "the varistor is shorted",
    "Ohms across it, unplugged: open when sound; look for soot and cracks.",
  ],
  thermal_fuse_open: [
    "the thermal fuse is open",
    "Through it, cold: it opens once. Something ran hot: find that first; never bridge it.",
  ],
  inrush_bypass_stuck: [
    "the relay across the inrush thermistor does not pull in",
    "Its coil; a click some tenths of a second after the start; volts across the thermistor under load.",
  ],
  ceramic_shorted: ["a ceramic capacitor on a rail is shorted", "Limited volts into the rail: it warms first."],
  gate_drive_dead: ["the gate drive is dead", "A scope at the gate with the control chip fed from outside."],
  midpoint_capacitor_lost: [
    "a capacitor of the half bridge's midpoint has lost its value",
    "Its C off the board; the midpoint's volts at half of the bulk.",
  ],
  resonant_capacitor_lost: ["the resonant capacitor has lost its value", "Its C off the board against the marking."],
  bootstrap_dead: ["the upper driver's own supply is gone", "Its diode and capacitor, cold."],
  base_drive_lost: ["the switch's own drive is open", "Each resistor from the feedback winding to the switch."],
  base_capacitor_dried: ["the drive's capacitor has dried", "Its ESR and C; the output can run high when it goes."],
  dropper_capacitor_lost: [
    "the series capacitor has lost its value",
    "Its C off the board: a fifth less and the supply is weak.",
  ],
  dropper_clamp_shorted: ["the clamp of the low volts is shorted", "Both ways, one lead up."],
  dropper_smoothing_dried: ["the smoothing capacitor has dried", "Its ESR and C."],
  light_strip_open: ["a lamp, tube or light strip is dead", "A strip tester; with a torch the picture is there."],
  light_driver_faulty: ["the backlight's driver", "Its output volts as it starts; its own capacitors and transistor."],
  x_capacitor_shorted: ["a capacitor across the mains is shorted", "Ohms across it, one lead up."],
  x_capacitor_lost: ["a capacitor across the mains has lost its value", "Its C off the board against the marking."],
  range_switch_wrong: ["the mains range switch or its link", "By eye and continuity, unplugged: doubler or bridge."],
  bulk_open: ["the bulk capacitor is open inside", "Its C, off the board, after DC volts read low: next to nothing."],
  bleeder_open: ["the bleeder is open", "Its ohms against the marking; the bulk keeps its charge meanwhile."],
  fusible_resistor_open: ["the fusible or inrush resistor is open", "A few ohms by its rings; something made it open."],
  clamp_diode_shorted: ["the clamp diode is shorted", "Diode test both ways, one lead up."],
  output_clamp_shorted: [
    "an output's clamp is shorted",
    "Zener against ground, both ways; then look why volts went high.",
  ],
  control_rectifier_open: [
    "the Vcc rectifier or its resistor is open",
    "Diode test from the winding to the Vcc capacitor.",
  ],
  transformer_shorted_turn: ["a shorted turn in the transformer", "A ring tester across the primary, board cold."],
  standby_switcher_shorted: ["the standby switcher is shorted", "Drain to source: sound reads far above a kiloohm."],
  standby_clamp_shorted: [
    "the standby's clamp is shorted",
    "Zener against ground, both ways: a dried capacitor drove it.",
  ],
  output_switch_shorted: [
    "a transistor of an output is shorted",
    "Synchronous rectifier or load switch, three ways; of two in parallel lift one.",
  ],
  boost_diode_shorted: [
    "the boost diode is shorted",
    "Diode test both ways: shorted it puts the bulk into the boost transistor.",
  ],
  boost_control_dead: [
    "the boost stage does not boost",
    "Under power its bulk stands at the crest of the mains: the chip's supply, its sense string.",
  ],
  boost_bulk_shorted: [
    "the bulk behind the boost stage is shorted",
    "Ohms across it, one lead up, after DC volts read low.",
  ],
  regulator_capacitor_leaks: [
    "a capacitor at a regulator leaks",
    "Ohms or leakage with its lead up; it warms without load.",
  ],
  high_side_switch_shorted: [
    "a high-side switch is shorted",
    "Input to output in ohms, both ways: the load had the whole input.",
  ],
  board_feedback_open: ["a divider of a regulator is open", "Its resistors against their marking."],
  rail_load_shorted: [
    "something on a rail is shorted",
    "Ohms of the rail; a limited current into it, and a warm spot.",
  ],
  adhesive_conducts: [
    "brown adhesive or corrosion conducts",
    "Look under and between parts; scrape it off, wash, measure again.",
  ],
  output_cable_broken: ["the output lead or its plug is broken", "Continuity from plug to board while it is bent."],
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
  supply_runs: "an output stands",
  standby_runs: "the standby stands",
  lead_checked_good: "lead and plug in order",
  output_lead_checked_good: "output lead in order",
  output_lead_checked_bad: "output lead bad",
  load_fed_well: "load works on another supply",
  bulk_reads_shorted: "bulk reads shorted",
  bulk_reads_open: "bulk reads open",
  boost_bulk_reads_shorted: "boost bulk reads shorted",
  boost_diode_reads_shorted: "boost diode reads shorted",
  boost_volts_not_raised: "boost bulk only at the crest of the mains",
  bleeder_reads_open: "bleeder reads open",
  start_resistor_reads_open: "start-up resistor reads open",
  fusible_reads_open: "fusible resistor reads open",
  varistor_reads_shorted: "varistor reads shorted",
  x_capacitor_bad: "capacitor across the mains shorted",
  x_capacitor_low: "capacitor across the mains reads low",
  range_switch_checked_bad: "range switch wrong",
  clamp_reads_shorted: "clamp diode reads shorted",
  control_rectifier_bad: "Vcc rectifier bad",
  output_clamp_reads_shorted: "output clamp reads shorted",
  output_switch_reads_shorted: "transistor of an output reads shorted",
  standby_switcher_reads_shorted: "standby switcher reads shorted",
  thermal_fuse_reads_open: "thermal fuse reads open",
  relay_reads_bad: "relay reads bad",
  ceramic_reads_shorted: "ceramic capacitor reads shorted",
  resonant_capacitor_bad: "capacitor of the bridge bad",
  dropper_capacitor_low: "series capacitor reads low",
  bootstrap_reads_wrong: "bootstrap parts read wrong",
  gate_driver_reads_shorted: "gate driver shorted at its supply pins",
  light_tested_bad: "backlight bad on a tester",
  light_tested_good: "backlight good on a tester",
  transformer_rings_short: "transformer rings short",
  regulator_capacitor_leaky: "capacitor at a regulator leaks",
  adhesive_or_corrosion_seen: "brown adhesive or corrosion seen",
  fuse_blown: "fuse open",
  breaker_tripped: "breaker tripped",
};

export const faultName = (code: string): string => faults[code]?.[0] ?? code;
export const faultTest = (code: string): string => faults[code]?.[1] ?? "";
export const findingWords = (finding: string): string => findings[finding] ?? symptomLabels[finding] ?? finding;

const percent = (chance: number) => `${Math.round(100 * chance)} %`;
const withChances = (list: readonly FaultChance[]) =>
  list.map(({ code, chance }) => `${faultName(code)} (${percent(chance)})`).join(", then ");

/** What leads, in words that fit its chance; what could be instead stands beside it while nothing is likely. */
function leadSentence({ lead, sureness, beside, followed, others, explanation }: Headline): string {
  if (!lead) {
    const instead = others.length > 0 ? ` Else ${withChances(others)}.` : "";
    return `Nothing in the supply explains it so far, by what was told and read.${instead}`;
  }
  const isAgainst = (explanation?.contradicted.length ?? 0) > 0;
  const name = faultName(lead.code);
  const took = followed.length > 0 ? `, and took along: ${listWords(followed.map(faultName))}` : "";
  const own = beside.length > 0 ? `; by itself, ${listWords(beside.map(faultName))}` : "";
  if (sureness === "so_far") {
    const next = others.length > 0 ? `, then ${withChances(others)}` : "";
    return `Likeliest so far, and not yet likely: ${name} (${percent(lead.chance)})${next}.`;
  }
  if (isAgainst) return `Likeliest so far, though what was read speaks against it: ${name}${took}${own}.`;
  const words = { probably: `probably ${name}`, very_likely: `very likely ${name}`, plain: name }[sureness];
  return `${capital(words)}${took}${own}.`;
}

/** The whole story in two or three sentences: what began it, what followed, what stays open. */
export function explanationSentences(headline: Headline, checks: readonly CascadeCheck[]): string {
  const sentences = [leadSentence(headline)];
  const { explanation, sureness } = headline;
  if (explanation && headline.lead) {
    const { explained, contradicted, unexplained } = explanation;
    if (explained.length > 0 && sureness !== "so_far") {
      sentences.push(`That explains ${listWords(explained.map(findingWords))}.`);
    }
    if (contradicted.length > 0) {
      sentences.push(`Looked for and not found: ${listWords(contradicted.map(findingWords))}.`);
    }
    if (unexplained.length > 0) {
      sentences.push(`Not explained by it: ${listWords(unexplained.map(findingWords))}.`);
    }
  }
  const open = checks.filter((check) => check.state === "open").length;
  if (open > 0) sentences.push(`${open} thing${open === 1 ? " is" : "s are"} still to be checked beside it.`);
  return sentences.join(" ");
}

/** The verdict of a job as the model makes it; null while nothing explains anything. */
export function summaryOf(explanation: JobExplanation | null): string | null {
  const headline = explanation && headlineOf(explanation.ranking);
  return explanation && headline ? explanationSentences(headline, explanation.checks) : null;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
