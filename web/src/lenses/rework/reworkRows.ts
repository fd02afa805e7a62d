import type { FittedPartRow, JobDetail, Net, Position } from "@pale-cap/contract";
import { type CataloguePart, currentPart, doneSteps, foundPart, type ReworkStep } from "@pale-cap/core";
import { sourceLabels } from "@pale-cap/wording";
import { capacitorsInOrder } from "../../job/parts";

/** What goes in, of the catalogue or out of the hand. */
export interface NewPart {
  /** The same for parts that are alike: their places stand together. */
  readonly key: string;
  readonly name: string;
  readonly capacitanceFarads: number | null;
  readonly ratedVolts: number | null;
  readonly temperatureClassCelsius: number | null;
}

export interface ReworkRow {
  readonly position: Position;
  readonly net: Net | undefined;
  readonly found: FittedPartRow;
  readonly fitted: FittedPartRow | undefined;
  /** null: nothing was chosen, and the old part may come out all the same. */
  readonly replacement: NewPart | null;
  /** The part that lies ready; ticked in it keeps its readings. */
  readonly partInHandId: string | null;
  readonly done: ReadonlySet<ReworkStep>;
}

/** Places that get the same new part: removed, fitted and checked together. */
export interface ReworkRows {
  readonly key: string;
  readonly replacement: NewPart | null;
  readonly rows: readonly ReworkRow[];
}

const nothingKey = "nothing";

/**
 * The places of a round that are worked on, grouped by the part that goes in; last those for which nothing was chosen. A
 * plan for a part that the catalogue does not have waits for it.
 *
 * @param wanted places whose part is to come out, chosen or not
 */
export function reworkRows(
  detail: JobDetail,
  catalogue: readonly CataloguePart[] | undefined,
  wanted: ReadonlySet<string> = new Set(),
): readonly ReworkRows[] {
  const groups = new Map<string, ReworkRow[]>();
  const bare: ReworkRow[] = [];
  for (const { position, net } of capacitorsInOrder(detail)) {
    const plan = detail.plans.find((one) => one.positionId === position.id);
    const bought = catalogue?.find((one) => one.id === plan?.cataloguePartId);
    const own = detail.fittedParts.find((one) => one.id === plan?.partInHandId);
    const found = foundPart(detail.fittedParts, position.id);
    const isWaiting = Boolean(plan?.cataloguePartId) && !bought;
    if (isWaiting || !found) continue;
    const current = currentPart(detail.fittedParts, position.id);
    const fitted = current?.origin === "replacement" ? current : undefined;
    const done = doneSteps(detail.ticks, position.id);
    const replacement = bought ? ofCatalogue(bought) : own ? ofHand(own) : null;
    const row = { position, net, found, fitted, replacement, partInHandId: plan?.partInHandId ?? null, done };
    if (replacement) groups.set(replacement.key, [...(groups.get(replacement.key) ?? []), row]);
    else if (wanted.has(position.id) || done.size > 0) bare.push(row);
  }
  const chosen = [...groups].map(([key, rows]) => ({ key, replacement: (rows[0] as ReworkRow).replacement, rows }));
  return bare.length > 0 ? [...chosen, { key: nothingKey, replacement: null, rows: bare }] : chosen;
}

function ofCatalogue({ id, maker, series, ...part }: CataloguePart): NewPart {
  const { capacitanceFarads, ratedVolts, temperatureClassCelsius } = part;
  return { key: id, name: `${maker} ${series}`, capacitanceFarads, ratedVolts, temperatureClassCelsius };
}

function ofHand({ capacitanceFarads, ratedVolts, temperatureClassCelsius, series, source }: FittedPartRow): NewPart {
  const value = [capacitanceFarads, ratedVolts, temperatureClassCelsius, series, source];
  const name = `${series ?? "Own part"}, ${sourceLabels[source ?? "unknown"]}`;
  return { key: value.join("|"), name, capacitanceFarads, ratedVolts, temperatureClassCelsius };
}
