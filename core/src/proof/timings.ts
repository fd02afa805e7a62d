import { type JobAct, lastActOf, type TimingName, timingNames } from "../facts/jobActs";
import type { ReworkTick } from "../facts/jobFacts";
import { isBefore } from "../readings/factMoment";
import { type Falsifier, falsifiedBy } from "../readings/falsified";
import type { Rig } from "../readings/reading";
import { lastChange } from "./lastChange";

/** `repeat`: read through something that makes it say nothing; `no_limit`: nobody said how long it may take. */
export type TimingState = "within" | "above" | "repeat" | "no_limit";

export interface Timing {
  readonly name: TimingName;
  readonly seconds: number;
  readonly mostSeconds: number | null;
  readonly state: TimingState;
  /** With repeat: through what. */
  readonly by: Falsifier | null;
  readonly act: JobAct;
}

/** Read with a probe on the primary: behind a transformer, as it should be, and never asked for again without. */
const ofPrimary: readonly TimingName[] = ["vcc_up"];

/** What a time was read through, as one word in its act. */
export const timingRigs = ["none", "series_lamp", "electronic_limiter", "isolation_transformer"] as const;
export type TimingRig = (typeof timingRigs)[number];

/** The word for what stands in the way: a lamp before a limiter before a transformer. */
export function timingRigOf(rig: Rig): TimingRig {
  if (rig.isSeriesLamp) return "series_lamp";
  if (rig.isElectronicLimiter) return "electronic_limiter";
  return rig.isIsolationTransformer ? "isolation_transformer" : "none";
}

/**
 * Times by their names, the last of each since the last work, against the most they may be. What was read at an output through a lamp,
 * a limiter or a transformer is asked for again without it.
 */
export function timings(facts: {
  readonly acts: readonly JobAct[];
  readonly ticks: readonly ReworkTick[];
}): readonly Timing[] {
  const change = lastChange(null, facts);
  const acts = facts.acts.filter((act) => act.kind === "timing" && (change === null || isBefore(change, act)));
  return timingNames.flatMap((name): readonly Timing[] => {
    const act = lastActOf(
      acts.filter((one) => one.word === name),
      "timing",
      null,
    );
    if (!act || act.value == null) return [];
    const by = falsifiedBy({ quantity: "time", rig: rigOf(act.note), isPowered: true }, ofPrimary.includes(name));
    const most = act.numbers?.[0] ?? 0;
    const mostSeconds = most > 0 ? most : null;
    const isWithin = mostSeconds !== null && act.value <= mostSeconds;
    const state = by !== null ? "repeat" : mostSeconds === null ? "no_limit" : isWithin ? "within" : "above";
    return [{ name, seconds: act.value, mostSeconds, state, by, act }];
  });
}

function rigOf(word: string | null): Rig {
  return {
    isSeriesLamp: word === "series_lamp",
    isElectronicLimiter: word === "electronic_limiter",
    isIsolationTransformer: word === "isolation_transformer",
  };
}
