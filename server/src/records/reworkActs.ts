import { randomUUID } from "node:crypto";
import {
  isChosen,
  type JobAct,
  partBeside,
  type ReworkStep,
  type ReworkTick,
  roundNumber,
  roundStart,
} from "@pale-cap/core";
import { Op } from "sequelize";
import type { CataloguePartRow } from "../database/models/catalogueParts";
import type { ReplacementPlanRow } from "../database/models/replacementPlans";
import type { ReworkTickRow } from "../database/models/reworkTicks";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { canTake, moveStock } from "./stock";

/** A tick of one place: removing ends the part that was found there, fitting makes a new one from the plan. */
export interface TickOfPlace {
  readonly positionId: string;
  readonly fittedPartId: string | null;
  readonly stripeDegrees: number | null;
  readonly step: ReworkStep;
  readonly isDone: boolean;
  readonly at: Date;
}

/** What a tick does to the parts of its place; taking a tick back undoes it. */
export async function applyTick(scope: Scope, tick: TickOfPlace): Promise<void> {
  if (tick.step === "removed") await (tick.isDone ? removePart : putBack)(scope, tick);
  if (tick.step === "fitted") await (tick.isDone ? fitPart : takeOutAgain)(scope, tick);
  if (tick.step === "polarity_board_mark" && tick.isDone) await requireBoardRecord(scope, tick);
  if (tick.step === "polarity_part_mark" && tick.isDone) await noteStripe(scope, tick);
}

/** A tick over nothing confirms nothing: the board's mark, or what stands for it, comes first. */
async function requireBoardRecord({ rows }: Scope, { positionId }: TickOfPlace): Promise<void> {
  const isNoted = (await rows.positions.first({ id: positionId }))?.boardNegativeDegrees != null;
  if (isNoted || (await rows.jobActs.has({ kind: "polarity_seen", subjectId: positionId }))) return;
  throw new HttpProblem("conflict", "The board's polarity mark is not noted here yet, nor what stands for it.");
}

/** What stands in a place: not taken out, and not lying beside it. */
const standingIn = (positionId: string) => ({
  positionId,
  removedAt: null,
  [Op.or]: [{ origin: "found" as const }, { fittedAt: { [Op.ne]: null } }],
});

/** The stripe as it was seen on the part that stands there. */
async function noteStripe({ rows }: Scope, { positionId, stripeDegrees }: TickOfPlace): Promise<void> {
  const part = await rows.fittedParts.first(standingIn(positionId));
  if (stripeDegrees !== null) await rows.fittedParts.update({ stripeDegrees }, standingIn(positionId));
  else if (part && part.stripeDegrees === null && !part.isNonPolar) {
    throw new HttpProblem("conflict", "Where the stripe of the part points was not noted.");
  }
}

/** The part that stands there comes out: the old one, or in a later round one that was new in an earlier. */
async function removePart(scope: Scope, { positionId, at }: TickOfPlace): Promise<void> {
  const part = await scope.rows.fittedParts.first(standingIn(positionId));
  const isOfThisRound = part?.origin === "replacement" && (await wasFittedInRound(scope, positionId, part.id));
  if (!part && (await isUnlistedPlace(scope, positionId))) {
    await scope.rows.fittedParts.insert({ ...unknownPart, id: randomUUID(), positionId, removedAt: at });
    return;
  }
  if (!part || isOfThisRound) throw new HttpProblem("conflict", "There is no old part at this position to remove.");
  await scope.rows.fittedParts.update({ removedAt: at }, { id: part.id });
}

/** What other parts than capacitors have no row for: that one was found there is known once it came out. */
async function isUnlistedPlace({ rows }: Scope, positionId: string): Promise<boolean> {
  const kind = (await rows.positions.first({ id: positionId }))?.kind;
  return kind !== "electrolytic" && !(await rows.fittedParts.has({ positionId }));
}
const unknownPart = { origin: "found", stripeDegrees: null, fittedAt: null } as const;

async function putBack(scope: Scope, { positionId }: TickOfPlace): Promise<void> {
  if (await scope.rows.fittedParts.has(standingIn(positionId))) {
    throw new HttpProblem("conflict", "A new part is fitted here: take that back first.");
  }
  const parts = await scope.rows.fittedParts.all({ positionId }, [["id", "ASC"]]);
  const part = partBeside(parts, await ticksOf(scope, positionId), positionId);
  if (part) await scope.rows.fittedParts.update({ removedAt: null }, { id: part.id });
}

async function ticksOf(scope: Scope, positionId: string): Promise<readonly ReworkTick[]> {
  const rows = await scope.rows.reworkTicks.all({ positionId, cameAfterClosing: false }, [["sequence", "ASC"]]);
  return rows.map((row) => ({ ...row, at: row.at.toISOString(), receivedAt: null }));
}

async function roundActs(scope: Scope, jobId: string): Promise<readonly JobAct[]> {
  const rows = await scope.rows.jobActs.all({ jobId, kind: "still_faulty" }, [["sequence", "ASC"]]);
  return rows.map((row) => ({ ...row, at: row.at.toISOString(), receivedAt: null }));
}

/** The round that a job is in by what is stored. */
export const currentRound = async (scope: Scope, jobId: string): Promise<number> =>
  roundNumber(await roundActs(scope, jobId));

/** Whether a new part went in since the round began: in its own round it is taken back, never taken out. */
async function wasFittedInRound(scope: Scope, positionId: string, partId: string): Promise<boolean> {
  const start = scope.job === null ? null : roundStart(await roundActs(scope, scope.job.id));
  const ticks = await ticksOf(scope, positionId);
  const last = ticks.filter((one) => one.step === "fitted" && one.fittedPartId === partId).at(-1);
  return start === null || (last?.sequence ?? 0) > (start.sequence ?? 0);
}

