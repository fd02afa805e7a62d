import { type FactMoment, inOrder } from "../readings/factMoment";

/** What a step of taking apart was about. */
export const teardownKinds = ["screws", "earth_screws", "cable", "seam", "sheet", "other"] as const;
export type TeardownKind = (typeof teardownKinds)[number];

/** One step of taking a unit apart, in the order in which it was done. */
export interface TeardownStep {
  readonly id: string;
  readonly number: number;
  readonly kind: TeardownKind;
  /** How many came out; 1 for what is not counted. */
  readonly count: number;
}

/** What went back in at a step; what was stored last of a step stands. */
export interface TeardownReturn extends Pick<FactMoment, "sequence"> {
  readonly stepId: string;
  readonly countIn: number;
  readonly at: string;
}

export interface ClosingLine<T extends TeardownStep = TeardownStep> {
  readonly step: T;
  readonly countIn: number;
  readonly missingCount: number;
  readonly isBegun: boolean;
}

/** The way back: the steps in reverse, each with what went in against what came out. */
export function closingList<T extends TeardownStep>(
  steps: readonly T[],
  returns: readonly TeardownReturn[],
): readonly ClosingLine<T>[] {
  return [...steps]
    .sort((a, b) => b.number - a.number)
    .map((step) => {
      const last = inOrder(returns.filter((one) => one.stepId === step.id)).at(-1);
      const countIn = last?.countIn ?? 0;
      return { step, countIn, missingCount: Math.max(step.count - countIn, 0), isBegun: last !== undefined };
    });
}
