import { bankOf } from "../board/bank";
import type { BaselineValue } from "../board/baseline";
import {
  assumedChoke,
  type BoardNet,
  type BoardPosition,
  currentPart,
  type FittedPart,
  foundPart,
  partInHand,
} from "../board/board";
import type { JudgementConstants } from "../constants/judgementConstants";
import type { ReworkTick } from "../facts/jobFacts";
import type { JudgementRules } from "../facts/jobRules";
import type { VerdictOverrule } from "../facts/overrules";
import type { ShopRecord } from "../facts/shopRecord";
import { latestSigns, type SignObservation } from "../facts/visualSigns";
import { inOrder } from "../readings/factMoment";
import { isInCircuit, type Reading, tellingReadings } from "../readings/reading";
import { type BankEpoch, bankEpoch } from "./bankEpoch";
import { boardChances } from "./boardChances";
import { judgePart } from "./judgePart";
import { partHistory } from "./partHistory";
import { tunedConstants } from "./tunedConstants";
import type { BankSurroundings, JudgementQuestion, Overrule, PartJudgement, PlacedPart } from "./verdict";

export interface BoardFacts {
  readonly nets: readonly BoardNet[];
  readonly positions: readonly BoardPosition[];
  readonly fittedParts: readonly FittedPart[];
  readonly readings: readonly Reading[];
  readonly signs: readonly SignObservation[];
  readonly overrules?: readonly VerdictOverrule[];
  /** What was taken out and put in: what was read in circuit counts with the parts that stood there then. */
  readonly ticks?: readonly ReworkTick[];
  /** What good boards of the same type read, by designator. */
  readonly baseline?: readonly BaselineValue[];
  /** What the shop's closed jobs say of parts like these; absent or null: nothing. */
  readonly record?: ShopRecord | null;
}

/**
 * Which part of a position is judged: `found` as it came in (Judge), `current` as it is now (Prove), `in_hand` the new part
 * that lies there and is not soldered yet.
 */
export type JudgedPart = "found" | "current" | "in_hand";

