import { noIntakeDetails } from "@pale-cap/contract";
import { seededRandom, symptomLabels } from "@pale-cap/core";
import type { FittedPartDbRow } from "../../models/fittedParts";
import type { JobRow } from "../../models/jobs";
import type { PositionRow } from "../../models/positions";
import type { ReadingDbRow } from "../../models/readings";
import { type PastUnit, placeName, simulatePast } from "./simulatePast";

type Row = Readonly<Record<string, unknown>>;

/** Rows of the past by table, in the order in which they may be stored. */
export type PastRows = ReadonlyMap<string, readonly Row[]>;

/** The past's jobs are numbered from here; the demo's own stand after them. */
export const firstPastNumber = 1;
const seed = 20261212;
const day = 86_400_000;
const minute = 60_000;
const clockId = "019a0000-0000-7000-8000-00000000c10c";
const fittedSeries = { maker: "Ostrel", series: "Brook" };

/** Every row of the invented past, the same under the same seed but for the days, which are counted back from now. */
export function pastRows(now: Date, people: readonly string[]): PastRows {
  const writer = new PastWriter(now, people);
  for (const [index, unit] of simulatePast().entries()) writer.write(unit, index);
  return writer.rows();
}

class PastWriter {
  private readonly tables = new Map<string, Row[]>(
    [
      ...["stock_items", "jobs", "boards", "nets", "positions", "fitted_parts", "stock_movements", "sign_observations"],
      ...["readings", "rework_ticks", "job_acts", "teardown_steps", "quotes", "job_closings", "typed_words"],
    ].map((name) => [name, []]),
  );
  private readonly random = seededRandom(seed);
  private readonly jobIds: string[] = [];
  private readonly heaps = new Map<string, string>();
  private readonly taken = new Map<string, number>();

  constructor(
    private readonly now: Date,
    private readonly people: readonly string[],
  ) {}

  rows(): PastRows {
    for (const [heap, count] of this.taken) {
      const at = new Date(this.now.getTime() - 1000 * day);
      const move = { itemId: heap, at, personId: null, reservedDelta: 0, positionId: null, orderLineId: null };
      this.put("stock_movements", { ...move, id: this.id(), kind: "received", countDelta: count, note: null });
      this.put("stock_movements", {
        ...{ ...move, at: new Date(this.now.getTime() - 12 * day) },
        ...{ id: this.id(), kind: "taken_out", countDelta: -count, note: "used up" },
      });
    }
    return this.tables;
  }

