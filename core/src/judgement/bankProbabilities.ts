import type { FittedPart } from "../board/board";
import type { ExpectedEsr } from "../capacitors/expectedEsr";
import type { JudgementConstants } from "../constants/judgementConstants";
import { bankStates } from "../incircuit/bankStates";

/** A can's own inductance, and how far new parts lie from the model: what a bank's reading cannot be sharper than. */
const canHenrys = 12e-9;
const modelSpreadRatio = 0.25;
const mostBankParts = 8;

/** The last bank that was listed: its parts are judged one after the other, and each asks the same. */
let last: { readonly key: string; readonly probabilities: readonly (number | null)[] } = { key: "", probabilities: [] };

/**
 * Chance of each part of a bank that it has failed or is open, from one reading in circuit, by listing all states
 * (bankStates). Two to eight parts whose markings are known; else none has a chance of its own.
 */
export function bankProbabilities(
  members: readonly { readonly part: FittedPart; readonly expected: ExpectedEsr }[],
  reading: { readonly value: number; readonly frequencyHertz: number },
  uncertaintyRatio: number,
  constants: JudgementConstants["C"],
): readonly (number | null)[] {
  if (members.length < 2 || members.length > mostBankParts) return [];
  const capacitors = members.flatMap(({ part, expected }) =>
    part.capacitanceFarads === null
      ? []
      : [{ capacitanceFarads: part.capacitanceFarads, esrOhms: expected.typicalOhms, eslHenrys: canHenrys }],
  );
  if (capacitors.length < members.length) return [];
  const resistanceUncertaintyRatio = Math.hypot(uncertaintyRatio, modelSpreadRatio);
  const key = JSON.stringify([
    capacitors,
    reading.value,
    reading.frequencyHertz,
    resistanceUncertaintyRatio,
    constants,
  ]);
  if (key !== last.key) {
    const asRead = {
      resistanceOhms: reading.value,
      capacitanceFarads: null,
      resistanceUncertaintyRatio,
      capacitanceUncertaintyRatio: 1,
    };
    const { parts } = bankStates(capacitors, reading.frequencyHertz, asRead, {}, constants);
    last = { key, probabilities: parts.map((part) => part.badProbability) };
  }
  return last.probabilities;
}
