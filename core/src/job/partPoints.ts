import { type BoardPosition, currentPart, foundPart } from "../board/board";
import type { JobFacts } from "../facts/jobFacts";
import type { JobRules } from "../facts/jobRules";
import { doneSteps } from "../facts/reworkTicks";
import { judgePosition } from "../judgement/judgeBoard";
import { judgeDevice, judgeDevices } from "../judgement/judgeDevice";
import { needsReplacement } from "../judgement/needsReplacement";
import type { PartJudgement } from "../judgement/verdict";
import { standingReadings } from "../readings/reading";
import { doPolaritiesAgree } from "../replacement/polarityCheck";
import { type OpenPoint, type OpenPointCode, openPoint } from "./openPoint";

/** What the parts leave open: bad ones still in, places emptied, new ones bad or never read, polarity, neighbours. */
export function partPoints(
  facts: JobFacts,
  rules: JobRules,
  judgements: ReadonlyMap<string, PartJudgement>,
): readonly OpenPoint[] {
  const points = facts.positions.flatMap((position) => {
    const steps = doneSteps(facts.ticks, position.id);
    const codes = steps.has("fitted")
      ? [...newPartCodes(facts, rules, position), ...polarityCodes(facts, position)]
      : oldPartCodes(judgements.get(position.id), steps.has("removed"));
    return codes.map((code) => ofPart(code, position));
  });
  return [...points, ...neighbours(facts, judgements), ...badDevices(facts)];
}

const ofPart = (code: OpenPointCode, { id, designator, netId }: BoardPosition): OpenPoint =>
  openPoint(code, designator, { positionId: id, netId });

function oldPartCodes(judgement: PartJudgement | undefined, isRemoved: boolean): readonly OpenPointCode[] {
  const codes: OpenPointCode[] = isRemoved ? ["part_not_refitted"] : [];
  if (!isRemoved && judgement && needsReplacement(judgement)) return [...codes, "part_not_replaced"];
  return judgement?.verdict === "cannot_tell" ? [...codes, "part_undecided"] : codes;
}

/** A new part is a part: it can be bad, and one that was never read may be. */
function newPartCodes(facts: JobFacts, rules: JobRules, position: BoardPosition): readonly OpenPointCode[] {
  if (position.kind !== "electrolytic") return newDeviceCodes(facts, rules, position);
  const part = currentPart(facts.fittedParts, position.id);
  const isRead = standingReadings(facts.readings).some(
    (one) =>
      part !== undefined && one.fittedPartId === part.id && (one.quantity === "esr" || one.quantity === "capacitance"),
  );
  if (!isRead) return rules.rail.mustReadNewParts ? ["new_part_not_read"] : [];
  const verdict = judgePosition(facts, position.id, rules.judgement, "current")?.verdict;
  return verdict === "failed" ? ["new_part_bad"] : [];
}

/** Another kind that went in: read where a cold test of its kind tells anything. What reads bad is told with the others. */
function newDeviceCodes(facts: JobFacts, rules: JobRules, position: BoardPosition): readonly OpenPointCode[] {
  const judgement = judgeDevice(position, facts);
  const hasColdTest = judgement?.lines.some((one) => !one.test.isLive && !one.test.isOptional) ?? false;
  return hasColdTest && judgement?.verdict === "not_measured" && rules.rail.mustReadNewParts
    ? ["new_part_not_read"]
    : [];
}

/**
 * Polarity stands on two records: the board's own mark, or a photo or a pad's way to minus where it has none, and the stripe
 * of the part that stands there; each is ticked when it was seen.
 */
function polarityCodes(facts: JobFacts, position: BoardPosition): readonly OpenPointCode[] {
  const part = currentPart(facts.fittedParts, position.id) ?? foundPart(facts.fittedParts, position.id);
  if (position.kind !== "electrolytic" || part?.isNonPolar) return [];
  const steps = doneSteps(facts.ticks, position.id);
  const stripe = part?.stripeDegrees ?? null;
  const codes: OpenPointCode[] = [];
  if (!steps.has("polarity_board_mark") || !steps.has("polarity_part_mark")) codes.push("polarity_unconfirmed");
  if (!hasBoardRecord(facts, position) || stripe === null) codes.push("polarity_not_recorded");
  if (doPolaritiesAgree(position.boardNegativeDegrees, stripe) === false) codes.push("polarity_conflict");
  return codes;
}

/** Whether the board's side of a polarity is on record: its mark, or what stands for it where it has none. */
export function hasBoardRecord(facts: Pick<JobFacts, "acts">, position: BoardPosition): boolean {
  if (position.boardNegativeDegrees !== null) return true;
  return facts.acts.some((act) => act.kind === "polarity_seen" && act.subjectId === position.id);
}

/** Beside a part that failed: capacitors of the same net that nobody read, and that are still what they were. */
function neighbours(facts: JobFacts, judgements: ReadonlyMap<string, PartJudgement>): readonly OpenPoint[] {
  const isBad = (id: string) => {
    const judgement = judgements.get(id);
    return judgement?.verdict === "failed" || judgement?.mustReplace === true;
  };
  const nets = new Set(facts.positions.filter((one) => isBad(one.id)).map((one) => one.netId));
  return facts.positions
    .filter(
      (one) =>
        one.netId !== null &&
        nets.has(one.netId) &&
        judgements.get(one.id)?.verdict === "not_measured" &&
        !doneSteps(facts.ticks, one.id).has("removed"),
    )
    .map((one) => ofPart("neighbour_not_read", one));
}

/** A part that is no capacitor and reads bad, until a later reading says otherwise. */
function badDevices(facts: JobFacts): readonly OpenPoint[] {
  return [...judgeDevices(facts).values()].flatMap(({ positionId, verdict }) => {
    const position = facts.positions.find((one) => one.id === positionId);
    return verdict === "failed" && position ? [ofPart("device_bad", position)] : [];
  });
}
