import { isChosen, type JobFacts, type Lens, leftEmptyIds, lenses } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { doneSteps, stepsOf } from "../facts/reworkTicks";
import { roundView } from "../facts/rounds";
import { judgeBoard } from "../judgement/judgeBoard";
import { needsReplacement } from "../judgement/needsReplacement";
import type { PartJudgement } from "../judgement/verdict";
import { worstChargeState } from "../safety/chargeWatch";
import { jobChargeStates } from "./jobCharge";
import { type OpenPoint, settledIn } from "./openPoint";
import { openPoints } from "./openPoints";

/** untouched: nothing entered; open: begun; waiting: needs an earlier lens; done; stale: done, then overtaken. */
export type LensState = "untouched" | "open" | "waiting" | "done" | "stale";

export interface LensProgress {
  readonly lens: Lens;
  readonly state: LensState;
  /** How many things are still missing, where that can be counted. */
  readonly missingCount: number;
}

/** State of each of the nine lenses, drawn from what was entered in this round: nobody ticks a lens off. */
export function lensProgress(
  facts: JobFacts,
  rules: JobRules,
  nowMilliseconds: number,
  judgements: ReadonlyMap<string, PartJudgement> = judgeBoard(roundView(facts), rules.judgement),
  points: readonly OpenPoint[] = openPoints(facts, rules, nowMilliseconds, judgements),
): readonly LensProgress[] {
  const verdicts = [...judgements.values()];
  const capacitors = facts.positions.filter((position) => position.kind === "electrolytic");
  const toReplace = verdicts.filter(needsReplacement).map((judgement) => judgement.positionId);
  const { plans, ticks, fittedParts } = roundView(facts);
  const planned = plans.filter(isChosen).map((plan) => plan.positionId);
  const finished = planned.filter((id) => {
    const done = doneSteps(ticks, id);
    const position = facts.positions.find((one) => one.id === id);
    const hasOld = fittedParts.some((part) => part.positionId === id && part.origin === "found");
    // Where nothing was found, as beside a place that holds two, nothing comes out.
    const isAdded = position?.kind === "electrolytic" && !hasOld;
    return stepsOf(position?.kind ?? "electrolytic").every((step) => done.has(step) || (isAdded && step === "removed"));
  });
  const proofPoints = points.filter((point) => settledIn(point.code) === "prove");
  const promised = facts.nets.filter((net) => net.fullLoadAmps !== null);
  const railReadings = facts.readings.filter((reading) => reading.targetKind === "rail");
  const charges = jobChargeStates(facts, rules.charge, nowMilliseconds);
  const charge = worstChargeState(charges);
  const openCharges = charges.filter((one) => one.name !== "verified").length;
  const hasChargeHistory = facts.chargeEvents.length > 0;
  const unmeasured = verdicts.filter((judgement) => judgement.verdict === "not_measured").length;
  const undecided = verdicts.filter((judgement) => judgement.verdict === "cannot_tell").length;
  const isCapacitor = (id: string) => capacitors.some((one) => one.id === id);
  const unlooked = fittedParts.filter(
    (part) =>
      part.origin === "found" &&
      isCapacitor(part.positionId) &&
      !facts.signs.some((sign) => sign.fittedPartId === part.id),
  ).length;
  // A place that stays empty is decided too; in Rework it only has to come out.
  const emptyIds = leftEmptyIds(plans);
  const unplanned = toReplace.filter((id) => !planned.includes(id) && !emptyIds.has(id)).length;

  const counted = (hasBegun: boolean, missingCount: number): Omit<LensProgress, "lens"> => ({
    state: !hasBegun ? "untouched" : missingCount > 0 ? "open" : "done",
    missingCount: hasBegun ? missingCount : 0,
  });
  const waiting = { state: "waiting", missingCount: 0 } as const;
  const isMeasured = verdicts.some((judgement) => judgement.verdict !== "not_measured");
  const byLens: Readonly<Record<Lens, Omit<LensProgress, "lens">>> = {
    intake: counted(
      Boolean(facts.complaint) || facts.symptoms.length > 0,
      (facts.complaint ? 0 : 1) + (facts.symptoms.length > 0 ? 0 : 1),
    ),
    "make-safe":
      charge.name === "verified"
        ? { state: "done", missingCount: 0 }
        : charge.name === "unknown" && hasChargeHistory
          ? { state: "stale", missingCount: openCharges }
          : counted(facts.energyStores.length > 0 || hasChargeHistory, openCharges),
    inspect: counted(capacitors.length > 0, unlooked),
    measure: capacitors.length === 0 ? waiting : counted(isMeasured, unmeasured),
    judge: !isMeasured ? waiting : counted(true, undecided),
    choose:
      toReplace.length === 0 && planned.length === 0
        ? waiting
        : counted(planned.length > 0 || toReplace.length > 0, unplanned),
    rework:
      planned.length === 0 && ticks.length === 0
        ? waiting
        : counted(ticks.length > 0, planned.length - finished.length),
    prove:
      promised.length === 0 && railReadings.length === 0
        ? waiting
        : counted(railReadings.length > 0, proofPoints.length),
    "hand-over": facts.handedOverAt ? { state: "done", missingCount: 0 } : counted(false, points.length),
  };
  return lenses.map((lens) => ({ lens, ...byLens[lens] }));
}

/** The furthest lens in which something was entered: what the bench shows. */
export function lensReached(progress: readonly LensProgress[]): Lens {
  const begun = progress.filter((one) => one.state === "open" || one.state === "done" || one.state === "stale");
  return begun.at(-1)?.lens ?? "intake";
}
