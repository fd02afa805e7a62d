import type { AddedList, BoardRows, Job, JobDetail, PlanRow } from "@pale-cap/contract";
import { noIntakeDetails } from "@pale-cap/contract";
import { Op, type Order } from "sequelize";
import { loadRecords } from "../casebook/loadRecords";
import type { BoardRow } from "../database/models/boards";
import type { CaptureDbRow } from "../database/models/captures";
import type { CustomerRow } from "../database/models/customers";
import type { JobCustomerRow } from "../database/models/jobCustomers";
import type { JobRow } from "../database/models/jobs";
import type { PhotoDbRow } from "../database/models/photos";
import type { PowerEventDbRow } from "../database/models/powerEvents";
import type { ReplacementPlanRow } from "../database/models/replacementPlans";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { loadBaselines } from "./baselines";

interface BoardBound {
  readonly boardId: string;
  readonly lineageId: string;
  readonly deletedAt: Date | null;
}

/** Loads whole jobs in a fixed number of queries, however many jobs there are. Lists come in the order of storing. */
export async function loadJobs(scope: Scope, jobIds: readonly string[]): Promise<readonly JobDetail[]> {
  const { rows } = scope;
  const ofJobs = { jobId: { [Op.in]: [...jobIds] } };
  const inOrder: Order = [["sequence", "ASC"]];
  const byId: Order = [["id", "ASC"]];

  const jobs = await rows.jobs.all({ id: { [Op.in]: [...jobIds] } }, [["number", "ASC"]]);
  const boards = await rows.boards.all({ ...ofJobs, deletedAt: null }, [["place", "ASC"]]);
  const ofBoards = { boardId: { [Op.in]: boards.map((board) => board.id) }, deletedAt: null };
  const nets = await rows.nets.all(ofBoards, byId);
  const positions = await rows.positions.all(ofBoards, byId);
  const ofPositions = { positionId: { [Op.in]: positions.map((position) => position.id) } };
  const fittedParts = await rows.fittedParts.all(ofPositions, byId);
  const plans = await rows.replacementPlans.all(ofPositions, byId);
  const links = await rows.jobCustomers.all(ofJobs, [["jobId", "ASC"]]);
  const customerIds = links.map((link) => link.customerId).filter((id) => id !== null);
  const customers = await rows.customers.all({ id: { [Op.in]: customerIds } }, byId);
  const baselines = await loadBaselines(scope, jobIds);
  const jobOfBoard = new Map(boards.map((board) => [board.id, board.jobId]));
  const jobOfPosition = new Map(positions.map((one) => [one.id, jobOfBoard.get(one.boardId)]));

  const byJob = <T extends { jobId: string }>(all: readonly T[]) => grouped(all, (one) => one.jobId);
  const perJob = {
    boards: byJob(boards),
    nets: grouped(nets, (net) => jobOfBoard.get(net.boardId)),
    positions: grouped(positions, (one) => jobOfBoard.get(one.boardId)),
    fittedParts: grouped(fittedParts, (part) => jobOfPosition.get(part.positionId)),
    plans: grouped(plans, (plan) => jobOfPosition.get(plan.positionId)),
    readings: byJob(await rows.readings.all(ofJobs, inOrder)),
    signs: byJob(await rows.signObservations.all(ofJobs, inOrder)),
    energyStores: byJob(await rows.energyStores.all(ofJobs, byId)),
    chargeEvents: byJob(await rows.chargeEvents.all(ofJobs, inOrder)),
    powerEvents: byJob(await rows.powerEvents.all(ofJobs, inOrder)),
    photos: byJob(await rows.photos.all(ofJobs, byId)),
    teardownSteps: byJob(await rows.teardownSteps.all({ ...ofJobs, isRemoved: false }, [["number", "ASC"]])),
    teardownReturns: byJob(await rows.teardownReturns.all(ofJobs, inOrder)),
    captures: byJob(await rows.captures.all({ ...ofJobs, isRemoved: false }, inOrder)),
    overrules: byJob(await rows.verdictOverrules.all(ofJobs, inOrder)),
    ticks: byJob(await rows.reworkTicks.all(ofJobs, inOrder)),
    acts: byJob(await rows.jobActs.all(ofJobs, inOrder)),
    acceptances: byJob(await rows.openPointAcceptances.all(ofJobs, inOrder)),
    quotes: byJob(await rows.quotes.all(ofJobs, inOrder)),
    quoteAnswers: byJob(await rows.quoteAnswers.all(ofJobs, inOrder)),
  };

  const records = await loadRecords(scope, jobs, perJob.nets, perJob.positions, perJob.fittedParts);

  return jobs.map((row): JobDetail => {
    const link = links.find((one) => one.jobId === row.id);
    const customer = customers.find((one) => one.id === link?.customerId);
    const own = <T>(groups: ReadonlyMap<string | undefined, readonly T[]>) => groups.get(row.id) ?? [];
    return toWire<JobDetail>({
      job: toJob(row, link, customer),
      boards: own(perJob.boards).map(toBoard),
      nets: own(perJob.nets).map(withoutLineage),
      positions: own(perJob.positions).map(withoutLineage),
      fittedParts: own(perJob.fittedParts),
      readings: own(perJob.readings).map(withoutJob),
      signs: own(perJob.signs).map(withoutJob),
      captures: own(perJob.captures).map(toCapture),
      overrules: own(perJob.overrules).map(withoutJob),
      baseline: baselines.get(row.id) ?? [],
      energyStores: own(perJob.energyStores).map(withoutJob),
      chargeEvents: own(perJob.chargeEvents).map(withoutJob),
      powerEvents: own(perJob.powerEvents).map(toPowerEvent).map(withoutJob),
      photos: own(perJob.photos).map(toPhoto),
      teardownSteps: own(perJob.teardownSteps).map(withoutJob),
      teardownReturns: own(perJob.teardownReturns).map(withoutJob),
      plans: own(perJob.plans).map(toPlan),
      ticks: own(perJob.ticks).map(withoutJob),
      acts: own(perJob.acts).map(withoutJob),
      acceptances: own(perJob.acceptances).map(withoutJob),
      quotes: own(perJob.quotes).map(withoutJob),
      quoteAnswers: own(perJob.quoteAnswers).map(withoutJob),
      record: records.get(row.id) ?? null,
    });
  });
}

