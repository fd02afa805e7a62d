import { foldHouseRules, jobFacts, photoLimits } from "@pale-cap/contract";
import {
  converterOf,
  coreVersion,
  overRangeCode,
  predictRipple,
  rankReplacements,
  replacementRequirement,
  seededRandom,
  usualCapacitorCelsius,
} from "@pale-cap/core";
import sharp from "sharp";
import { saveBlob } from "../../records/blobStore";
import { loadJob } from "../../records/loadJobs";
import { markStale } from "../../summaries/markStale";
import type { Database } from "../database";
import type { CataloguePartRow } from "../models/catalogueParts";
import type { FittedPartDbRow } from "../models/fittedParts";
import type { NetRow } from "../models/nets";
import type { PositionRow } from "../models/positions";
import type { ReadingDbRow } from "../models/readings";
import type { FactColumns } from "../models/table";
import { noCaller, type Scope } from "../scope";
import { fillDrawers } from "./demoDrawers";
import type { DemoJob, DemoReading } from "./demoJob";
import { demoClosedJobs, demoJobs } from "./demoJobs";
import { drawCapture } from "./drawCapture";
import { drawPhoto } from "./drawPhoto";
import { generateCatalogue, uuidFrom } from "./generateCatalogue";
import { generateComponents } from "./generateComponents";

/** Numbers that the shop's jobs start from: it did not open yesterday. */
const firstJobNumber = 537;
/** Ids of the demo's jobs stay what they always were, whatever their numbers. */
const firstSeedNumber = 137;
const demoSeed = 20261123;
/** Of its own seed, so that what comes after keeps its ids. */
const componentSeed = 20261206;
const jobSeed = 20261130_000;
const peopleNames = ["Ines", "Marek", "Tomo"] as const;

/** Loads an invented shop into a demo database without jobs and people; any other is left as it is. */
export async function loadDemoShop(database: Database, now: Date): Promise<boolean> {
  return database.write(now, noCaller, async (scope) => {
    // Two starts at once must not both find it empty.
    await scope.sql("SELECT pg_advisory_xact_lock(727001)");
    if ((await scope.rows.people.has({})) || (await scope.rows.jobs.has({}))) return false;
    const random = seededRandom(demoSeed);
    const catalogue = generateCatalogue(random);
    await scope.rows.catalogueParts.insertAll(catalogue);
    const people = peopleNames.map((name) => ({ id: uuidFrom(random), name }));
    await scope.rows.people.insertAll(people);
    await fillDrawers(scope, catalogue, random);
    await scope.rows.catalogueComponents.insertAll(generateComponents(seededRandom(componentSeed)));
    await writeClosedJobs(scope, random);
    for (const [index, demo] of demoJobs.entries()) {
      const personId = people.find((person) => person.name === demo.person)?.id ?? null;
      await new DemoWriter(scope, random, catalogue, personId).write(demo, firstJobNumber + index);
    }
    await scope.sql("SELECT setval(pg_get_serial_sequence('jobs', 'number'), (SELECT max(number) FROM jobs))");
    return true;
  });
}

/** Old repairs before the shop's open ones: numbers just below theirs. */
async function writeClosedJobs(scope: Scope, random: () => number): Promise<void> {
  const ago = (days: number) => new Date(scope.now.getTime() - days * 86_400_000);
  for (const [index, { daysAgo, ...closed }] of demoClosedJobs.entries()) {
    const id = uuidFrom(random);
    await scope.rows.jobs.insert({
      ...closed,
      id,
      realm: scope.realm,
      number: firstJobNumber - demoClosedJobs.length + index,
      deviceKind: "monitor",
      deviceMaker: "Brambix",
      symptoms: [],
      createdAt: ago(daysAgo + 4),
      handedOverAt: ago(daysAgo),
      warrantyUntil: ago(daysAgo - 183)
        .toISOString()
        .slice(0, 10),
    });
    const size = { widthMetres: 0.15, depthMetres: 0.1, barrierMetres: 0.07 };
    await scope.rows.boards.insert({ ...size, id: uuidFrom(random), jobId: id, lidZones: [] });
    await markStale(scope, id);
  }
}

