import { type BoardPosition, currentPart, type FittedPart, foundPart } from "../board/board";
import type { JudgementConstants } from "../constants/judgementConstants";
import { judgementConstants } from "../constants/judgementConstants";
import { type Reading, standingReadings } from "../readings/reading";
import { type JudgementRules, judgePart, type PartJudgement, type PlacedPart } from "./judgePart";
import { bankOf } from "./partReadings";
import type { SignState, VisualSign } from "./visualSigns";

export interface SignObservation {
  readonly fittedPartId: string;
  readonly sign: VisualSign;
  readonly state: SignState;
  readonly observedAt: string;
}

export interface BoardFacts {
  readonly positions: readonly BoardPosition[];
  readonly fittedParts: readonly FittedPart[];
  readonly readings: readonly Reading[];
  readonly signs: readonly SignObservation[];
}

/** Which part of a position is judged: `found` as it came in (Judge), `current` as it is now (Prove). */
export type JudgedPart = "found" | "current";

/** Judges the electrolytics of a board, by position; a position without such a part has no judgement. */
export function judgeBoard(
  board: BoardFacts,
  rules: JudgementRules,
  which: JudgedPart = "found",
  constants: JudgementConstants = judgementConstants,
): ReadonlyMap<string, PartJudgement> {
  const judge = boardJudge(board, rules, which, constants);
  const judgements = new Map<string, PartJudgement>();
  for (const position of board.positions) {
    const judgement = judge(position);
    if (judgement) judgements.set(position.id, judgement);
  }
  return judgements;
}

/** A board with its judgements, to go on from. */
export interface JudgedBoard {
  readonly board: BoardFacts;
  readonly rules: JudgementRules;
  readonly judgements: ReadonlyMap<string, PartJudgement>;
}

/**
 * The judgements after something was read or seen, from those before: only banks in which a reading or a sign came or
 * went are judged anew. The same as `judgeBoard`, in a fraction of its time; where parts or rules changed it is that.
 */
export function rejudgeBoard(
  before: JudgedBoard | null,
  board: BoardFacts,
  rules: JudgementRules,
): ReadonlyMap<string, PartJudgement> {
  const isSameBoard =
    before !== null &&
    before.rules === rules &&
    before.board.positions === board.positions &&
    before.board.fittedParts === board.fittedParts;
  if (!isSameBoard) return judgeBoard(board, rules);
  const touched = new Set([
    ...exchanged(before.board.readings, board.readings).flatMap((one) => [one.targetId, one.fittedPartId ?? ""]),
    ...exchanged(before.board.signs, board.signs).map((one) => one.fittedPartId),
  ]);
  if (touched.size === 0) return before.judgements;
  // A reading speaks of a part, a place or a net; whichever it is, the whole bank hears it.
  const nets = new Set<string>();
  const places = new Set<string>();
  for (const position of board.positions) {
    const partIds = board.fittedParts.filter((part) => part.positionId === position.id).map((part) => part.id);
    const names = [position.id, position.netId ?? "", ...partIds];
    if (!names.some((name) => name !== "" && touched.has(name))) continue;
    places.add(position.id);
    if (position.netId) nets.add(position.netId);
  }
  const judge = boardJudge(board, rules, "found", judgementConstants);
  const judgements = new Map(before.judgements);
  for (const position of board.positions) {
    if (!places.has(position.id) && !nets.has(position.netId ?? "")) continue;
    const judgement = judge(position);
    if (judgement) judgements.set(position.id, judgement);
  }
  return judgements;
}

/** What one list has and the other has not. */
function exchanged<T>(before: readonly T[], after: readonly T[]): readonly T[] {
  if (before === after) return [];
  const [had, has] = [new Set(before), new Set(after)];
  return [...before.filter((one) => !has.has(one)), ...after.filter((one) => !had.has(one))];
}

/** The same for one position, where the rest of the board does not matter. */
export function judgePosition(
  board: BoardFacts,
  positionId: string,
  rules: JudgementRules,
  which: JudgedPart = "found",
  constants: JudgementConstants = judgementConstants,
): PartJudgement | undefined {
  const position = board.positions.find((one) => one.id === positionId);
  return position && boardJudge(board, rules, which, constants)(position);
}

/** What is the same for every position is made once: standing readings, and which parts count for a bank. */
function boardJudge(
  board: BoardFacts,
  rules: JudgementRules,
  which: JudgedPart,
  constants: JudgementConstants,
): (position: BoardPosition) => PartJudgement | undefined {
  const pick = which === "found" ? foundPart : currentPart;
  const standing = standingReadings(board.readings);
  const candidates = which === "found" ? board.fittedParts.map(asFitted) : board.fittedParts;
  const placed = (position: BoardPosition): PlacedPart | null => {
    const part = pick(board.fittedParts, position.id);
    return part ? { position, part } : null;
  };
  return (position) => {
    const subject = position.kind === "electrolytic" ? placed(position) : null;
    if (!subject) return undefined;
    const bank = bankOf(position, board.positions, candidates)
      .map(placed)
      .filter((member) => member !== null);
    const partIds = new Set(bank.map((member) => member.part.id));
    const question = {
      subject,
      bank,
      readings: standing.filter((reading) => reading.fittedPartId === subject.part.id),
      bankReadings: standing.filter(
        (reading) =>
          (reading.fittedPartId !== null && partIds.has(reading.fittedPartId)) ||
          (reading.targetKind === "bank" && reading.targetId === position.netId),
      ),
      signs: latestSigns(board.signs, subject.part.id),
      rules,
    };
    return judgePart(question, constants);
  };
}

/** The latest state of each sign on a part. */
export function latestSigns(
  observations: readonly SignObservation[],
  fittedPartId: string,
): Partial<Record<VisualSign, SignState>> {
  const latest: Partial<Record<VisualSign, SignState>> = {};
  const ordered = observations
    .filter((one) => one.fittedPartId === fittedPartId)
    .sort((a, b) => Date.parse(a.observedAt) - Date.parse(b.observedAt));
  for (const { sign, state } of ordered) latest[sign] = state;
  return latest;
}

/** While a unit is judged as it came in, what was taken out since still belongs to its bank. */
function asFitted(part: FittedPart): FittedPart {
  return part.origin === "found" ? { ...part, removedAt: null } : part;
}
