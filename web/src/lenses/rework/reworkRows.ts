import type { FittedPartRow, JobDetail, Net, PlanRow, Position } from "@pale-cap/contract";
import { capacitorsInOrder } from "@pale-cap/contract";
import {
  type CatalogueComponent,
  type CataloguePart,
  currentPart,
  doneSteps,
  foundPart,
  type ReworkStep,
  sections,
  stepsOf,
} from "@pale-cap/core";
import { sourceLabels } from "@pale-cap/wording";

/** What goes in, of the catalogue, out of the hand, or in words. */
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
  /** undefined: nothing was found there, or it is no capacitor. */
  readonly found: FittedPartRow | undefined;
  readonly fitted: FittedPartRow | undefined;
  /** null: nothing was chosen, and the old part may come out all the same. */
  readonly replacement: NewPart | null;
  /** The part that lies ready; ticked in it keeps its readings. */
  readonly partInHandId: string | null;
  readonly done: ReadonlySet<ReworkStep>;
  /** What this place asks for. */
  readonly steps: readonly ReworkStep[];
}

/** Places that get the same new part: removed, fitted and checked together. */
export interface ReworkRows {
  readonly key: string;
  readonly replacement: NewPart | null;
  readonly rows: readonly ReworkRow[];
}

const nothingKey = "nothing";

/**
 * The places of a round that are worked on, grouped by the part that goes in: capacitors first, then every other kind; last those
 * for which nothing was chosen. A plan for a part that the catalogue does not have waits for it.
 *
 * @param wanted places whose part is to come out, chosen or not
 */
export function reworkRows(
  detail: JobDetail,
  catalogue: readonly CataloguePart[] | undefined,
  wanted: ReadonlySet<string> = new Set(),
  components: readonly CatalogueComponent[] | undefined = [],
): readonly ReworkRows[] {
  const groups = new Map<string, ReworkRow[]>();
  const bare: ReworkRow[] = [];
  for (const { position, net } of [...capacitorsInOrder(detail), ...othersInOrder(detail)]) {
    const plan = detail.plans.find((one) => one.positionId === position.id);
    const replacement = newPartOf(plan, detail, catalogue, components);
    const found = foundPart(detail.fittedParts, position.id);
    const isAdded = position.kind === "electrolytic" && !found;
    if (replacement === "waits" || (isAdded && replacement === null)) continue;
    const current = currentPart(detail.fittedParts, position.id);
    const fitted = current?.origin === "replacement" ? current : undefined;
    const done = doneSteps(detail.ticks, position.id);
    const asked = stepsOf(position.kind, plan?.isLeftEmpty);
    const steps = isAdded ? asked.filter((one) => one !== "removed") : asked;
    const row = { position, net, found, fitted, replacement, partInHandId: plan?.partInHandId ?? null, done, steps };
    if (replacement) groups.set(replacement.key, [...(groups.get(replacement.key) ?? []), row]);
    else if (wanted.has(position.id) || done.size > 0 || plan?.isLeftEmpty) bare.push(row);
  }
  const chosen = [...groups].map(([key, rows]) => ({ key, replacement: (rows[0] as ReworkRow).replacement, rows }));
  return bare.length > 0 ? [...chosen, { key: nothingKey, replacement: null, rows: bare }] : chosen;
}

/** Parts that are no capacitors, from mains to output side, then as a person counts. */
function othersInOrder(detail: Pick<JobDetail, "positions" | "nets">) {
  const placed = detail.positions
    .filter((one) => one.kind !== "electrolytic" && one.kind !== "heat-sink")
    .map((position) => ({ position, net: detail.nets.find((net) => net.id === position.netId) }));
  const rank = (net: Net | undefined) => (net ? sections.indexOf(net.section) : sections.length);
  return placed.sort(
    (a, b) =>
      rank(a.net) - rank(b.net) || a.position.designator.localeCompare(b.position.designator, "en", { numeric: true }),
  );
}

/** `waits`: chosen, and the list that holds it is not there yet. */
function newPartOf(
  plan: PlanRow | undefined,
  detail: JobDetail,
  catalogue: readonly CataloguePart[] | undefined,
  components: readonly CatalogueComponent[] | undefined,
): NewPart | null | "waits" {
  if (!plan) return null;
  if (plan.cataloguePartId) {
    const bought = catalogue?.find((one) => one.id === plan.cataloguePartId);
    return bought ? ofCatalogue(bought) : "waits";
  }
  const own = detail.fittedParts.find((one) => one.id === plan.partInHandId);
  if (own) return ofHand(own);
  const componentId = plan.component?.componentId ?? null;
  if (componentId !== null) {
    const listed = components?.find((one) => one.id === componentId);
    return listed ? inWords(componentId, `${listed.maker} ${listed.typeNumber}`) : "waits";
  }
  return plan.otherPart == null ? null : inWords(plan.otherPart, plan.otherPart);
}

const inWords = (key: string, name: string): NewPart => ({
  ...{ key, name, capacitanceFarads: null, ratedVolts: null, temperatureClassCelsius: null },
});

function ofCatalogue({ id, maker, series, ...part }: CataloguePart): NewPart {
  const { capacitanceFarads, ratedVolts, temperatureClassCelsius } = part;
  return { key: id, name: `${maker} ${series}`, capacitanceFarads, ratedVolts, temperatureClassCelsius };
}

function ofHand({ capacitanceFarads, ratedVolts, temperatureClassCelsius, series, source }: FittedPartRow): NewPart {
  const value = [capacitanceFarads, ratedVolts, temperatureClassCelsius, series, source];
  const name = `${series ?? "Own part"}, ${sourceLabels[source ?? "unknown"]}`;
  return { key: value.join("|"), name, capacitanceFarads, ratedVolts, temperatureClassCelsius };
}