/** The clock by which the demo's people logged. */
const demoClock = "019a0000-0000-7000-8000-00000000c10c";

/** Writes one demo job row by row; keeps the ids that later rows refer to. */
class DemoWriter {
  private readonly netIds = new Map<string, string>();
  private readonly otherIds = new Map<string, string>();
  private readonly positions = new Map<string, PositionRow>();
  private readonly parts = new Map<string, FittedPartDbRow>();
  private readonly nets = new Map<string, NetRow>();
  private readonly plans = new Map<string, CataloguePartRow>();
  private jobId = "";

  /** What was logged, to be stored in the order in which it happened. */
  private logged: { readonly at: Date; readonly store: () => Promise<void> }[] = [];

  constructor(
    private readonly scope: Scope,
    private readonly random: () => number,
    private readonly catalogue: readonly CataloguePartRow[],
    private readonly personId: string | null,
  ) {}

  async write(demo: DemoJob, number: number): Promise<void> {
    await this.writeJob(demo, number);
    await this.writeBoard(demo);
    await this.writeCharge(demo);
    await this.writeOpening(demo);
    await this.writeSigns(demo);
    await this.writeReadings(demo.readings);
    await this.writePlans(demo);
    await this.writeComponents(demo);
    await this.writeTicks(demo);
    await this.writeReadings(demo.proof);
    await this.storeLogged();
    await this.writeCaptures(demo);
    await markStale(this.scope, this.jobId);
  }

  private log(at: Date, store: (moment: Omit<FactColumns, "sequence">) => Promise<void>): void {
    const moment = { clockId: demoClock, receivedAt: at, clockAheadSeconds: 0, cameAfterClosing: false };
    this.logged.push({ at, store: () => store(moment) });
  }

  private async storeLogged(): Promise<void> {
    for (const { store } of this.logged.sort((a, b) => a.at.getTime() - b.at.getTime())) await store();
  }

  /** What a scope would have shown on a rail with its parts as they were read. */
  private async writeCaptures(demo: DemoJob): Promise<void> {
    const { jobId } = this;
    for (const [n, one] of (demo.captures ?? []).entries()) {
      const detail = await loadJob(this.scope, jobId);
      const facts = jobFacts(detail);
      const net = detail.nets.find((candidate) => candidate.id === this.netIds.get(one.net));
      if (!net) throw new Error(`No net ${one.net} on the demo board`);
      const prediction = predictRipple({
        board: { ...facts, chosen: new Map() },
        netId: net.id,
        converter: converterOf(net, facts),
        railVolts: net.nominalVolts,
        loadAmps: one.loadAmps,
        temperatureCelsius: usualCapacitorCelsius,
      });
      if (!prediction) throw new Error(`Nothing to reckon with on ${one.net}`);
      const { analysis, packed } = drawCapture(one, prediction.states.measured, prediction.described.source, n + 1);
      const createdAt = this.ago(one.minutesAgo);
      const samplesSha256 = await saveBlob(this.scope, packed, "application/octet-stream");
      const rig = {
        hasLongGroundLead: false,
        isAcCoupled: true,
        isIsolationTransformer: false,
        isBandwidthLimited: false,
      };
      await this.rows.captures.insert({
        ...{ id: this.id(), jobId, netId: net.id, name: one.name, loadAmps: one.loadAmps, rig, coreVersion, analysis },
        ...{ instrument: null, samplesSha256, isRemoved: false, measuredAt: createdAt, personId: this.personId },
        ...{ clockId: demoClock, receivedAt: createdAt, clockAheadSeconds: 0 },
      });
    }
  }

  private get rows() {
    return this.scope.rows;
  }

  private id(): string {
    return uuidFrom(this.random);
  }

  private ago(minutes: number): Date {
    return new Date(this.scope.now.getTime() - minutes * 60_000);
  }

  private day(daysFromNow: number): string {
    return new Date(this.scope.now.getTime() + daysFromNow * 86_400_000).toISOString().slice(0, 10);
  }