  write(unit: PastUnit, index: number): void {
    const jobId = this.id();
    this.jobIds.push(jobId);
    const personId = this.people[unit.person] ?? null;
    const closedAt = new Date(this.now.getTime() - unit.daysAgo * day);
    const createdAt = new Date(closedAt.getTime() - 2 * day);
    const at = (minutes: number) => new Date(createdAt.getTime() + minutes * minute);
    this.writeJob(unit, index, { jobId, personId, createdAt, closedAt });
    const boardId = this.id();
    const { board } = unit.like;
    this.put("boards", { ...board, id: boardId, jobId, version: 1, place: 1, deletedAt: null, lidZones: [] });
    const netIds = this.writeNets(unit, boardId);
    const fact = { jobId, personId };
    for (const one of unit.capacitors) {
      const positionId = this.id();
      this.put("positions", {
        ...positionOf(boardId, positionId),
        ...{ designator: one.at, kind: "electrolytic", netId: netIds.get(one.like.net) ?? null },
        ...{
          xMetres: metres(one.like.place?.[0]),
          yMetres: metres(one.like.place?.[1]),
          pitchMetres: one.like.can[2] / 1e3,
        },
        ...{ polarityMark: one.like.mark, boardNegativeDegrees: one.like.stripeDegrees },
        heatSource: one.isWarmed ? "beside the heat sink" : null,
      } satisfies PositionRow);
      const partId = this.id();
      const found = {
        ...{
          id: partId,
          positionId,
          version: 1,
          capacitanceFarads: one.like.microfarads / 1e6,
          ratedVolts: one.like.volts,
        },
        ...{ temperatureClassCelsius: one.like.celsius, capacitorClass: one.like.capacitorClass, isNonPolar: false },
        ...{ diameterMetres: one.like.can[0] / 1e3, heightMetres: one.like.can[1] / 1e3 },
        ...{ stripeDegrees: one.like.stripeDegrees, datasheetEsrOhms: null, toleranceRatio: null },
        ...(one.isRenewed ? fittedSeries : { series: one.series.name, maker: one.series.maker }),
        ...{ origin: "found", orderCode: null, priceMinor: null },
        ...{ cataloguePartId: null, source: null, stockItemId: null, fittedAt: null },
        removedAt: one.isReplaced ? at(90) : null,
      } satisfies FittedPartDbRow;
      this.put("fitted_parts", found);
      this.look({ ...fact, fittedPartId: partId, positionId: null, observedAt: at(12) }, one.isDomed);
      const read = { ...fact, targetKind: "part", targetId: positionId, fittedPartId: partId } as const;
      if (one.isReadInCircuit) {
        this.read({ ...read, quantity: "esr", value: inCircuitOhms(unit, one), circuitState: "in_circuit" }, at(30));
      }
      if (one.isReadOut) {
        const state = one.isReplaced ? "out" : "lead_lifted";
        this.read({ ...read, quantity: "esr", value: one.esrOhms, circuitState: state }, at(70));
        this.read({ ...read, quantity: "capacitance", value: one.farads, circuitState: state }, at(71));
      }
      if (one.isReplaced) this.replace(unit, found, { jobId, personId, positionId, at });
    }
    this.writeOthers(unit, boardId, fact, at);
    this.writeEnd(unit, fact, closedAt, at);
  }

  private writeJob(
    unit: PastUnit,
    index: number,
    {
      jobId,
      personId,
      createdAt,
      closedAt,
    }: { jobId: string; personId: string | null; createdAt: Date; closedAt: Date },
  ): void {
    const { model } = unit;
    const symptoms = [...unit.symptoms];
    const warranty = new Date(closedAt.getTime() + 183 * day).toISOString().slice(0, 10);
    this.put("jobs", {
      ...{ id: jobId, realm: "demo", takesSimulated: true, number: firstPastNumber + index, version: 3, personId },
      ...{
        deviceKind: model.deviceKind,
        deviceMaker: model.maker,
        deviceModel: model.model,
        deviceSerial: unit.serial,
      },
      ...{ deviceAgeYears: unit.ageYears, symptoms, symptomNote: null, priceLimitMinor: null, dueOn: null },
      complaint: complaintOf(symptoms),
      ...{ createdAt, handedOverAt: closedAt, warrantyUntil: unit.outcome === "repaired" ? warranty : null },
      ...{ handOverNote: null, spentMinutes: unit.spentMinutes, jobFamilyId: null, verdictSummary: null },
      intakeDetails: {
        ...noIntakeDetails,
        topology: model.topology,
        purpose: { ...noIntakeDetails.purpose, hoursPerDay: unit.hoursPerDay },
      },
      comebackOf: unit.returnOf === null ? null : (this.jobIds[unit.returnOf] ?? null),
      ...{ comebackKind: unit.returnOf === null ? null : "same_fault", origin: null },
    } satisfies JobRow);
  }

  private writeNets(unit: PastUnit, boardId: string): ReadonlyMap<string, string> {
    const ids = new Map(Object.keys(unit.like.nets).map((key) => [key, this.id()]));
    for (const [key, values] of Object.entries(unit.like.nets)) {
      const id = ids.get(key) as string;
      const behind = values.network?.behindNetId ?? null;
      const network = values.network && { ...values.network, behindNetId: behind && (ids.get(behind) ?? null) };
      this.put("nets", {
        ...{ ...values, network, id, boardId, lineageId: id, version: 1, deletedAt: null },
        ...{ leastLoadAmps: values.leastLoadAmps ?? null, isCurrentOutput: values.isCurrentOutput ?? null },
      });
    }
    return ids;
  }

