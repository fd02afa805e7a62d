import { type QuantityKind, type VoltsFirst, voltsFirst } from "@pale-cap/core";
import { useMemo, useState } from "react";
import { useJob } from "../job/JobContext";
import type { ProbeTarget } from "../job/workplaceSlice";

/** Quantities that put nothing across a part. */
const harmless: readonly QuantityKind[] = ["observation", "temperature"];

/** Whether DC volts have to come before what is wanted on a part, until a person goes their own way there. */
export function useVoltsAsked(target: ProbeTarget | undefined, wantedOf: (hasOwnWay: boolean) => QuantityKind) {
  const { facts, rules, chargeStates, nowMilliseconds } = useJob();
  const [ownWayId, setOwnWayId] = useState<string | null>(null);
  const hasOwnWay = target !== undefined && ownWayId === target.id;
  const wanted = wantedOf(hasOwnWay);
  const asked = useMemo((): VoltsFirst | null => {
    const place = target?.kind === "part" ? facts.positions.find((one) => one.id === target.id) : undefined;
    if (!place || hasOwnWay || harmless.includes(wanted)) return null;
    const first = voltsFirst(facts, place, wanted, chargeStates, rules.charge, nowMilliseconds);
    return first.isNeeded ? first : null;
  }, [facts, target, wanted, hasOwnWay, chargeStates, rules, nowMilliseconds]);
  return { asked, wanted, goOwnWay: () => setOwnWayId(target?.id ?? null) };
}