  private async writeJob(demo: DemoJob, number: number): Promise<void> {
    // Of its own seed: what changes in one job of the demo leaves the ids of the others as they are.
    this.jobId = uuidFrom(seededRandom(jobSeed + firstSeedNumber + number - firstJobNumber));
    const { customerName = null, customerContact = null, ownersWords = null, ...intake } = demo.intake;
    const handedOverAt = demo.handedOverMinutesAgo === null ? null : this.ago(demo.handedOverMinutesAgo);
    const warrantyDays = foldHouseRules([])["shop.warrantyMonths"] * 30.44 - (demo.handedOverMinutesAgo ?? 0) / 1440;
    await this.rows.jobs.insert({
      ...intake,
      symptoms: [...(intake.symptoms ?? [])],
      id: this.jobId,
      realm: this.scope.realm,
      takesSimulated: true,
      number,
      personId: this.personId,
      dueOn: demo.dueInDays === null ? null : this.day(demo.dueInDays),
      createdAt: this.ago(demo.minutesAgo),
      handedOverAt,
      warrantyUntil: handedOverAt ? this.day(warrantyDays) : null,
      spentMinutes: demo.spentMinutes ?? null,
    });
    const customerId = customerName || customerContact ? this.id() : null;
    if (customerId) {
      await this.rows.customers.insert({ id: customerId, name: customerName, contact: customerContact });
      await this.rows.jobCustomers.insert({ jobId: this.jobId, customerId, ownersWords });
    }
  }

  private async writeBoard(demo: DemoJob): Promise<void> {
    const boardId = this.id();
    await this.rows.boards.insert({ ...demo.board, id: boardId, jobId: this.jobId });
    for (const [key, values] of Object.entries(demo.nets)) {
      const id = this.id();
      this.netIds.set(key, id);
      const { network } = values;
      const behindNetId = network?.behindNetId ? (this.netIds.get(network.behindNetId) ?? null) : null;
      const linked = network && { ...network, behindNetId };
      const row = { ...values, network: linked, id, boardId, lineageId: id, version: 1, deletedAt: null } as NetRow;
      this.nets.set(id, row);
      await this.rows.nets.insert(row);
    }
    for (const one of demo.capacitors) {
      const id = this.id();
      const position = {
        id,
        boardId,
        lineageId: id,
        version: 1,
        designator: one.at,
        kind: "electrolytic",
        netId: this.netIds.get(one.net) ?? null,
        xMetres: one.place ? one.place[0] / 1e3 : null,
        yMetres: one.place ? one.place[1] / 1e3 : null,
        pitchMetres: one.can[2] / 1e3,
        polarityMark: one.mark,
        boardNegativeDegrees: one.stripeDegrees,
      } as PositionRow;
      this.positions.set(one.at, position);
      await this.rows.positions.insert(position);
      const part = {
        id: this.id(),
        positionId: id,
        capacitanceFarads: one.microfarads / 1e6,
        ratedVolts: one.volts,
        temperatureClassCelsius: one.celsius,
        capacitorClass: one.capacitorClass,
        diameterMetres: one.can[0] / 1e3,
        heightMetres: one.can[1] / 1e3,
        stripeDegrees: one.stripeDegrees,
        datasheetEsrOhms: null,
        origin: "found",
      } as FittedPartDbRow;
      this.parts.set(one.at, part);
      await this.rows.fittedParts.insert(part);
    }
    for (const [at, kind, left, top, width, depth, height] of demo.outlines) {
      const id = this.id();
      this.otherIds.set(at, id);
      await this.rows.positions.insert({
        id,
        boardId,
        lineageId: id,
        designator: at,
        kind,
        xMetres: (left + width / 2) / 1e3,
        yMetres: (top + depth / 2) / 1e3,
        outlineWidthMetres: width / 1e3,
        outlineDepthMetres: depth / 1e3,
        outlineHeightMetres: height === undefined ? null : height / 1e3,
        markedOhms: null,
      });
    }
  }

