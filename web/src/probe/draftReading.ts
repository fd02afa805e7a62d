import type { JobDetail, NewReading } from "@pale-cap/contract";
import { type CoarseCode, deviceTestOf, type QuantityKind } from "@pale-cap/core";
import { pageClock } from "../api/clock";
import { newId } from "../api/newId";
import { probedPart } from "../job/looseParts";
import type { ProbeSettings, ProbeTarget } from "../job/workplaceSlice";
import { isUnderPower } from "./barQuantities";

/** What was read: a number, or a word that stands for one. */
export type ReadValue =
  | { readonly value: number; readonly code: null }
  | { readonly value: null; readonly code: CoarseCode };

/** A reading before the outbox says by which clock it was. */
export type DraftReading = Omit<NewReading, "clockId">;

/** A reading as it would be logged now. */
export function draftReading(of: {
  readonly detail: JobDetail;
  readonly target: ProbeTarget;
  readonly quantity: QuantityKind;
  readonly read: ReadValue;
  readonly settings: ProbeSettings;
  /** A drain hangs on its net. */
  readonly isDrainOn: boolean;
}): DraftReading {
  const { target, quantity, settings, read } = of;
  const kind = of.detail.positions.find((one) => one.id === target.id)?.kind;
  const isPowered =
    isUnderPower(target, quantity) ||
    (kind !== undefined && deviceTestOf(kind, target.terminals ?? null)?.isLive === true);
  const isPart = target.kind === "part";
  const { part, where } = probedPart(of.detail, target);
  return {
    id: newId(),
    targetKind: target.kind,
    targetId: target.id,
    fittedPartId: part?.id ?? null,
    quantity,
    value: read.value,
    coarseCode: read.code,
    terminals: target.terminals ?? null,
    uncertainty: null,
    circuitState: !isPart ? null : where === "in_place" ? settings.circuitState : "out",
    frequencyHertz: frequencyOf(quantity, settings),
    temperatureCelsius: settings.temperatureCelsius,
    isPowered,
    loadAmps: isPowered ? settings.loadAmps : null,
    rig: {
      isIsolationTransformer: isPowered && settings.rig.isIsolationTransformer,
      isSeriesLamp: isPowered && settings.rig.isSeriesLamp,
      isElectronicLimiter: isPowered && settings.rig.isElectronicLimiter,
      ...(of.isDrainOn && { isDrainOn: true }),
      areLeadsZeroed: settings.leadOhms === 0,
      measuredAt: null,
      ...(quantity === "leakage_current" && settings.testVolts !== null && { testVolts: settings.testVolts }),
      ...(quantity === "leakage_current" && settings.seriesOhms !== null && { seriesOhms: settings.seriesOhms }),
    },
    rawText: null,
    instrument: null,
    isWithdrawn: false,
    supersedesId: null,
    measuredAt: pageClock.moment(),
    personId: null,
  };
}

/** The tester's frequency for what depends on it. */
export function frequencyOf(quantity: QuantityKind, settings: ProbeSettings): number | null {
  if (quantity === "esr") return settings.esrFrequencyHertz;
  return quantity === "capacitance" || quantity === "dissipation" ? settings.capacitanceFrequencyHertz : null;
}
