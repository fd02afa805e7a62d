import { formatQuantity, isOpenAFault, mayReadOpen, overRangeCode, type QuantityKind, type Unit } from "@pale-cap/core";
import { useEffect } from "react";
import { useAppSelector } from "../app/store/hooks";
import type { ProbeTarget } from "../job/workplaceSlice";
import { frequencyOf, type ReadValue } from "./draftReading";
import { useLive } from "./instruments/useLive";
import { pointsText } from "./instruments/whoReads";

/** What the fitting instrument reads at the target just now; its probes follow there where that is wanted. */
export function useLiveRead(of: {
  readonly target: ProbeTarget | undefined;
  /** Of the part or the rail: designators are unique, a rail is probed by its own name. */
  readonly name: string | undefined;
  readonly quantity: QuantityKind;
  readonly unit: Unit;
}) {
  const { target, name, quantity, unit } = of;
  const settings = useAppSelector((state) => state.workplace.probe);
  const { isFollowing } = useAppSelector((state) => state.workplace.habits);
  const points = name === undefined ? null : pointsText(name, target?.kind === "part" ? target.terminals : null);
  const [live, probe] = useLive({
    points: target?.kind === "unit" && target.terminals === undefined ? "unit" : points,
    quantity,
    circuitState: target?.kind === "part" ? settings.circuitState : null,
    frequencyHertz: frequencyOf(quantity, settings),
  });
  useEffect(() => {
    if (isFollowing) void probe();
  }, [isFollowing, probe]);
  const read: ReadValue | null =
    live.value !== null
      ? { value: live.value, code: null }
      : // Probes in the air read open too: of a capacitor only a hand says that it is.
        live.isOpen && mayReadOpen(quantity) && !isOpenAFault(quantity)
        ? { value: null, code: overRangeCode }
        : null;
  const printed = live.value === null ? null : formatQuantity(live.value, unit, { significantDigits: 4 });
  return { live, probe, read, printed, text: printed?.number ?? (read ? "open" : null) };
}