  private async writeCharge(demo: DemoJob): Promise<void> {
    const { jobId } = this;
    let storeId: string | null = null;
    for (const store of demo.stores) {
      storeId = this.id();
      await this.rows.energyStores.insert({
        id: storeId,
        jobId,
        name: store.name,
        positionId: this.positions.get(store.at)?.id ?? null,
        capacitanceFarads: store.microfarads / 1e6,
        expectedVolts: store.volts,
        kind: store.kind ?? "bulk",
        bleederOhms: store.bleederOhms ?? null,
        drainOhms: store.drainOhms,
      });
    }
    for (const event of demo.charge) {
      const at = this.ago(event.minutesAgo);
      const id = this.id();
      this.log(at, (moment) =>
        this.rows.chargeEvents.insert({
          ...moment,
          id,
          jobId,
          storeId: event.kind.startsWith("mains") ? null : storeId,
          kind: event.kind,
          volts: event.volts ?? null,
          resistanceOhms: event.ohms ?? null,
          isMeterProved: event.proved ?? false,
          at,
          personId: this.personId,
        }),
      );
    }
  }

  /** Photos of both sides, one with a mark on it, and the steps of taking apart. */
  private async writeOpening(demo: DemoJob): Promise<void> {
    const { jobId, personId } = this;
    const at = this.ago(demo.minutesAgo - 10);
    for (const kind of demo.hasPhotos ? (["board_top", "board_bottom"] as const) : []) {
      const image = await drawPhoto(demo, kind);
      const { width = 0, height = 0 } = await sharp(image).metadata();
      const thumbnail = await sharp(image).resize({ width: photoLimits.thumbnailSidePixels }).jpeg().toBuffer();
      const save = (bytes: Buffer) => saveBlob(this.scope, bytes, "image/jpeg");
      const bad = demo.capacitors.find((one) => demo.looked[one.at]?.includes("vented"));
      const place = kind === "board_top" ? bad?.place : null;
      const [x, y] = place
        ? [place[0] / 1e3 / demo.board.widthMetres, place[1] / 1e3 / demo.board.depthMetres]
        : [0, 0];
      const arrow = { id: this.id(), kind: "arrow" as const, x: x - 0.16, y: y + 0.13, toX: x - 0.025, toY: y + 0.03 };
      const word = { id: this.id(), kind: "text" as const, x: x - 0.3, y: y + 0.18, toX: null, toY: null };
      await this.rows.photos.insert({
        id: this.id(),
        jobId,
        kind,
        caption: null,
        marks: place
          ? [
              { ...arrow, text: null },
              { ...word, text: `${bad?.at} vented` },
            ]
          : [],
        imageSha256: await save(image),
        thumbnailSha256: await save(thumbnail),
        widthPixels: width,
        heightPixels: height,
        takenAt: at,
        personId,
      });
    }
    for (const [index, [kind, count, size, place]] of (demo.opening ?? []).entries()) {
      await this.rows.teardownSteps.insert({
        id: this.id(),
        jobId,
        number: index + 1,
        kind,
        count,
        size,
        place,
        photoId: null,
        doneAt: at,
        personId,
      });
    }
  }

  private async writeSigns(demo: DemoJob): Promise<void> {
    for (const [at, seen] of Object.entries(demo.looked)) {
      const fittedPartId = (this.parts.get(at) as FittedPartDbRow).id;
      const observed =
        seen.length > 0 ? seen.map((sign) => [sign, "seen"] as const) : ([["domed", "not_seen"]] as const);
      for (const [sign, state] of observed) {
        const observedAt = this.ago(demo.minutesAgo - 5);
        const row = {
          id: this.id(),
          jobId: this.jobId,
          fittedPartId,
          sign,
          state,
          observedAt,
          personId: this.personId,
        };
        this.log(observedAt, (moment) => this.rows.signObservations.insert({ ...row, ...moment }));
      }
    }
  }

