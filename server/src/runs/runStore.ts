import { randomUUID } from "node:crypto";
import type { NewReading } from "@pale-cap/contract";
import { type RunEvent, type RunSample, runState, type StepFinding, sectionFacts, stepFinding } from "@pale-cap/core";
import type { Database } from "../database/database";
import type { ProofRunRow } from "../database/models/proofRuns";
import type { Caller, Scope } from "../database/scope";
import type { HeavyWork } from "../heavy/heavyWork";
import type { Turns } from "../http/turns";
import { factHandlers } from "../records/factKinds";
import { holdingJob } from "../records/holdingJob";
import { markStale } from "../summaries/markStale";

/** What waits to be stored, in its order. */
export type Pending =
  | { readonly kind: "event"; readonly event: RunEvent; readonly at: Date }
  | { readonly kind: "sample"; readonly number: number; readonly sample: RunSample }
  | { readonly kind: "step"; readonly step: number; readonly samples: readonly RunSample[]; readonly at: Date }
  | { readonly kind: "heat"; readonly sample: RunSample; readonly at: Date }
  | { readonly kind: "mains"; readonly isOn: boolean; readonly at: Date }
  | { readonly kind: "burn_in"; readonly seconds: number; readonly at: Date };

export interface StoreContext {
  readonly database: Database;
  readonly turns: Turns;
  readonly heavy: HeavyWork;
  readonly now: () => Date;
}

/** Writes down what one run does: its own events and samples, and what it proves as readings of the job. */
export class RunStore {
  constructor(
    private readonly context: StoreContext,
    private readonly run: ProofRunRow,
    private readonly instrumentNames: ReadonlyMap<string, string>,
  ) {}

  /** All of it or nothing. */
  async store(pending: readonly Pending[]): Promise<void> {
    const { database, turns, now, heavy } = this.context;
    const { id: runId, jobId, personId } = this.run;
    // The run is a clock of its own: how long lay between its readings is known, whatever other clocks show.
    const caller: Caller = { personId, role: "everyone", benchId: null, clock: { id: runId, aheadSeconds: 0 } };
    const touchesJob = pending.some((one) => one.kind !== "sample" && one.kind !== "event");
    const write = () =>
      database.write(now(), caller, async (opened) => {
        const scope = touchesJob ? await holdingJob(opened, jobId) : opened;
        for (const one of pending) await this.storeOne(scope, one);
        if (touchesJob) await markStale(scope, jobId, "fact");
      });
    await (touchesJob ? turns.take(`job ${jobId}`, write) : write());
    if (touchesJob) heavy.poke();
  }

  private async storeOne(scope: Scope, pending: Pending): Promise<void> {
    const { id: runId, jobId, personId } = this.run;
    switch (pending.kind) {
      case "event":
        await scope.rows.proofRunEvents.insert({
          ...pending.event,
          ...{ id: randomUUID(), runId, personId: null, at: pending.at },
        });
        break;
      case "sample":
        await scope.sql(
          "INSERT INTO proof_run_samples (run_id, number, sample) VALUES ($1, $2, $3::jsonb) RETURNING number",
          [runId, pending.number, JSON.stringify(pending.sample)],
        );
        break;
      case "step":
        await this.storeStep(scope, pending.step, pending.samples, pending.at);
        break;
      case "heat":
        await this.storeHeat(scope, pending.sample.celsius, pending.at);
        break;
      case "mains":
        await factHandlers.charge.store(scope, jobId, {
          ...{ id: randomUUID(), storeId: null, kind: pending.isOn ? "mains_connected" : "mains_disconnected" },
          ...{ volts: null, resistanceOhms: null, drainItem: null, isMeterProved: false, at: pending.at.toISOString() },
          ...{ clockId: runId, personId },
        });
        break;
      case "burn_in":
        await factHandlers.act.store(scope, jobId, {
          ...{ id: randomUUID(), kind: "burn_in", subjectId: null, word: null, note: "driven by the instruments" },
          ...{ value: pending.seconds, at: pending.at.toISOString(), clockId: runId, personId },
        });
        break;
    }
  }

