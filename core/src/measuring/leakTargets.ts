import type { Section } from "../board/sections";
import { tradeConstants } from "../constants/tradeConstants";
import type { JobFacts } from "../facts/jobFacts";
import { suspiciousOhms } from "../judgement/leakChance";
import { needsReplacement } from "../judgement/needsReplacement";
import type { PartJudgement } from "../judgement/verdict";
import { entropyBits } from "../numerics/entropyBits";
import { isInCircuit, type QuantityKind } from "../readings/reading";
import { liftedShare, liftingMinutes, type Proposal, probingMinutes } from "./proposal";

const leakShare = 0.32;
const confirmLeakFrom = 0.3;
const { leakPrior, heldSeconds, leakSpanOhms } = tradeConstants.judgement;

/**
 * Leaks: one look with the ohmmeter for every bank, whatever its parts read otherwise; where it reads lower than usual loads of its
 * section and than what still charges, the ohms of each part that stays in, one lead lifted.
 */
export function leakTargets(
  facts: JobFacts,
  judgements: ReadonlyMap<string, PartJudgement>,
  goesAnyway: ReadonlySet<string>,
): readonly { readonly positionId: string; readonly proposal: Proposal }[] {
  const read = (quantity: QuantityKind, lifted: boolean, ids: readonly string[]) =>
    facts.readings.filter(
      (one) =>
        one.quantity === quantity && !one.isWithdrawn && isInCircuit(one) !== lifted && ids.includes(one.targetId),
    );
  const sectionOf = (positionId: string) => {
    const netId = facts.positions.find((one) => one.id === positionId)?.netId;
    return facts.nets.find((one) => one.id === netId)?.section;
  };
  const seen = new Set<string>();
  return [...judgements.values()].flatMap(({ bankPositionIds: bank }) => {
    const staying = bank.filter((id) => {
      const judgement = judgements.get(id);
      // What is condemned by a short that was read in circuit may stand beside it: its own ohms tell.
      const isBySomeShort = judgement?.mustReplace === false && (judgement.leakProbability ?? 0) >= confirmLeakFrom;
      return judgement && (!needsReplacement(judgement) || isBySomeShort) && !goesAnyway.has(id);
    });
    const first = bank[0];
    if (first === undefined || seen.has(first) || staying.length === 0) return [];
    seen.add(first);
    const ohms = read("resistance", false, bank);
    if (ohms.length === 0) {
      const gainBits =
        entropyBits(Math.min(leakPrior * staying.length, 0.5)) * shownShare(sectionOf(first)) * leakShare;
      const proposal: Proposal = {
        quantity: "resistance",
        circuitState: "in_circuit",
        minutes: probingMinutes,
        gainBits,
      };
      return [{ positionId: staying[0] as string, proposal }];
    }
    const least = Math.min(...ohms.map((one) => one.value ?? Infinity));
    const section = sectionOf(first);
    const farads = facts.fittedParts
      .filter((part) => bank.includes(part.positionId) && part.removedAt === null)
      .reduce((sum, part) => sum + (part.capacitanceFarads ?? 0), 0);
    if (least >= suspiciousOhms(section) || least * farads >= heldSeconds) return [];
    const isLooked = (id: string) =>
      (["resistance", "voltage_loss", "leakage_current"] as const).some((one) => read(one, true, [id]).length > 0);
    return staying
      .filter((id) => !isLooked(id))
      .map((positionId) => ({
        positionId,
        proposal: {
          quantity: "resistance" as const,
          circuitState: "lead_lifted" as const,
          minutes: read("esr", true, [positionId]).length > 0 ? probingMinutes : liftingMinutes,
          gainBits: entropyBits(0.5 / staying.length) * liftedShare,
        },
      }));
  });
}

/**
 * How many of the leaks of a section an ohmmeter shows in circuit: from some ohms to some tens of kilohms they are about
 * equally common by decades, and only what conducts better than the load beside it is seen. Rough.
 */
function shownShare(section: Section | undefined): number {
  const [least, most] = leakSpanOhms;
  return Math.min(Math.log(suspiciousOhms(section) / least) / Math.log(most / least), 1);
}