  private async writeReadings(readings: readonly DemoReading[]): Promise<void> {
    for (const reading of readings) {
      const positionId = this.positions.get(reading.at)?.id ?? this.otherIds.get(reading.at);
      const netId = [...this.nets.values()].find((one) => one.name === reading.at)?.id;
      const measuredAt = this.ago(reading.minutesAgo);
      const row = {
        id: this.id(),
        jobId: this.jobId,
        targetKind: positionId ? "part" : "rail",
        targetId: positionId ?? (netId as string),
        fittedPartId: this.parts.get(reading.at)?.id ?? null,
        quantity: reading.quantity,
        value: reading.value,
        coarseCode: reading.value === null ? overRangeCode : null,
        terminals: reading.pins ?? null,
        circuitState: reading.state ?? null,
        frequencyHertz: reading.hertz ?? null,
        temperatureCelsius: null,
        isPowered: !positionId,
        loadAmps: positionId ? null : (reading.loadAmps ?? 0),
        rig: {
          isIsolationTransformer: false,
          isSeriesLamp: false,
          isElectronicLimiter: false,
          areLeadsZeroed: true,
          measuredAt: null,
        },
        isWithdrawn: false,
        measuredAt,
        personId: this.personId,
      } satisfies Partial<ReadingDbRow>;
      this.log(measuredAt, (moment) => this.rows.readings.insert({ ...row, ...moment }));
    }
  }

  /** The demo's technician takes what the ranking puts first. */
  private async writePlans(demo: DemoJob): Promise<void> {
    const voltageSchool = foldHouseRules([])["choose.voltageSchool"];
    for (const at of demo.plans) {
      const position = this.positions.get(at) as PositionRow;
      const net = this.nets.get(position.netId ?? "") ?? null;
      const part = { ...(this.parts.get(at) as FittedPartDbRow), fittedAt: null, removedAt: null };
      const requirement = replacementRequirement({ position, part, net, voltageSchool });
      if (!requirement) continue;
      const best = rankReplacements(requirement, net?.section ?? "other", this.catalogue).survivors[0];
      if (!best) throw new Error(`The invented catalogue holds nothing for ${at}`);
      this.plans.set(at, best.part as CataloguePartRow);
      await this.rows.replacementPlans.insert({
        id: this.id(),
        positionId: position.id,
        cataloguePartId: best.part.id,
      });
    }
  }

  /** Of its own seed, as the other parts of the list. */
  private async writeComponents(demo: DemoJob): Promise<void> {
    const random = seededRandom(componentSeed + 1);
    for (const [at, known] of Object.entries(demo.components ?? {})) {
      const component = { ...known, componentId: null };
      const positionId = this.otherIds.get(at) as string;
      await this.rows.replacementPlans.insert({ id: uuidFrom(random), positionId, component });
    }
  }

  private async writeTicks(demo: DemoJob): Promise<void> {
    const { jobId } = this;
    for (const tick of demo.ticks) {
      const at = this.ago(tick.minutesAgo);
      for (const designator of tick.at) {
        const positionId = (this.positions.get(designator) as PositionRow).id;
        if (tick.step === "removed") {
          await this.rows.fittedParts.update({ removedAt: at }, { positionId });
        }
        if (tick.step === "fitted") await this.fit(designator, at);
        const row = { id: this.id(), jobId, positionId, step: tick.step, isDone: true, at, personId: this.personId };
        this.log(at, (moment) => this.rows.reworkTicks.insert({ ...row, ...moment }));
      }
    }
  }

  private async fit(designator: string, at: Date): Promise<void> {
    const plan = this.plans.get(designator) as CataloguePartRow;
    const old = this.parts.get(designator) as FittedPartDbRow;
    const part = {
      id: this.id(),
      positionId: old.positionId,
      capacitanceFarads: plan.capacitanceFarads,
      ratedVolts: plan.ratedVolts,
      temperatureClassCelsius: plan.temperatureClassCelsius,
      capacitorClass: plan.capacitorClass,
      ...{ maker: plan.maker, series: plan.series, orderCode: plan.orderCode, priceMinor: plan.priceMinor },
      diameterMetres: plan.diameterMetres,
      heightMetres: plan.heightMetres,
      stripeDegrees: old.stripeDegrees,
      datasheetEsrOhms: plan.esrOhms,
      origin: "replacement",
      cataloguePartId: plan.id,
      fittedAt: at,
    } as FittedPartDbRow;
    this.parts.set(designator, part);
    await this.rows.fittedParts.insert(part);
  }
}
