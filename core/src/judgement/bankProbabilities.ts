import type { FittedPart } from "../board/board";
import type { ExpectedEsr } from "../capacitors/expectedEsr";
import type { JudgementConstants } from "../constants/judgementConstants";
import type { BankNetwork } from "../incircuit/bank";
import { type BankLook, bankStatesOfLooks } from "../incircuit/bankStates";

/** A can's own inductance, and how far new parts lie from the model: what a bank's reading cannot be sharper than. */
export const canHenrys = 12e-9;
const modelSpreadRatio = 0.25;
/** New parts lie up to a fifth from their marking. */
const markingSpreadRatio = 0.1;
const mostBankParts = 8;

export interface BankQuestion {
  readonly members: readonly {
    readonly part: FittedPart;
    readonly expected: ExpectedEsr | null;
    readonly isBehindChoke: boolean;
    /** ESR read with its lead up, at the bank's frequency, and its capacitance; null: not by itself. */
    readonly known: { readonly esrOhms: number; readonly capacitanceFarads: number | null } | null;
  }[];
  readonly esr: { readonly value: number; readonly frequencyHertz: number };
  readonly esrUncertaintyRatio: number;
  readonly capacitance: { readonly value: number; readonly frequencyHertz: number } | null;
  readonly capacitanceUncertaintyRatio: number;
  readonly network: BankNetwork;
}

/** The last bank that was listed: its parts are judged one after the other, and each asks the same. */
let last: { readonly key: string; readonly probabilities: readonly (number | null)[] } = { key: "", probabilities: [] };

/**
 * Chance of each part of a bank that it has failed or is open, from what the bank read in circuit, by listing all states
 * (bankStatesOfLooks): ESR and C each at its own frequency, parts across a choke as such, parts that were read with a lead
 * up as they are. Two to eight parts whose
 * markings are known; else none has a chance of its own.
 */
export function bankProbabilities(
  question: BankQuestion,
  constants: JudgementConstants["C"],
): readonly (number | null)[] {
  const { members, esr, capacitance, network } = question;
  if (members.length < 2 || members.length > mostBankParts) return [];
  const capacitors = members.flatMap(({ part, expected, isBehindChoke, known }) =>
    part.capacitanceFarads === null || expected === null
      ? []
      : [
          {
            capacitanceFarads: known?.capacitanceFarads ?? part.capacitanceFarads,
            esrOhms: known?.esrOhms ?? expected.typicalOhms,
            isKnown: known !== null,
            eslHenrys: canHenrys,
            isBehindChoke,
          },
        ],
  );
  if (capacitors.length < members.length) return [];
  const resistanceUncertaintyRatio = Math.hypot(question.esrUncertaintyRatio, modelSpreadRatio);
  const capacitanceUncertaintyRatio = Math.hypot(question.capacitanceUncertaintyRatio, markingSpreadRatio);
  const look = (frequencyHertz: number, more: Partial<BankLook>): BankLook => ({
    frequencyHertz,
    resistanceOhms: null,
    capacitanceFarads: null,
    resistanceUncertaintyRatio,
    capacitanceUncertaintyRatio,
    ...more,
  });
  const looks = [look(esr.frequencyHertz, { resistanceOhms: esr.value })];
  if (capacitance && capacitance.value > 0) {
    looks.push(look(capacitance.frequencyHertz, { capacitanceFarads: capacitance.value }));
  }
  const key = JSON.stringify([capacitors, looks, network, constants]);
  if (key !== last.key) {
    const { parts } = bankStatesOfLooks(capacitors, looks, network, constants);
    last = { key, probabilities: parts.map((part, n) => (members[n]?.known ? null : part.badProbability)) };
  }
  return last.probabilities;
}