/** Judges the electrolytics of a board, by position; a position without such a part has no judgement. */
export function judgeBoard(
  board: BoardFacts,
  rules: JudgementRules,
  which: JudgedPart = "found",
  constants: JudgementConstants = tunedConstants,
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
 * The judgements after something was read or seen, from those before. One reading moves the leads and with them every part a
 * little: all are judged anew, but what a bank says is listed again only where it was read (boardChances keeps it).
 */
export function rejudgeBoard(
  before: JudgedBoard | null,
  board: BoardFacts,
  rules: JudgementRules,
): ReadonlyMap<string, PartJudgement> {
  const isSame =
    before !== null &&
    before.rules === rules &&
    (
      ["nets", "positions", "fittedParts", "readings", "signs", "overrules", "ticks", "baseline", "record"] as const
    ).every((name) => before.board[name] === board[name]);
  return isSame ? before.judgements : judgeBoard(board, rules);
}

/**
 * The same for one position. `current` is what a preview asks beside the probe, of the part that sits there now; `found` is
 * the verdict on what came in. Until something is replaced they are one.
 */
export function judgePosition(
  board: BoardFacts,
  positionId: string,
  rules: JudgementRules,
  which: JudgedPart = "found",
  constants: JudgementConstants = tunedConstants,
): PartJudgement | undefined {
  const position = board.positions.find((one) => one.id === positionId);
  return position && boardJudge(board, rules, which, constants)(position);
}

const picks = { found: foundPart, current: currentPart, in_hand: partInHand } as const;

/** What is the same for every position is made once: standing readings, and which parts count for a bank. */
function boardJudge(
  board: BoardFacts,
  rules: JudgementRules,
  which: JudgedPart,
  constants: JudgementConstants,
): (position: BoardPosition) => PartJudgement | undefined {
  const standing = tellingReadings(board.readings);
  // Where the readings of each part and of each bank stand in the list: asked for by every part of a board.
  const byPart = new Map<string, number[]>();
  const byBank = new Map<string, number[]>();
  standing.forEach(({ fittedPartId, targetKind, targetId }, n) => {
    const [list, key] =
      fittedPartId !== null ? [byPart, fittedPartId] : [byBank, targetKind === "bank" ? targetId : ""];
    const places = list.get(key);
    if (places) places.push(n);
    else list.set(key, [n]);
  });
  const placesIn = (places: readonly number[]) => [...new Set(places)].map((n) => standing[n] as Reading);
  const candidates = which === "found" ? board.fittedParts.map(asFitted) : board.fittedParts;
  const placed = (position: BoardPosition): PlacedPart | null => {
    const part = picks[which](board.fittedParts, position.id);
    return part ? { position, part } : null;
  };
  const surroundings = new Map<string, BankSurroundings>();
  const surroundingsOf = (netId: string | null, epoch: BankEpoch | null): BankSurroundings | undefined => {
    const net = board.nets.find((one) => one.id === netId);
    if (!net) return undefined;
    const key = `${net.id} ${epoch?.number}`;
    const known = surroundings.get(key);
    if (known) return known;
    const readings = epoch ? standing.filter(epoch.holds) : standing;
    const found = bankSurroundings(net, board, readings, candidates, placed);
    surroundings.set(key, found);
    return found;
  };
  const isSeries = (netId: string | null) =>
    board.nets.find((one) => one.id === netId)?.network?.arrangement === "series";
  const bankAround = (subject: PlacedPart): { members: readonly PlacedPart[]; epoch: BankEpoch | null } => {
    const { position } = subject;
    if (which === "in_hand") return { members: [subject], epoch: null };
    const isAlone = position.netId === null || isSeries(position.netId);
    const places = isAlone
      ? [position]
      : board.positions.filter((one) => one.kind === "electrolytic" && one.netId === position.netId);
    const epoch = bankEpoch(subject, places, board.fittedParts, board.ticks ?? [], standing);
    if (epoch) return { members: epoch.members, epoch };
    const members = isAlone ? [position] : bankOf(position, board.positions, candidates);
    return { members: members.map(placed).filter((member) => member !== null), epoch: null };
  };
  const questionOf = (position: BoardPosition): JudgementQuestion | null => {
    const subject = position.kind === "electrolytic" ? placed(position) : null;
    if (!subject) return null;
    const { members: bank, epoch } = bankAround(subject);
    const around = which === "in_hand" ? undefined : surroundingsOf(position.netId, epoch);
    const isTelling = (reading: Reading) => epoch === null || !isInCircuit(reading) || epoch.holds(reading);
    const section = board.nets.find((net) => net.id === position.netId)?.section;
    return {
      subject,
      bank,
      ...(around && { surroundings: around }),
      ...(section && { section }),
      readings: placesIn(byPart.get(subject.part.id) ?? []).filter(isTelling),
      bankReadings: placesIn(
        [
          ...bank.flatMap((member) => byPart.get(member.part.id) ?? []),
          ...(position.netId && !around?.isSeries ? (byBank.get(position.netId) ?? []) : []),
        ].sort((a, b) => a - b),
      ).filter(isTelling),
      signs: latestSigns(board.signs, subject.part.id),
      rules,
      // What went in new is not of the parts that were counted.
      history:
        board.record && subject.part.origin === "found"
          ? partHistory(board.record, position.designator, subject.part, section ?? null)
          : null,
      baseline: (board.baseline ?? []).filter((one) => one.designator === position.designator),
      overrule: latestOverrule(board.overrules ?? [], subject.part.id),
    };
  };
  // All parts of a board share its leads, those of a bank their series: one chance comes from all.
  const questions = new Map(
    board.positions.flatMap((position) => {
      const question = questionOf(position);
      return question ? [[position.id, question] as const] : [];
    }),
  );
  const chances = boardChances(
    [...questions.values()],
    standing.filter((one) => one.targetKind === "unit"),
    constants,
  );
  return (position) => {
    const question = questions.get(position.id);
    return question && judgePart(question, constants, chances);
  };
}

/** What stands around the bank of a net: the next bank across a choke, from either side, and what conducts beside it. */
function bankSurroundings(
  net: BoardNet,
  board: BoardFacts,
  standing: readonly Reading[],
  candidates: readonly FittedPart[],
  placed: (position: BoardPosition) => PlacedPart | null,
): BankSurroundings {
  const next = board.nets.find((one) => one.network?.behindNetId === net.id);
  const otherId = net.network?.behindNetId ?? next?.id ?? null;
  const choke = net.network?.behindNetId ? net.network : (next?.network ?? null);
  const first = board.positions.find((one) => one.kind === "electrolytic" && one.netId === otherId);
  const acrossChoke = first
    ? bankOf(first, board.positions, candidates)
        .map(placed)
        .filter((member) => member !== null)
    : [];
  const own = new Set(board.positions.filter((one) => one.netId === net.id).map((one) => one.id));
  const ohms = standing
    .filter((one) => one.quantity === "resistance" && !one.isPowered && one.value !== null && one.value > 0)
    .filter(
      (one) =>
        one.targetId === net.id ||
        (own.has(one.targetId) &&
          isInCircuit(one) &&
          board.positions.some((at) => at.id === one.targetId && at.kind === "electrolytic")),
    )
    .at(-1);
  return {
    acrossChoke,
    chokeHenrys: acrossChoke.length > 0 ? (choke?.chokeHenrys ?? assumedChoke.henrys) : null,
    chokeOhms: choke?.chokeOhms ?? assumedChoke.ohms,
    isChokeKnown: choke?.chokeHenrys != null,
    parallelOhms: ohms?.value ?? null,
    isSeries: net.network?.arrangement === "series",
  };
}

/** The last word of a person on a part; null where there is none, or it was taken back. */
function latestOverrule(overrules: readonly VerdictOverrule[], fittedPartId: string): Overrule | null {
  const last = inOrder(overrules.filter((one) => one.fittedPartId === fittedPartId)).at(-1);
  return last?.verdict ? { verdict: last.verdict, reason: last.reason, at: last.at } : null;
}

/** While a unit is judged as it came in, what was taken out since still belongs to its bank. */
function asFitted(part: FittedPart): FittedPart {
  return part.origin === "found" ? { ...part, removedAt: null } : part;
}
