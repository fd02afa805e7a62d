import type { ReworkStep } from "@pale-cap/core";
import { Op } from "sequelize";
import type { ReworkTickRow } from "../database/models/reworkTicks";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";

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

/** The stripe as it was seen on the part that stands there. */
async function noteStripe({ rows }: Scope, { positionId, stripeDegrees }: TickOfPlace): Promise<void> {
  const part = await rows.fittedParts.first({ positionId, removedAt: null });
  if (stripeDegrees !== null) await rows.fittedParts.update({ stripeDegrees }, { positionId, removedAt: null });
  else if (part && part.stripeDegrees === null && !part.isNonPolar) {
    throw new HttpProblem("conflict", "Where the stripe of the part points was not noted.");
  }
}

async function removePart({ rows }: Scope, { positionId, at }: TickOfPlace): Promise<void> {
  const count = await rows.fittedParts.update({ removedAt: at }, { positionId, origin: "found", removedAt: null });
  if (count !== 1) throw new HttpProblem("conflict", "There is no old part at this position to remove.");
}

async function putBack({ rows }: Scope, { positionId }: TickOfPlace): Promise<void> {
  if (await rows.fittedParts.has({ positionId, origin: "replacement", removedAt: null })) {
    throw new HttpProblem("conflict", "A new part is fitted here: take that back first.");
  }
  await rows.fittedParts.update({ removedAt: null }, { positionId, origin: "found" });
}

async function fitPart({ rows }: Scope, tick: TickOfPlace): Promise<void> {
  const { positionId, fittedPartId, stripeDegrees, at } = tick;
  const plan = await rows.replacementPlans.first({ positionId });
  if (!plan?.cataloguePartId || !fittedPartId) {
    throw new HttpProblem("conflict", "Nothing was chosen for this position yet.");
  }
  if (await rows.fittedParts.has({ positionId, removedAt: null })) {
    throw new HttpProblem("conflict", "The old part is still in this position: remove it first.");
  }
  const part = await rows.catalogueParts.first({ id: plan.cataloguePartId });
  if (!part) throw new HttpProblem("conflict", "The chosen part is not in the catalogue any more.");
  await rows.fittedParts.insert({
    id: fittedPartId,
    positionId,
    capacitanceFarads: part.capacitanceFarads,
    ratedVolts: part.ratedVolts,
    temperatureClassCelsius: part.temperatureClassCelsius,
    capacitorClass: part.capacitorClass,
    diameterMetres: part.diameterMetres,
    heightMetres: part.heightMetres,
    datasheetEsrOhms: part.esrOhms,
    stripeDegrees,
    origin: "replacement",
    cataloguePartId: part.id,
    fittedAt: at,
  });
}

/** An untick: the new part leaves again, its readings stay with it. */
async function takeOutAgain({ rows }: Scope, { positionId, at }: TickOfPlace): Promise<void> {
  const left = await rows.fittedParts.update({ removedAt: at }, { positionId, origin: "replacement", removedAt: null });
  if (left !== 1) throw new HttpProblem("conflict", "There is no new part at this position.");
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
