import type { Position, StockedPart } from "@pale-cap/contract";
import {
  type BankFilling,
  converterOf,
  fedRail,
  leftEmptyIds,
  type PredictionQuestion,
  usualCapacitorCelsius,
} from "@pale-cap/core";
import { useEffect, useMemo, useState } from "react";
import { useJob } from "../../job/JobContext";
import { plannedParts, useChosenCatalogue } from "../../job/useChosenCatalogue";
import { rippleWorker } from "../../workers/useRipplePrediction";
import { secondCanOf } from "./useSecondCan";

/**
 * The ripple that each kit would leave at the promised load, by the ripple engine with the kit in its places; empty while it is
 * worked out.
 */
export function useKitRipple(
  places: readonly Position[],
  kits: readonly BankFilling[] | undefined,
  partOf: (id: string | null) => StockedPart | undefined,
): readonly (number | null)[] | "not_known" {
  const { detail, facts } = useJob();
  const catalogue = useChosenCatalogue();
  const [volts, setVolts] = useState<readonly (number | null)[]>([]);
  const net = detail.nets.find((one) => one.id === places[0]?.netId);
  const first = net && fedRail(detail.nets, net);
  const isKnown = first?.fullLoadAmps != null && first.section !== "bulk" && first.section !== "pfc";
  const questions = useMemo((): readonly PredictionQuestion[] => {
    if (!first || !isKnown || !kits) return [];
    const planned = plannedParts(detail.plans, catalogue);
    return kits.map((kit) => {
      const chosen = new Map(planned);
      const emptyIds = new Set(leftEmptyIds(detail.plans));
      for (const place of places) {
        const earlier = secondCanOf(detail, place);
        if (earlier) emptyIds.add(earlier.id);
      }
      // A second can stands where its place will be: on the same rail, under a name of its own.
      const at = kit.sharedAt === undefined ? undefined : places[kit.sharedAt];
      const second = at && { ...at, id: `${at.id} second` };
      for (const [n, { id }] of [...places, ...(second ? [second] : [])].entries()) {
        const part = partOf(kit.ids[n] ?? null);
        chosen.delete(id);
        emptyIds.delete(id);
        if (!part) emptyIds.add(id);
        else {
          const { capacitanceFarads, esrOhms, rippleAmpsRms } = part;
          chosen.set(id, { capacitanceFarads, esrOhms, ratedRippleAmpsRms: rippleAmpsRms });
        }
      }
      const { nets, fittedParts, readings } = facts;
      const positions = second ? [...facts.positions, second] : facts.positions;
      return {
        board: { nets, positions, fittedParts, readings, chosen, emptyIds },
        netId: first.id,
        converter: converterOf(first, facts),
        ...{ railVolts: first.nominalVolts, loadAmps: first.fullLoadAmps, temperatureCelsius: usualCapacitorCelsius },
      };
    });
  }, [first, isKnown, kits, detail, catalogue, places, partOf, facts]);
  useEffect(() => {
    let isCurrent = true;
    setVolts([]);
    void (async () => {
      const found: (number | null)[] = [];
      for (const question of questions) {
        const answer = await rippleWorker().predict(question);
        if (!isCurrent) return;
        found.push("found" in answer ? (answer.found?.states.replaced.loadPeakToPeakVolts ?? null) : null);
        setVolts([...found]);
      }
    })();
    return () => {
      isCurrent = false;
    };
  }, [questions]);
  return isKnown ? volts : "not_known";
}
