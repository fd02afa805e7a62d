import { randomUUID } from "node:crypto";
import type { FittedPartDbRow } from "../../database/models/fittedParts";
import type { JobRow } from "../../database/models/jobs";
import type { NetRow } from "../../database/models/nets";
import type { PositionRow } from "../../database/models/positions";
import type { Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { markStale } from "../../summaries/markStale";

/**
 * Brings open units of a family up to the first of them: complaint, rails, places with their markings, and what was chosen. Places are
 * the same by their lineage. What a unit has of its own stays: readings, charge, proof, the way its parts lie, parts that went in, and
 * a marking that somebody read on it.
 */
export async function followStudy(scope: Scope, study: JobRow, unitIds: readonly string[]): Promise<void> {
  const family = await scope.rows.jobs.all({ jobFamilyId: study.jobFamilyId, realm: study.realm }, [["number", "ASC"]]);
  if (study.jobFamilyId === null || family[0]?.id !== study.id) {
    throw new HttpProblem("conflict", "Only the first unit of a family is what the others follow.");
  }
  const asked = family.filter((one) => one.id !== study.id && unitIds.includes(one.id));
  if (asked.length !== new Set(unitIds).size) {
    throw new HttpProblem("not_found", "Not all of these are units of this family. Nothing was changed.");
  }
  // Held in the order of their ids, as everything that holds several jobs does.
  for (const { id } of [...asked].sort((a, b) => a.id.localeCompare(b.id))) {
    const unit = await scope.rows.jobs.locked({ id });
    if (!unit || unit.handedOverAt !== null) continue;
    await follow(scope, study, unit);
    await markStale(scope, id);
  }
}

async function follow(scope: Scope, study: JobRow, unit: JobRow): Promise<void> {
  const { complaint, symptoms, symptomNote, intakeDetails } = study;
  const own = { ...unit.intakeDetails, topology: intakeDetails.topology ?? null };
  const intake = JSON.parse(JSON.stringify(own)) as JobRow["intakeDetails"];
  await scope.rows.jobs.update(
    { complaint, symptoms, symptomNote, intakeDetails: intake, version: unit.version + 1 },
    { id: unit.id },
  );
  const from = await partsOf(scope, study.id);
  const to = await partsOf(scope, unit.id);
  const boardId = to.boardIds[0];
  if (!boardId) return;
  const netIds = await followRails(scope, from.nets, to.nets, boardId);
  for (const place of from.positions) {
    const netId = place.netId === null ? null : (netIds.get(lineageIn(from.nets, place.netId)) ?? null);
    const mine = to.positions.find((one) => one.lineageId === place.lineageId);
    const positionId = mine?.id ?? randomUUID();
    await followPlace(scope, place, mine, { positionId, boardId, netId });
    const part = from.found.get(place.id);
    if (part) await followMarking(scope, part, to.found.get(positionId), positionId);
    if (!to.worked.has(positionId)) await followChoice(scope, place.id, positionId);
  }
}

async function partsOf({ rows }: Scope, jobId: string) {
  const boards = await rows.boards.all({ jobId, deletedAt: null }, [["place", "ASC"]]);
  const boardIds = boards.map((one) => one.id);
  const nets = await rows.nets.all({ boardId: boardIds, deletedAt: null }, [["id", "ASC"]]);
  const positions = await rows.positions.all({ boardId: boardIds, deletedAt: null }, [["id", "ASC"]]);
  const parts = await rows.fittedParts.all({ positionId: positions.map((one) => one.id) }, [["id", "ASC"]]);
  const found = parts.filter((one) => one.origin === "found");
  return {
    ...{ boardIds, nets, positions },
    found: new Map(found.map((one) => [one.positionId, one])),
    /** Something came out or went in there: what is chosen for it is that unit's own. */
    worked: new Set(parts.filter((one) => one.removedAt || one.fittedAt).map((one) => one.positionId)),
  };
}

const lineageIn = (nets: readonly NetRow[], id: string) => nets.find((one) => one.id === id)?.lineageId ?? id;

async function followRails(
  { rows }: Scope,
  from: readonly NetRow[],
  to: readonly NetRow[],
  boardId: string,
): Promise<ReadonlyMap<string, string>> {
  const ids = new Map(
    from.map((net) => [net.lineageId, to.find((one) => one.lineageId === net.lineageId)?.id ?? randomUUID()]),
  );
  for (const { id: _, version: __, boardId: ___, deletedAt: ____, network, ...values } of from) {
    const behind = network?.behindNetId ? (ids.get(lineageIn(from, network.behindNetId)) ?? null) : null;
    const linked = network && { ...network, behindNetId: behind };
    const id = ids.get(values.lineageId) as string;
    const mine = to.find((one) => one.id === id);
    if (mine) await rows.nets.update({ ...values, network: linked, version: mine.version + 1 }, { id });
    else await rows.nets.insert({ ...values, network: linked, id, boardId, version: 1 });
  }
  return ids;
}

/** Where it is and what it is; which way round is read on each unit. */
async function followPlace(
  { rows }: Scope,
  place: PositionRow,
  mine: PositionRow | undefined,
  at: { readonly positionId: string; readonly boardId: string; readonly netId: string | null },
): Promise<void> {
  const { designator, kind, lineageId, xMetres, yMetres, pitchMetres, markedOhms, fixing, heatSource } = place;
  const { outlineWidthMetres, outlineDepthMetres, outlineHeightMetres } = place;
  const values = {
    ...{ designator, kind, netId: at.netId, xMetres, yMetres, pitchMetres, markedOhms, fixing, heatSource },
    ...{ outlineWidthMetres, outlineDepthMetres, outlineHeightMetres },
  };
  if (mine) await rows.positions.update({ ...values, version: mine.version + 1 }, { id: mine.id });
  else await rows.positions.insert({ ...values, id: at.positionId, boardId: at.boardId, lineageId, version: 1 });
}

/** What the sleeve says, as far as nobody has read this unit's own. */
async function followMarking(
  { rows }: Scope,
  part: FittedPartDbRow,
  mine: FittedPartDbRow | undefined,
  positionId: string,
): Promise<void> {
  const { capacitanceFarads, ratedVolts, temperatureClassCelsius, capacitorClass, diameterMetres, heightMetres } = part;
  const { series, datasheetEsrOhms, toleranceRatio, isNonPolar } = part;
  const marking = {
    ...{ capacitanceFarads, ratedVolts, temperatureClassCelsius, capacitorClass, diameterMetres, heightMetres },
    ...{ series, datasheetEsrOhms, toleranceRatio },
  };
  if (!mine) {
    await rows.fittedParts.insert({
      ...marking,
      isNonPolar,
      id: randomUUID(),
      positionId,
      version: 1,
      origin: "found",
    });
    return;
  }
  const missing = Object.entries(marking).filter(
    ([name, value]) => value !== null && mine[name as keyof FittedPartDbRow] === null,
  );
  if (missing.length === 0) return;
  await rows.fittedParts.update({ ...Object.fromEntries(missing), version: mine.version + 1 }, { id: mine.id });
}

/** The same part of the catalogue, left empty likewise; a piece that lies in the hand is one unit's. */
async function followChoice({ rows }: Scope, fromId: string, toId: string): Promise<void> {
  const plan = await rows.replacementPlans.first({ positionId: fromId }, [["round", "DESC"]]);
  if (!plan) return;
  const { cataloguePartId, isLeftEmpty, component, otherPart } = plan;
  const chosen = { cataloguePartId, isLeftEmpty, component, otherPart };
  const mine = await rows.replacementPlans.first({ positionId: toId }, [["round", "DESC"]]);
  if (mine) await rows.replacementPlans.update({ ...chosen, version: mine.version + 1 }, { id: mine.id });
  else await rows.replacementPlans.insert({ ...chosen, id: randomUUID(), positionId: toId });
}
