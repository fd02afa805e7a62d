import type { JobDetail } from "@pale-cap/contract";
import { type ExpectedReading, expectedReading, type JobRules, type QuantityKind } from "@pale-cap/core";
import { expectationWords } from "@pale-cap/wording";
import { probedPart } from "../job/looseParts";
import type { ProbeSettings, ProbeTarget } from "../job/workplaceSlice";
import { frequencyOf } from "./draftReading";

/** Core's expected band with the words that go with it. */
export interface Expectation extends ExpectedReading {
  readonly note: string;
}

/** Where no temperature was said: a usual room. */
const roomCelsius = 20;

/** Expected band of a quantity at a target, under the bar's own conditions; null where nothing is known to compare with. */
export function expectation(
  detail: JobDetail,
  rules: JobRules,
  target: ProbeTarget | undefined,
  quantity: QuantityKind,
  settings: ProbeSettings,
): Expectation | null {
  if (!target) return null;
  const { part, where } = probedPart(detail, target);
  const found = expectedReading(detail, rules, {
    targetKind: target.kind,
    targetId: target.id,
    terminals: target.terminals ?? null,
    fittedPartId: where === "in_place" ? null : (part?.id ?? null),
    quantity,
    circuitState: where === "in_place" ? settings.circuitState : "out",
    frequencyHertz: frequencyOf(quantity, settings) ?? 100e3,
    temperatureCelsius: settings.temperatureCelsius ?? roomCelsius,
    leadOhms: settings.leadOhms,
    isLoaded: settings.loadAmps !== null && settings.loadAmps > 0,
  });
  return found && { ...found, note: expectationWords(found) };
}