  private replace(
    unit: PastUnit,
    found: FittedPartDbRow,
    job: { jobId: string; personId: string | null; positionId: string; at: (minutes: number) => Date },
  ): void {
    const { jobId, personId, positionId, at } = job;
    const fittedId = this.id();
    this.put("fitted_parts", {
      ...{ ...found, ...fittedSeries, id: fittedId, origin: "replacement", removedAt: null, fittedAt: at(100) },
      ...{
        source: "drawer",
        priceMinor: 40 + Math.round(30 * (found.diameterMetres ?? 0.008) * 100),
        stockItemId: this.heap(unit, found),
      },
    });
    const tick = { jobId, personId, positionId, isDone: true, stripeDegrees: found.stripeDegrees };
    this.log("rework_ticks", { ...tick, id: this.id(), step: "removed", fittedPartId: null, at: at(90) }, at(90));
    this.log("rework_ticks", { ...tick, id: this.id(), step: "fitted", fittedPartId: fittedId, at: at(100) }, at(100));
  }

  /** Big ones came out of a drawer whose lot is known. */
  private heap(
    unit: PastUnit,
    { capacitanceFarads, ratedVolts, diameterMetres, heightMetres }: FittedPartDbRow,
  ): string | null {
    if ((capacitanceFarads ?? 0) < 300e-6 || unit.lot === null) return null;
    const key = JSON.stringify([unit.lot, capacitanceFarads, ratedVolts]);
    const known = this.heaps.get(key);
    const id = known ?? this.id();
    if (!known) {
      this.heaps.set(key, id);
      const marking = {
        ...{ capacitanceFarads, ratedVolts, temperatureClassCelsius: 105, capacitorClass: "lowz" },
        ...{ diameterMetres, heightMetres, pitchMetres: 0.005, series: fittedSeries.series },
      };
      this.put("stock_items", {
        ...{ id, version: 1, cataloguePartId: null, marking, drawer: null, origin: "distributor", lot: unit.lot },
        ...{ dateCode: null, receivedOn: null, usedHours: null, note: null, setAsideReason: null },
      });
    }
    this.taken.set(id, (this.taken.get(id) ?? 0) + 1);
    return id;
  }

  /** Fuse, bridge and transistor, as far as the board has them: tested on most units. */
  private writeOthers(
    unit: PastUnit,
    boardId: string,
    fact: { jobId: string; personId: string | null },
    at: (minutes: number) => Date,
  ): void {
    for (const [name, kind, left, top, width, depth] of unit.like.outlines) {
      const id = this.id();
      this.put("positions", {
        ...{ ...positionOf(boardId, id), designator: placeName(name, unit.model.shift), kind },
        ...{ xMetres: (left + width / 2) / 1e3, yMetres: (top + depth / 2) / 1e3 },
        ...{ outlineWidthMetres: width / 1e3, outlineDepthMetres: depth / 1e3 },
      } satisfies PositionRow);
      const read = {
        ...fact,
        targetKind: "part",
        targetId: id,
        fittedPartId: null,
        circuitState: "in_circuit",
      } as const;
      if (kind === "fuse") {
        const isBlown = unit.symptoms.includes("fuse_blown");
        const value = isBlown ? null : 0.2;
        this.read({ ...read, quantity: "resistance", value, terminals: "1,2" }, at(20));
      }
      if (kind === "transistor" && unit.isSwitchShorted !== null) {
        this.read(
          { ...read, quantity: "resistance", value: unit.isSwitchShorted ? 0.4 : 2.6e6, terminals: "D,S" },
          at(22),
        );
      }
    }
  }