/** What was added to a job after a place in the order, list by list. */
export async function loadAdded(
  { rows }: Scope,
  jobId: string,
  after: number,
): Promise<{ readonly [K in AddedList]: JobDetail[K] }> {
  const later = { jobId, sequence: { [Op.gt]: after } };
  const inOrder: Order = [["sequence", "ASC"]];
  return toWire<{ readonly [K in AddedList]: JobDetail[K] }>({
    readings: (await rows.readings.all(later, inOrder)).map(withoutJob),
    signs: (await rows.signObservations.all(later, inOrder)).map(withoutJob),
    overrules: (await rows.verdictOverrules.all(later, inOrder)).map(withoutJob),
    chargeEvents: (await rows.chargeEvents.all(later, inOrder)).map(withoutJob),
    powerEvents: (await rows.powerEvents.all(later, inOrder)).map(toPowerEvent).map(withoutJob),
    teardownReturns: (await rows.teardownReturns.all(later, inOrder)).map(withoutJob),
    ticks: (await rows.reworkTicks.all(later, inOrder)).map(withoutJob),
    acts: (await rows.jobActs.all(later, inOrder)).map(withoutJob),
    acceptances: (await rows.openPointAcceptances.all(later, inOrder)).map(withoutJob),
    quotes: (await rows.quotes.all(later, inOrder)).map(withoutJob),
    quoteAnswers: (await rows.quoteAnswers.all(later, inOrder)).map(withoutJob),
  });
}

