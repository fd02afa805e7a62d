import type { JobDetail, RunRow } from "@pale-cap/contract";
import { currentPart, foundPart, type RunSample } from "@pale-cap/core";
import { quantityFacts } from "../boardWords";

/** A table as a file for a spreadsheet has it; an empty cell is null. */
export interface FileTable {
  readonly fields: readonly string[];
  readonly rows: readonly (readonly (string | number | null | undefined)[])[];
}

/** Every reading of a job as it was taken, withdrawn and corrected ones too. */
export function readingsTable(detail: JobDetail): FileTable {
  const targetOf = (kind: string, id: string) =>
    (kind === "part"
      ? detail.positions.find((one) => one.id === id)?.designator
      : detail.nets.find((one) => one.id === id)?.name) ?? "unit";
  return {
    fields: [
      ...["measured at", "target", "terminals", "quantity", "value", "unit", "word", "circuit", "frequency Hz"],
      ...["temperature C", "powered", "load A", "instrument", "simulated", "withdrawn", "corrects", "id"],
    ],
    rows: detail.readings.map((one) => [
      ...[one.measuredAt, targetOf(one.targetKind, one.targetId), one.terminals, one.quantity, one.value],
      ...[quantityFacts[one.quantity].unit, one.coarseCode, one.circuitState, one.frequencyHertz],
      ...[one.temperatureCelsius, one.isPowered ? 1 : 0, one.loadAmps, one.instrument, one.isSimulated ? 1 : 0],
      ...[one.isWithdrawn ? 1 : 0, one.supersedesId, one.id],
    ]),
  };
}

const millimetres = (metres: number | null | undefined) => (metres == null ? null : Number((metres * 1e3).toFixed(3)));

/** What stood at each place and what stands there. */
export function partsTable(detail: JobDetail): FileTable {
  const netOf = (id: string | null) => detail.nets.find((one) => one.id === id)?.name ?? null;
  return {
    fields: [
      ...["designator", "kind", "net", "x mm", "y mm", "which", "capacitance F", "volts V", "class C", "maker"],
      ...["series", "diameter mm", "height mm", "ESR by sheet ohm"],
    ],
    rows: detail.positions.flatMap((place) => {
      const found = foundPart(detail.fittedParts, place.id);
      const current = currentPart(detail.fittedParts, place.id);
      const parts = found && current && found.id !== current.id ? [found, current] : [current ?? found];
      return parts.map((part, n) => [
        ...[place.designator, place.kind, netOf(place.netId), millimetres(place.xMetres), millimetres(place.yMetres)],
        ...[parts.length > 1 && n === 0 ? "found" : part && !current ? "found, out now" : "in"],
        ...[part?.capacitanceFarads, part?.ratedVolts, part?.temperatureClassCelsius, part?.maker, part?.series],
        ...[millimetres(part?.diameterMetres), millimetres(part?.heightMetres), part?.datasheetEsrOhms],
      ]);
    }),
  };
}

/** Where the parts sit, as docs/formats/positions.md has it. */
export function positionsTable(positions: JobDetail["positions"]): FileTable {
  return {
    fields: ["designator", "x", "y"],
    rows: positions.flatMap(({ designator, xMetres, yMetres }) =>
      xMetres === null || yMetres === null ? [] : [[designator, millimetres(xMetres), millimetres(yMetres)]],
    ),
  };
}

/** Samples of a capture: nine digits keep a 32-bit number as it is. Numbers, not words: a minus before a word is taken for a formula. */
export function waveformTable(volts: ArrayLike<number>, intervalSeconds: number): FileTable {
  return {
    fields: ["time s", "volts V"],
    rows: Array.from(volts, (one, n) => [Number((n * intervalSeconds).toPrecision(9)), Number(one.toPrecision(9))]),
  };
}

/** One row a sample of a run; what an instrument did not say stays empty. */
export function runTable(
  { plan }: Pick<RunRow, "plan">,
  samples: readonly RunSample[],
  nameOf: (id: string | null) => string | null,
): FileTable {
  const { rails, spots } = plan;
  const name = (id: string | null) => nameOf(id) ?? "rail";
  return {
    fields: [
      ...["time s", "step", "paused", "drawn W", "ripple V p-p"],
      ...rails.flatMap((rail) => [`${name(rail.netId)} V`, `${name(rail.netId)} A`]),
      ...spots.map((spot) => `${spot.targetKind === "unit" ? "the unit" : name(spot.targetId)} C`),
    ],
    rows: samples.map((one) => [
      ...[one.seconds.toFixed(1), one.step + 1, one.isPaused ? 1 : 0, one.inputWatts, one.rippleVolts],
      ...rails.flatMap(({ netId }) => {
        const rail = one.rails.find((found) => found.netId === netId);
        return [rail?.volts, rail?.amps];
      }),
      ...spots.map((_, n) => one.celsius[n]),
    ]),
  };
}
