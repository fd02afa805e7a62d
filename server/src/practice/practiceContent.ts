import { randomUUID } from "node:crypto";
import type { PracticeBoard } from "@pale-cap/contract";
import type { BoardTypeContent, TypePart } from "@pale-cap/core";

/** The board of a practice supply as the board of a job: what can be read on it and on its label. */
export function practiceContent({ board, nets, places }: PracticeBoard): BoardTypeContent {
  const lineage = new Map(nets.map((net) => [net.name, randomUUID()] as const));
  return {
    board: { name: null, ...board, lidHeightMetres: null, outline: null, lidZones: [] },
    nets: nets.map((net) => ({
      ...{ lineageId: lineage.get(net.name) as string, name: net.name, section: net.section },
      ...{
        nominalVolts: net.nominalVolts,
        fullLoadAmps: net.fullLoadAmps,
        toleranceRatio: null,
        rippleLimitVolts: null,
      },
      ...{ converter: null, leastLoadAmps: null, isCurrentOutput: null },
      network:
        net.behind !== null || net.isInRow
          ? {
              arrangement: net.isInRow ? ("series" as const) : ("parallel" as const),
              behindNetId: net.behind === null ? null : (lineage.get(net.behind) ?? null),
              chokeHenrys: net.chokeHenrys,
              chokeOhms: net.chokeOhms,
            }
          : null,
    })),
    positions: places.map((one) => ({
      ...{ lineageId: randomUUID(), designator: one.at, kind: one.kind, markedOhms: one.markedOhms },
      netLineageId: one.net === null ? null : (lineage.get(one.net) ?? null),
      ...{ xMetres: one.place[0], yMetres: one.place[1], pitchMetres: one.capacitor?.pitchMetres ?? null },
      ...{ outlineWidthMetres: one.outline?.[0] ?? null, outlineDepthMetres: one.outline?.[1] ?? null },
      ...{ outlineHeightMetres: null, fixing: null, heatSource: null },
      // Printed on the board: the shaded half is minus, downwards as the stripes are.
      polarityMark: one.capacitor ? ("dark_half" as const) : null,
      boardNegativeDegrees: one.capacitor ? 90 : null,
      part: one.capacitor ? partOf(one.capacitor) : null,
    })),
  };
}

function partOf({ pitchMetres: _, ...printed }: NonNullable<PracticeBoard["places"][number]["capacitor"]>): TypePart {
  return {
    ...printed,
    ...{ stripeDegrees: 90, isNonPolar: false, datasheetEsrOhms: null, toleranceRatio: null, series: null },
  };
}