/** Rows under what they have in common, in their order. */
export function grouped<T, K>(rows: readonly T[], key: (row: T) => K): ReadonlyMap<K, readonly T[]> {
  const groups = new Map<K, T[]>();
  for (const row of rows) {
    const group = groups.get(key(row));
    if (group) group.push(row);
    else groups.set(key(row), [row]);
  }
  return groups;
}

/** One job, or 404. */
export async function loadJob(scope: Scope, jobId: string): Promise<JobDetail> {
  const [detail] = await loadJobs(scope, [jobId]);
  if (!detail) throw new HttpProblem("not_found", "There is no job with this id.");
  return detail;
}

/** The rows of a unit's boards, as an edit of one answers with them. */
export async function loadBoardRows(scope: Scope, jobId: string): Promise<BoardRows> {
  const { boards, nets, positions, fittedParts } = await loadJob(scope, jobId);
  return { boards, nets, positions, fittedParts };
}

/** A value as it is before it travels: moments are still Date objects. */
export type BeforeWire<T> = T extends string
  ? T | Date
  : T extends readonly (infer Item)[]
    ? readonly BeforeWire<Item>[]
    : T extends object
      ? { readonly [K in keyof T]: BeforeWire<T[K]> }
      : T;

/** Moments as ISO text, as they will travel, so that core's functions see on the server what they see in the client. */
export function toWire<T>(value: BeforeWire<T>): T {
  return onWire(value) as T;
}

export const onWire = (value: unknown): unknown => JSON.parse(JSON.stringify(value));

export function withoutJob<T extends { jobId: string }>({ jobId: _, ...row }: T): Omit<T, "jobId"> {
  return row;
}

/** Which revision a board was copied from is told with its type, not with its measures. */
function toBoard({ jobId: _, boardTypeRevisionId: __, deletedAt: ___, ...board }: BoardRow) {
  return board;
}

/** Board rows travel without what only the tables need. */
function withoutLineage<T extends BoardBound>({ lineageId: _, deletedAt: __, ...row }: T) {
  return row;
}

function toJob(row: JobRow, link: JobCustomerRow | undefined, customer: CustomerRow | undefined): Job {
  const { createdAt, handedOverAt, ...rest } = row;
  return {
    ...rest,
    deviceKind: row.deviceKind as Job["deviceKind"],
    createdAt: createdAt.toISOString(),
    handedOverAt: handedOverAt?.toISOString() ?? null,
    customerName: customer?.name ?? null,
    customerContact: customer?.contact ?? null,
    ownersWords: link?.ownersWords ?? null,
    customerErasedAt: customer?.erasedAt?.toISOString() ?? null,
    // Jobs from before these notes existed have none.
    intakeDetails: { ...noIntakeDetails, ...row.intakeDetails },
  };
}

/** A photo travels without the hashes of its pixels: they have an address of their own. */
export function toPhoto({ jobId: _, imageSha256: __, thumbnailSha256: ___, personId: ____, ...photo }: PhotoDbRow) {
  return photo;
}

/** A capture travels without its samples: they have an address of their own. */
export function toCapture({ jobId: _, samplesSha256: __, isRemoved: ___, personId: ____, ...capture }: CaptureDbRow) {
  return capture;
}

/** The numbers of a test stand under another name in the table. */
export function toPowerEvent({ checkValues, ...event }: PowerEventDbRow) {
  return { ...event, values: checkValues };
}

/** Columns side by side in the table, grouped on the wire. */
export function toPlan(row: ReplacementPlanRow): PlanRow {
  const { id: _, positionId, version, cataloguePartId, partInHandId, stockItemId, round, reasons, ...more } = row;
  const { isLeftEmpty, component, otherPart, ...overrides } = more;
  return {
    positionId,
    version,
    cataloguePartId,
    partInHandId,
    stockItemId,
    isLeftEmpty,
    component,
    otherPart,
    round,
    overrides,
    reasons,
  };
}
