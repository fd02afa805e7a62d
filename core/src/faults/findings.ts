import { type Stage, stages } from "./firstSuspects";
import { symptomCodes } from "./symptoms";

/**
 * What a test on the bench can find, beside the symptoms that a person tells. The number is how often the finding shows up
 * although no fault of the model is there: a slip, a neighbour, something else. Rough.
 */
export const testFindings = {
  fuse_open: 0.005,
  inrush_limiter_reads_open: 0.003,
  joint_seen_cracked: 0.02,
  bridge_reads_shorted: 0.005,
  bridge_reads_open: 0.003,
  bulk_never_charged: 0.01,
  bulk_stays_full: 0.02,
  bulk_capacitor_bad: 0.01,
  boost_capacitor_bad: 0.01,
  control_capacitor_bad: 0.01,
  standby_capacitor_bad: 0.01,
  output_capacitor_bad: 0.01,
  post_capacitor_bad: 0.01,
  feedback_capacitor_bad: 0.01,
  control_supply_pulses: 0.02,
  control_supply_absent: 0.02,
  control_ic_reads_shorted: 0.005,
  switch_reads_shorted: 0.005,
  boost_switch_reads_shorted: 0.005,
  shunt_reads_open: 0.005,
  gate_parts_read_wrong: 0.01,
  rectifier_reads_shorted: 0.01,
  rectifier_reads_open: 0.005,
  rail_reads_shorted: 0.02,
  rail_too_high: 0.01,
  rail_too_low: 0.02,
  rail_falls_under_load: 0.03,
  ripple_mains_measured: 0.02,
  ripple_switching_measured: 0.03,
  coupler_or_reference_bad: 0.01,
  regulator_output_wrong: 0.01,
  bench_supply_feeds_load_badly: 0.02,
  fan_found_stuck: 0.01,
  // What runs is told by no fault, it only speaks against some.
  supply_runs: 0.999,
  standby_runs: 0.999,
  lead_checked_good: 0.999,
  output_lead_checked_good: 0.999,
  load_fed_well: 0.999,
  output_lead_checked_bad: 0.01,
  bulk_reads_shorted: 0.005,
  bulk_reads_open: 0.005,
  boost_bulk_reads_shorted: 0.005,
  boost_diode_reads_shorted: 0.005,
  boost_volts_not_raised: 0.01,
  bleeder_reads_open: 0.01,
  start_resistor_reads_open: 0.005,
  fusible_reads_open: 0.005,
  varistor_reads_shorted: 0.005,
  x_capacitor_bad: 0.005,
  x_capacitor_low: 0.005,
  range_switch_checked_bad: 0.01,
  clamp_reads_shorted: 0.005,
  control_rectifier_bad: 0.005,
  output_clamp_reads_shorted: 0.005,
  output_switch_reads_shorted: 0.005,
  standby_switcher_reads_shorted: 0.005,
  thermal_fuse_reads_open: 0.003,
  relay_reads_bad: 0.005,
  ceramic_reads_shorted: 0.005,
  resonant_capacitor_bad: 0.005,
  dropper_capacitor_low: 0.005,
  bootstrap_reads_wrong: 0.005,
  gate_driver_reads_shorted: 0.005,
  light_tested_bad: 0.01,
  light_tested_good: 0.999,
  transformer_rings_short: 0.02,
  regulator_capacitor_leaky: 0.01,
  adhesive_or_corrosion_seen: 0.05,
} as const;

export type TestFinding = keyof typeof testFindings;
/** A symptom code or a test's finding. */
export type Finding = string;

/** A symptom that is told although nothing of the model explains it. */
const symptomLeakRatio = 0.02;

export const findingLeakRatio = (finding: Finding): number =>
  (testFindings as Readonly<Record<string, number>>)[finding] ?? symptomLeakRatio;

export const isTestFinding = (finding: Finding): finding is TestFinding => Object.hasOwn(testFindings, finding);

const known = new Set<string>([...symptomCodes, ...Object.keys(testFindings)]);
export const isFinding = (finding: string) => known.has(finding);
export const isStage = (stage: string): stage is Stage => (stages as readonly string[]).includes(stage);