/** What a piece of a catalogue part is marked with. */
export function asPart(part: CataloguePartRow) {
  const { capacitanceFarads, ratedVolts, temperatureClassCelsius, capacitorClass, diameterMetres, heightMetres } = part;
  const marking = { capacitanceFarads, ratedVolts, temperatureClassCelsius, capacitorClass };
  const { maker, series, orderCode, priceMinor } = part;
  const bought = { maker, series, orderCode, priceMinor };
  return { ...marking, ...bought, diameterMetres, heightMetres, datasheetEsrOhms: part.esrOhms };
}

async function fitPart(scope: Scope, tick: TickOfPlace): Promise<void> {
  const { rows } = scope;
  const { positionId, fittedPartId, stripeDegrees, at } = tick;
  const plan = await rows.replacementPlans.first({ positionId });
  const isOfRound = plan !== null && scope.job !== null && plan.round === (await currentRound(scope, scope.job.id));
  if (!plan || !isOfRound || !fittedPartId || !isChosen(plan)) {
    throw new HttpProblem("conflict", "Nothing was chosen for this position yet.");
  }
  if (await rows.fittedParts.has(standingIn(positionId))) {
    throw new HttpProblem("conflict", "The old part is still in this position: remove it first.");
  }
  const isNoCapacitor = (await rows.positions.first({ id: positionId }))?.kind !== "electrolytic";
  if (isNoCapacitor) {
    if (await isUnlistedPlace(scope, positionId)) {
      throw new HttpProblem("conflict", "The old part is still in this position: remove it first.");
    }
    await rows.fittedParts.insert({
      id: fittedPartId,
      positionId,
      origin: "replacement",
      fittedAt: at,
      ...(await asOther(scope, plan)),
    });
    return;
  }
  if (plan.partInHandId !== null) {
    if (plan.partInHandId !== fittedPartId)
      throw new HttpProblem("conflict", "Another part lies ready for this place.");
    const stripe = stripeDegrees === null ? {} : { stripeDegrees };
    const stockItemId = await takeFromDrawer(scope, plan);
    await rows.fittedParts.update({ fittedAt: at, removedAt: null, stockItemId, ...stripe }, { id: fittedPartId });
    return;
  }
  const part = plan.cataloguePartId === null ? null : await rows.catalogueParts.first({ id: plan.cataloguePartId });
  if (!part) throw new HttpProblem("conflict", "The chosen part is not in the catalogue any more.");
  const common = { id: fittedPartId, positionId, origin: "replacement", cataloguePartId: part.id } as const;
  const stockItemId = await takeFromDrawer(scope, plan);
  await rows.fittedParts.insert({ ...common, ...asPart(part), stripeDegrees, stockItemId, fittedAt: at });
}

/** What stands on another part that goes in: its type out of the list, or what was said of it. */
async function asOther({ rows }: Scope, { component, otherPart }: ReplacementPlanRow) {
  const id = component?.componentId ?? null;
  if (id === null) return { series: otherPart };
  const listed = await rows.catalogueComponents.first({ id });
  if (!listed) throw new HttpProblem("conflict", "The chosen part is not in the catalogue any more.");
  const { maker, typeNumber, priceMinor } = listed;
  return { maker, series: typeNumber, orderCode: typeNumber, priceMinor };
}

/**
 * What goes in leaves its drawer. That it went in is a fact, whatever the drawer says: where its promise is gone and nothing is
 * free, nothing is taken, and the part came from elsewhere.
 */
async function takeFromDrawer(
  scope: Scope,
  { stockItemId: itemId, positionId }: ReplacementPlanRow,
): Promise<string | null> {
  if (itemId === null || !(await canTake(scope, itemId, positionId))) return null;
  await moveStock(scope, { itemId, kind: "fitted", pieces: 1, positionId });
  return itemId;
}

/** An untick: the new part leaves again, its readings stay with it; one that was read before lies there as before. */
async function takeOutAgain(scope: Scope, { positionId, at }: TickOfPlace): Promise<void> {
  const { rows } = scope;
  const plan = await rows.replacementPlans.first({ positionId });
  const part = await rows.fittedParts.first({ ...standingIn(positionId), origin: "replacement" });
  if (!part) throw new HttpProblem("conflict", "There is no new part at this position.");
  const isInHand = plan?.partInHandId === part.id;
  await rows.fittedParts.update(isInHand ? { fittedAt: null } : { removedAt: at }, { id: part.id });
  const { stockItemId: itemId } = part;
  if (itemId !== null) await moveStock(scope, { itemId, kind: "put_back", pieces: 1, positionId });
}

/**
 * What came for a closed job is carried out when it is opened, in the order in which it came. A tick that does not go
 * together with the board any more is left: it is in the list, and the person who opens the job sees the place as it is.
 */
export async function applyLateTicks(scope: Scope, jobId: string, sinceSequence: number): Promise<void> {
  const late = await scope.rows.reworkTicks.all(
    { jobId, cameAfterClosing: true, sequence: { [Op.gt]: sinceSequence } },
    [["sequence", "ASC"]],
  );
  for (const tick of late) await tried(scope, tick);
}

async function tried(scope: Scope, tick: ReworkTickRow): Promise<void> {
  await scope.sql("SAVEPOINT late_tick");
  try {
    await applyTick(scope, tick);
  } catch (error) {
    if (!(error instanceof HttpProblem)) throw error;
    await scope.sql("ROLLBACK TO SAVEPOINT late_tick");
  }
}