  private writeEnd(
    unit: PastUnit,
    fact: { jobId: string; personId: string | null },
    closedAt: Date,
    at: (minutes: number) => Date,
  ): void {
    const ended = { id: this.id(), subjectId: null, word: unit.outcome, value: null, numbers: null, photoId: null };
    this.log("job_acts", { ...fact, ...ended, kind: "outcome", at: closedAt }, closedAt);
    if (unit.quotedMinutes !== null) {
      const id = this.id();
      this.log("quotes", { ...fact, id, taxRatio: 0.19, validDays: 14, at: at(60) }, at(60));
      const lines = [{ kind: "labour", words: null, quantity: unit.quotedMinutes, unitMinor: 100 }];
      this.put("typed_words", { rowId: id, field: "lines", jobId: fact.jobId, words: JSON.stringify(lines) });
    }
    const warrantyUntil = new Date(closedAt.getTime() + 183 * day).toISOString().slice(0, 10);
    const closing = { id: this.id(), isReopened: false, warrantyUntil, spentMinutes: unit.spentMinutes, at: closedAt };
    this.log("job_closings", { ...fact, ...closing }, closedAt);
    if (!unit.opening) return;
    const steps = unit.like.opening ?? [
      ["screws", 4, "M3 x 10", "back"] as const,
      ["seam", 1, null, "all round"] as const,
    ];
    for (const [n, [kind, count, size, place]] of steps.entries()) {
      this.put("teardown_steps", {
        ...{ id: this.id(), jobId: fact.jobId, version: 1, number: n + 1, kind, count, size, place },
        ...{ photoId: null, isRemoved: false, doneAt: at(8), personId: fact.personId },
      });
    }
  }

  private look(on: Row & { readonly observedAt: Date }, isDomed: boolean): void {
    const row = { ...on, id: this.id(), sign: "domed", state: isDomed ? "seen" : "not_seen" };
    this.log("sign_observations", row, on.observedAt);
  }

  private read(reading: Partial<ReadingDbRow>, measuredAt: Date): void {
    const { quantity, value = null } = reading;
    this.log(
      "readings",
      {
        ...{ terminals: null, uncertainty: null, circuitState: null, temperatureCelsius: null, isPowered: false },
        ...{
          loadAmps: null,
          rawText: null,
          instrument: null,
          isSimulated: false,
          isWithdrawn: false,
          supersedesId: null,
        },
        ...reading,
        ...{ id: this.id(), coarseCode: value === null ? "over_range" : null, measuredAt },
        value: value === null ? null : Number(value.toPrecision(3)),
        frequencyHertz: quantity === "esr" ? 100e3 : quantity === "capacitance" ? 120 : null,
        rig: {
          ...{ isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
          ...{ areLeadsZeroed: true, measuredAt: null },
        },
      },
      measuredAt,
    );
  }

  private log(table: string, row: Row, at: Date): void {
    this.put(table, { ...row, clockId, receivedAt: at, clockAheadSeconds: 0, cameAfterClosing: false });
  }

  private put(table: string, row: Row): void {
    this.tables.get(table)?.push(row);
  }

  private id(): string {
    const [a, b, c, d] = [0, 1, 2, 3].map(() =>
      Math.floor(this.random() * 2 ** 32)
        .toString(16)
        .padStart(8, "0"),
    ) as [string, string, string, string];
    return `${a}-${b.slice(0, 4)}-4${b.slice(5)}-8${c.slice(1, 4)}-${c.slice(4)}${d}`;
  }
}

const metres = (millimetres: number | undefined) => (millimetres === undefined ? null : millimetres / 1e3);

const positionOf = (boardId: string, id: string): PositionRow => ({
  ...{ id, boardId, lineageId: id, version: 1, deletedAt: null, designator: "", kind: "electrolytic", netId: null },
  ...{ xMetres: null, yMetres: null, outlineWidthMetres: null, outlineDepthMetres: null, outlineHeightMetres: null },
  ...{ markedOhms: null, pitchMetres: null, polarityMark: null, boardNegativeDegrees: null, fixing: null },
  ...{ heatSource: null, note: null },
});

/** What the meter shows on the board: all capacitors of the rail side by side. */
function inCircuitOhms(unit: PastUnit, { like }: PastUnit["capacitors"][number]): number {
  const bank = unit.capacitors.filter((one) => one.like.net === like.net);
  return 1 / bank.reduce((sum, one) => sum + 1 / one.esrOhms, 0);
}

function complaintOf(symptoms: readonly string[]): string {
  const [first, ...others] = symptoms.map((one) => symptomLabels[one] ?? one);
  if (!first) return "Does not work as it should.";
  return [`${first.charAt(0).toUpperCase()}${first.slice(1)}`, ...others.slice(0, 1)].join(", ").concat(".");
}
