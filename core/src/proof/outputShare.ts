import type { BoardNet } from "../board/board";
import { sectionFacts } from "../board/sections";
import type { JobAct } from "../facts/jobActs";
import type { ReworkTick } from "../facts/jobFacts";
import { isBefore, secondsBetween } from "../readings/factMoment";
import { falsifiedBy } from "../readings/falsified";
import { loggedReading, type Reading, standingReadings } from "../readings/reading";
import { lastChange } from "./lastChange";

/** What was drawn, and what came out meanwhile. */
export interface OutputShare {
  readonly inputWatts: number;
  readonly outputWatts: number;
  /** null: next to nothing came out, that is what it draws idle. */
  readonly efficiencyRatio: number | null;
  readonly reading: Reading;
}

/** Volts that were read within this of the watts belong to them; less than this share out counts as idle. */
const [togetherSeconds, idleShare] = [120, 0.05] as const;

/**
 * What the unit draws, idle and loaded, since the last work: watts at its input beside the volts of its rails at their loads that were
 * read within two minutes by the same clock. What was read through a lamp, a limiter or a transformer says nothing of it.
 */
export function outputShares(
  nets: readonly BoardNet[],
  facts: {
    readonly readings: readonly Reading[];
    readonly ticks: readonly ReworkTick[];
    readonly acts: readonly JobAct[];
  },
): readonly OutputShare[] {
  const change = lastChange(null, facts);
  const own = standingReadings(facts.readings).filter(
    (one) =>
      one.isPowered &&
      one.value !== null &&
      falsifiedBy(one) === null &&
      (change === null || isBefore(change, loggedReading(one))),
  );
  const outputs = new Set(nets.filter((net) => !sectionFacts[net.section].isMainsSide).map((net) => net.id));
  return own
    .filter((one) => one.quantity === "power" && (one.value ?? 0) > 0)
    .map((reading): OutputShare => {
      const byRail = new Map<string, { readonly apart: number; readonly watts: number }>();
      for (const one of own) {
        if (one.targetKind !== "rail" || one.quantity !== "dc_voltage" || !outputs.has(one.targetId)) continue;
        const apart = secondsBetween(loggedReading(reading), loggedReading(one));
        if (apart === null || Math.abs(apart) > togetherSeconds) continue;
        // The nearest in time stands; of two equally near the later.
        if (Math.abs(apart) > (byRail.get(one.targetId)?.apart ?? Number.POSITIVE_INFINITY)) continue;
        const watts = Math.abs(one.value ?? 0) * (one.loadAmps ?? 0);
        byRail.set(one.targetId, { apart: Math.abs(apart), watts });
      }
      const outputWatts = [...outputs].reduce((sum, id) => sum + (byRail.get(id)?.watts ?? 0), 0);
      const inputWatts = reading.value ?? 0;
      const isIdle = outputWatts < idleShare * inputWatts;
      return { inputWatts, outputWatts, efficiencyRatio: isIdle ? null : outputWatts / inputWatts, reading };
    });
}
