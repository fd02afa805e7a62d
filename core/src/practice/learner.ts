import { type BetaInterval, betaInterval } from "../casebook/betaInterval";

/** What a practice supply exercises. */
export const practiceSkills = ["draining", "in_circuit", "cascades", "choosing", "proving"] as const;
export type PracticeSkill = (typeof practiceSkills)[number];

/** How one supply went, skill by skill: so many trials, so many of them well. */
export type SkillTrials = Readonly<Partial<Record<PracticeSkill, { readonly good: number; readonly total: number }>>>;

/** A skill over all supplies: a share with the interval in which it lies. */
export interface SkillState extends BetaInterval {
  readonly skill: PracticeSkill;
  readonly good: number;
  readonly total: number;
}

/** Skills by counting, each with Jeffreys' prior. Order of the supplies does not matter. */
export function learnerState(past: readonly SkillTrials[]): readonly SkillState[] {
  return practiceSkills.map((skill) => {
    const trials = past.flatMap((one) => one[skill] ?? []);
    const good = trials.reduce((sum, one) => sum + one.good, 0);
    const total = trials.reduce((sum, one) => sum + one.total, 0);
    return { skill, good, total, ...betaInterval(good, total) };
  });
}

/**
 * By how much one more trial lets the doubt about a share fall, on average:
 *
 *     Var - E(Var after one trial) = ab / (n^2 (n + 1)^2),   n = a + b
 *
 * Solid: the law of total variance for a beta distribution.
 */
export function expectedVarianceDrop({ a, b }: Pick<BetaInterval, "a" | "b">): number {
  const n = a + b;
  return (a * b) / (n ** 2 * (n + 1) ** 2);
}

export interface OfferedSupply {
  readonly name: string;
  readonly difficulty: number;
  readonly skills: readonly PracticeSkill[];
}

/**
 * The supply from which most would be learnt about a learner: the largest drop of doubt over the skills that it exercises, among
 * those not done yet (all, once every one was done). Ties go to the easier, then to the earlier one.
 *
 * @returns null where none is offered
 */
export function nextSupply(
  offered: readonly OfferedSupply[],
  state: readonly SkillState[],
  doneNames: readonly string[],
): OfferedSupply | null {
  const fresh = offered.filter((one) => !doneNames.includes(one.name));
  const choice = fresh.length > 0 ? fresh : offered;
  const worth = ({ skills }: OfferedSupply) =>
    state.filter((one) => skills.includes(one.skill)).reduce((sum, one) => sum + expectedVarianceDrop(one), 0);
  return (
    choice
      .map((one) => ({ one, worth: worth(one) }))
      .reduce<{ one: OfferedSupply; worth: number } | null>((best, next) => {
        if (best === null || next.worth > best.worth + 1e-12) return next;
        const isEasier = next.worth > best.worth - 1e-12 && next.one.difficulty < best.one.difficulty;
        return isEasier ? next : best;
      }, null)?.one ?? null
  );
}