  /** A step that was dwelt through is read: each rail at its load, the ripple, what was drawn, how warm it got. */
  private async storeStep(scope: Scope, step: number, samples: readonly RunSample[], at: Date): Promise<void> {
    const { plan } = this.run;
    const found = stepFinding(plan, step, samples);
    if (!found) return;
    const nets = await scope.rows.nets.all({ id: plan.rails.map((one) => one.netId) }, [["id", "ASC"]]);
    const signOf = (netId: string) => ((nets.find((one) => one.id === netId)?.nominalVolts ?? 1) < 0 ? -1 : 1);
    const ampsOf = (netId: string) => plan.steps[step]?.loads.find((one) => one.netId === netId)?.amps ?? 0;
    for (const rail of plan.rails) {
      const net = nets.find((one) => one.id === rail.netId);
      const read = found.rails.find((one) => one.netId === rail.netId);
      // A rail that was taken off the board meanwhile has nothing to be told of.
      if (!net || !read || sectionFacts[net.section].isMainsSide) continue;
      const target = { targetKind: "rail" as const, targetId: rail.netId, loadAmps: ampsOf(rail.netId) };
      const value = signOf(rail.netId) * read.volts;
      await this.read(scope, at, { ...target, quantity: "dc_voltage", value, instrument: this.named(rail.loadId) });
    }
    const { ripple } = plan;
    if (ripple && found.rippleVolts !== null) {
      await this.read(scope, at, {
        ...{ targetKind: "rail", targetId: ripple.netId, loadAmps: ampsOf(ripple.netId), quantity: "ripple_voltage" },
        ...{ value: found.rippleVolts, instrument: this.named(ripple.scopeId) },
      });
    }
    if (found.inputWatts !== null && plan.mainsId !== null) await this.storeWatts(scope, found, plan.mainsId, at);
    await this.storeHeat(scope, found.celsius, at);
  }

  private storeWatts(scope: Scope, found: StepFinding, mainsId: string, at: Date): Promise<void> {
    const target = { targetKind: "unit" as const, targetId: this.run.jobId, loadAmps: null };
    const value = found.inputWatts;
    return this.read(scope, at, { ...target, quantity: "power", value, instrument: this.named(mainsId) });
  }

  private async storeHeat(scope: Scope, celsius: StepFinding["celsius"], at: Date): Promise<void> {
    for (const [n, { targetKind, targetId, thermometerId }] of this.run.plan.spots.entries()) {
      const value = celsius[n] ?? null;
      if (value === null) continue;
      const target = { targetKind, targetId, loadAmps: null };
      await this.read(scope, at, { ...target, quantity: "temperature", value, instrument: this.named(thermometerId) });
    }
  }

  private named(instrumentId: string): string | null {
    return this.instrumentNames.get(instrumentId) ?? null;
  }

  private async read(
    scope: Scope,
    at: Date,
    about: Pick<NewReading, "targetKind" | "targetId" | "quantity" | "value" | "loadAmps" | "instrument">,
  ): Promise<void> {
    const { id: runId, jobId, personId, isSimulated, rig } = this.run;
    await factHandlers.reading.store(scope, jobId, {
      ...about,
      ...{ id: randomUUID(), fittedPartId: null, coarseCode: null, terminals: null, uncertainty: null },
      ...{ circuitState: null, frequencyHertz: null, temperatureCelsius: null, isPowered: true },
      rig: {
        ...{ isIsolationTransformer: rig.isIsolationTransformer, isSeriesLamp: false, isElectronicLimiter: false },
        ...{ areLeadsZeroed: false, measuredAt: null, isCaseClosed: rig.isCaseClosed },
      },
      ...{ rawText: null, isSimulated, isWithdrawn: false, supersedesId: null, measuredAt: at.toISOString() },
      ...{ clockId: runId, personId },
    });
  }
}

/** A run as it was left: its plan, its state, and the last that was read. */
export interface LeftRun {
  readonly run: ProofRunRow;
  readonly events: readonly RunEvent[];
  readonly samples: readonly RunSample[];
  readonly nextNumber: number;
  readonly gapSeconds: number;
}

/** Runs that have not ended, oldest first. */
export async function openRunIds(scope: Scope): Promise<readonly string[]> {
  const found = await scope.sql<{ id: string }>(
    `SELECT r.id FROM proof_runs r WHERE NOT EXISTS
       (SELECT 1 FROM proof_run_events e WHERE e.run_id = r.id AND e.kind = 'ended') ORDER BY r.sequence`,
  );
  return found.map((one) => one.id);
}

/** Everything of a run that a process needs that takes it over. */
export async function loadLeftRun(scope: Scope, runId: string): Promise<LeftRun | null> {
  const run = await scope.rows.proofRuns.first({ id: runId });
  if (!run) return null;
  const events = await scope.rows.proofRunEvents.all({ runId }, [["sequence", "ASC"]]);
  const { step } = runState(events);
  const rows = await scope.sql<{ number: number; sample: RunSample }>(
    "SELECT number, sample FROM proof_run_samples WHERE run_id = $1 ORDER BY number",
    [runId],
  );
  const [gap] = await scope.sql<{ seconds: number }>(
    `SELECT extract(epoch FROM clock_timestamp() - coalesce(
       (SELECT max(stored_at) FROM proof_run_samples WHERE run_id = $1), $2))::double precision AS seconds`,
    [runId, run.begunAt],
  );
  const samples = rows.map((one) => one.sample).filter((one) => one.step === step);
  return {
    ...{ run, events, samples, nextNumber: (rows.at(-1)?.number ?? -1) + 1 },
    gapSeconds: gap?.seconds ?? Number.POSITIVE_INFINITY,
  };
}
