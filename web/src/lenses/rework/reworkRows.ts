import type { FittedPartRow, JobDetail, Net, Position } from "@pale-cap/contract";
import { type CataloguePart, currentPart, doneSteps, foundPart, type ReworkStep } from "@pale-cap/core";
import { capacitorsInOrder } from "../../job/parts";

export interface ReworkRow {
  readonly position: Position;
  readonly net: Net | undefined;
  readonly found: FittedPartRow;
  readonly fitted: FittedPartRow | undefined;
  readonly replacement: CataloguePart;
  readonly done: ReadonlySet<ReworkStep>;
}

/** Places that get the same new part: removed, fitted and checked together. */
export interface ReworkRows {
  readonly key: string;
  readonly replacement: CataloguePart;
  readonly rows: readonly ReworkRow[];
}

/** The planned places, grouped by the part that goes in. A plan for a part that the catalogue does not have waits for it. */
export function reworkRows(detail: JobDetail, catalogue: readonly CataloguePart[] | undefined): readonly ReworkRows[] {
  const groups = new Map<string, ReworkRow[]>();
  for (const { position, net } of capacitorsInOrder(detail)) {
    const plan = detail.plans.find((one) => one.positionId === position.id);
    const replacement = catalogue?.find((one) => one.id === plan?.cataloguePartId);
    const found = foundPart(detail.fittedParts, position.id);
    if (!replacement || !found) continue;
    const current = currentPart(detail.fittedParts, position.id);
    const fitted = current?.origin === "replacement" ? current : undefined;
    const row = { position, net, found, fitted, replacement, done: doneSteps(detail.ticks, position.id) };
    groups.set(replacement.id, [...(groups.get(replacement.id) ?? []), row]);
  }
  return [...groups].map(([key, rows]) => ({ key, replacement: (rows[0] as ReworkRow).replacement, rows }));
}
