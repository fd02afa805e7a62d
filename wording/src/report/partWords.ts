import type { FittedPartRow } from "@pale-cap/contract";
import { currentPart, formatMarkedCapacitance, foundPart, type PartKind } from "@pale-cap/core";
import { sourceLabels } from "../entryWords";
import type { ReportModel } from "./reportModel";

/** What parts are called to somebody who never opened one: one, and several. */
const plain: Readonly<Partial<Record<PartKind, readonly [string, string]>>> = {
  electrolytic: ["electrolytic capacitor", "electrolytic capacitors"],
  film: ["film capacitor", "film capacitors"],
  diode: ["rectifier diode", "rectifier diodes"],
  bridge: ["bridge rectifier", "bridge rectifiers"],
  transistor: ["power transistor", "power transistors"],
  fuse: ["fuse", "fuses"],
  resistor: ["resistor", "resistors"],
  ic: ["control chip", "control chips"],
  optocoupler: ["optocoupler", "optocouplers"],
  connector: ["connector", "connectors"],
  relay: ["relay", "relays"],
  fan: ["fan", "fans"],
};

/** So many of a kind, in plain words. */
export function countedKind(kind: PartKind, count: number): string {
  const [one, several] = plain[kind] ?? ["part", "parts"];
  return `${count} ${count === 1 ? one : several}`;
}

export interface FittedNow {
  readonly designator: string;
  readonly kind: PartKind;
  readonly part: FittedPartRow;
}

const byName = (a: { designator: string }, b: { designator: string }) =>
  a.designator.localeCompare(b.designator, "en", { numeric: true });

/** New parts that stand in the unit, whichever round put them there. */
export function fittedNow({ detail }: Pick<ReportModel, "detail">): readonly FittedNow[] {
  return detail.positions
    .flatMap(({ id, designator, kind }) => {
      const part = currentPart(detail.fittedParts, id);
      return part?.origin === "replacement" ? [{ designator, kind, part }] : [];
    })
    .sort(byName);
}

/** Places that were filled when the unit came and are empty now. */
export function emptyNow({ detail }: Pick<ReportModel, "detail">): readonly string[] {
  return detail.positions
    .filter(({ id }) => foundPart(detail.fittedParts, id) && !currentPart(detail.fittedParts, id))
    .map((one) => one.designator)
    .sort((a, b) => a.localeCompare(b, "en", { numeric: true }));
}

/** What a part says of itself, as it was when it went in: what a catalogue says later changes nothing. */
export function partName({ maker, series, source }: FittedPartRow): string {
  if (maker) return `${maker} ${series ?? ""}`.trim();
  return [series, source && sourceLabels[source]].filter(Boolean).join(", ") || "own part";
}

export function partFigures(part: FittedPartRow): string {
  const { capacitanceFarads, ratedVolts, temperatureClassCelsius, diameterMetres, heightMetres } = part;
  return [
    capacitanceFarads === null ? "" : formatMarkedCapacitance(capacitanceFarads),
    ratedVolts === null ? "" : `${ratedVolts}\u00a0V`,
    temperatureClassCelsius === null ? "" : `${temperatureClassCelsius}\u00a0°C`,
    diameterMetres === null || heightMetres === null
      ? ""
      : `${Number((diameterMetres * 1e3).toFixed(1))} × ${Number((heightMetres * 1e3).toFixed(1))} mm`,
  ]
    .filter(Boolean)
    .join(", ");
}
