import { tradeConstants } from "../constants/tradeConstants";
import type { FaultEvidence, FaultRanking } from "./explanations";
import type { Fault, FaultKnowledge } from "./faultKnowledge";
import { type Finding, isTestFinding } from "./findings";

const { surelyShownRatio } = tradeConstants.faults;

/** Something that a found fault may have taken along, or may do next: to be looked at before the job is closed. */
export interface CascadeCheck {
  /** The fault that is looked for, or `over_voltage` for what a dried control or standby capacitor can do to the host. */
  readonly code: string;
  readonly because: string;
  /** What the test would find. */
  readonly finding: Finding | null;
  readonly state: "open" | "cleared" | "found";
  /** It can hurt the host or a hand: first on the list. */
  readonly isDangerous: boolean;
}

export const overVoltageCheck = "over_voltage";
/** From here a fault counts as found. */
const foundFrom = 0.8;
/** Links below this are told by the ranking, but open no point. */
const worthFrom = 0.1;
/** Where these dry, a supply that senses its own control winding drives the output high. */
const drivesOutputHigh: readonly string[] = ["control_capacitor_dried", "standby_capacitor_dried"];

/**
 * The check list of everything that was found: what each fault usually takes along, with the finding that would show it,
 * and whether that test was done. What could hurt the host comes first.
 */
export function cascadeChecks(
  knowledge: FaultKnowledge,
  evidence: FaultEvidence,
  ranking: FaultRanking,
): readonly CascadeCheck[] {
  const byCode = new Map(knowledge.map((fault) => [fault.code, fault]));
  const found = knowledge.filter(
    (fault) => isFound(fault, evidence) || (ranking.probabilities.get(fault.code) ?? 0) >= foundFrom,
  );
  const checks = new Map<string, CascadeCheck>();
  for (const fault of found) {
    if (drivesOutputHigh.includes(fault.code)) {
      const isHigh = evidence.get("rail_too_high");
      checks.set(overVoltageCheck, {
        code: overVoltageCheck,
        because: fault.code,
        finding: "rail_too_high",
        state: stateOf(isHigh),
        isDangerous: true,
      });
    }
    for (const [code, chance] of Object.entries(fault.causes)) {
      const caused = byCode.get(code);
      if (!caused || chance < worthFrom || checks.has(code)) continue;
      const finding = testOf(caused);
      const seen = finding ? evidence.get(finding) : undefined;
      checks.set(code, { code, because: fault.code, finding, state: stateOf(seen), isDangerous: false });
    }
  }
  return [...checks.values()].sort((a, b) => Number(b.isDangerous) - Number(a.isDangerous));
}

const stateOf = (seen: boolean | undefined) => (seen === undefined ? "open" : seen ? "found" : "cleared");

/** What a supply does, whatever of many faults it has: no test of a part. */
const ofMany: ReadonlySet<Finding> = new Set([
  ...["bulk_never_charged", "bulk_stays_full", "control_supply_absent", "control_supply_pulses", "rail_reads_shorted"],
  ...["rail_too_high", "rail_too_low", "rail_falls_under_load", "ripple_mains_measured", "ripple_switching_measured"],
]);
const ownTestFrom = 0.5;

/** The test that shows a fault most surely: one of its own part before what many faults show. */
export function testOf(fault: Fault): Finding | null {
  const tests = Object.entries(fault.shows).filter(([finding]) => isTestFinding(finding));
  const best = tests.sort((a, b) => b[1] - a[1]);
  const own = best.find(([finding, chance]) => !ofMany.has(finding) && chance >= ownTestFrom);
  return (own ?? best[0])?.[0] ?? null;
}

/** The test that finds a fault nearly whenever it is there; null: it has none, and no test alone shows it. */
export function surestTestOf(fault: Fault): Finding | null {
  const test = testOf(fault);
  return test !== null && (fault.shows[test] ?? 0) >= surelyShownRatio ? test : null;
}

/** Its own surest test was done and showed it. */
export function isFound(fault: Fault, evidence: FaultEvidence): boolean {
  const test = surestTestOf(fault);
  return test !== null && evidence.get(test) === true;
}
