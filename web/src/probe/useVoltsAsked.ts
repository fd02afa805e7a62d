import { type QuantityKind, type VoltsFirst, voltsFirst } from "@pale-cap/core";
import { useCallback, useMemo, useState } from "react";
import { useJob } from "../job/JobContext";
import type { ProbeTarget } from "../job/workplaceSlice";

/** Quantities that put nothing across a part. */
const harmless: readonly QuantityKind[] = ["observation", "temperature"];

/**
 * Whether DC volts have to come before what is wanted on a part, until a person goes their own way there; and whether an
 * ohmmeter is refused there whatever anybody wants.
 */
export function useVoltsAsked(target: ProbeTarget | undefined, wantedOf: (hasOwnWay: boolean) => QuantityKind) {
  const { facts, rules, chargeStates, nowMilliseconds } = useJob();
  const [ownWayId, setOwnWayId] = useState<string | null>(null);
  const hasOwnWay = target !== undefined && ownWayId === target.id;
  const wanted = wantedOf(hasOwnWay);
  const before = useCallback(
    (quantity: QuantityKind): VoltsFirst | null => {
      const place = target?.kind === "part" ? facts.positions.find((one) => one.id === target.id) : undefined;
      // A new part out of the bag holds no charge of this unit.
      if (!place || target?.isNewPart || harmless.includes(quantity)) return null;
      return voltsFirst(facts, place, quantity, chargeStates, rules.charge, nowMilliseconds);
    },
    [facts, target, chargeStates, rules, nowMilliseconds],
  );
  const asked = useMemo(() => {
    const first = hasOwnWay ? null : before(wanted);
    return first?.isNeeded ? first : null;
  }, [before, wanted, hasOwnWay]);
  return {
    asked,
    wanted,
    goOwnWay: () => setOwnWayId(target?.id ?? null),
    /** Set where this quantity must not be measured there now. */
    refusalOf: (quantity: QuantityKind) => {
      const first = before(quantity);
      return first?.isRefused ? first : null;
    },
  };
}
