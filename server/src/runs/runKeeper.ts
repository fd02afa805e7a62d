import { type Instrument, jobFacts, jobRules, type NewRun, type RunWord } from "@pale-cap/contract";
import {
  firstPower,
  isRunSinceLastAct,
  jobChargeStates,
  labelLimits,
  lastAct,
  leastAmps,
  runPlanFault,
} from "@pale-cap/core";
import { powerGateWords, runPlanFaultWords, shutterWords } from "@pale-cap/wording";
import type { Logger } from "pino";
import type { ProofRunRow } from "../database/models/proofRuns";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import type { InstrumentHub } from "../instruments/instrumentHub";
import type { LineLeases } from "../instruments/lineLeases";
import { loadInstruments } from "../records/loadInstruments";
import { loadJob } from "../records/loadJobs";
import { loadRuleValues } from "../records/rules";
import { type DriverTimes, RunDriver, usualDriverTimes } from "./runDriver";
import { type NameOf, type PreparedRig, RunRig } from "./runRig";
import { loadLeftRun, openRunIds, RunStore, type StoreContext } from "./runStore";

interface KeeperContext extends StoreContext {
  readonly instruments: InstrumentHub;
  readonly logger: Logger;
}

/** How often runs are looked for that lost their process. */
const adoptMilliseconds = 2000;

interface Prepared extends PreparedRig {
  readonly rig: RunRig;
}

/** All runs that this process drives, and those that it takes over. */
export class RunKeeper {
  private readonly drivers = new Map<string, RunDriver>();
  private readonly prepared = new Map<string, Prepared>();
  private timer: NodeJS.Timeout | null = null;
  private isClosed = false;
  private adopting: Promise<void> = Promise.resolve();

  constructor(
    private readonly context: KeeperContext,
    private readonly leases: LineLeases,
    private readonly times: DriverTimes = usualDriverTimes,
  ) {}

  /** Looks for what was left, now and from time to time. */
  watch(): void {
    this.adoptSoon();
    this.timer = setInterval(() => this.adoptSoon(), adoptMilliseconds);
    this.timer.unref();
  }

  /** Whether a run is driven, or about to be, in this process. */
  knows(runId: string): boolean {
    return this.drivers.has(runId) || this.prepared.has(runId);
  }

  /**
   * Everything that can be refused before anything is stored: the plan against the board, the instruments there, free and willing.
   *
   * @returns null where this very run is known already
   */
  async prepare(jobId: string, { id: runId, plan, isOverloadMeant }: NewRun): Promise<PreparedRig | null> {
    if (this.knows(runId)) return null;
    const { database, instruments, now } = this.context;
    const known = await database.read(now(), async (scope) => {
      if (await scope.rows.proofRuns.has({ id: runId })) return null;
      return {
        detail: await loadJob(scope, jobId),
        all: await loadInstruments(scope),
        rules: await loadRuleValues(scope),
      };
    });
    if (known === null) return null;
    const { detail, all, rules } = known;
    const label = labelLimits(detail.job.intakeDetails.labelPlate, detail.nets);
    const fault = runPlanFault(plan, detail.nets, label, isOverloadMeant);
    if (fault) {
      const rail = detail.nets.find((one) => one.id === fault.netId)?.name ?? null;
      throw new HttpProblem("conflict", runPlanFaultWords(fault.code, rail));
    }
    const rig = new RunRig(instruments, byId(all), plan, rules["prove.runGapSeconds"]);
    const held = rig.ids.find((id) => instruments.runOf(id) !== null);
    if (held)
      throw new HttpProblem("conflict", `${byId(all).get(held)?.name ?? "An instrument"} is held by another run.`);
    const simulated = rig.ids.find((id) => byId(all).get(id)?.transport === "simulated");
    if (simulated && !detail.job.takesSimulated) {
      throw new HttpProblem("conflict", "A simulated instrument proves nothing of a customer's unit.");
    }
    if (this.knows(runId)) return null;
    instruments.reserve(rig.ids, runId);
    try {
      // Before it is stored: no other process may find it without one that drives it.
      await this.leases.want([runId]);
      const ready = await rig.prepare(namesOf(detail));
      this.prepared.set(runId, { ...ready, rig });
      return ready;
    } catch (error) {
      this.free(runId);
      throw error;
    }
  }

  /** Held against what stands against the mains, on the job as it is locked. */
  async requireGateOpen(scope: Scope, jobId: string): Promise<void> {
    const detail = await loadJob(scope, jobId);
    const facts = jobFacts(detail);
    const rules = jobRules(await loadRuleValues(scope));
    const power = firstPower(facts, jobChargeStates(facts, rules.charge, scope.now.getTime()));
    if (power.isShut) {
      const why = [...(power.gate.isShut ? [powerGateWords(power.gate)] : []), ...power.shutters.map(shutterWords)];
      throw new HttpProblem("conflict", `Something stands against the mains: ${why.join(" ")}`);
    }
    if (power.record === null && lastAct(facts.ticks) !== null && !isRunSinceLastAct(facts)) {
      throw new HttpProblem(
        "conflict",
        "It was not powered since the last part went in or out: first power, limited, comes before a run.",
      );
    }
  }

  /** Begins what was prepared and is stored now. */
  async begin(runId: string, switchesMains: boolean): Promise<void> {
    const ready = this.prepared.get(runId);
    if (!ready || this.drivers.has(runId)) return;
    const { database, now } = this.context;
    const left = await database.read(now(), (scope) => loadLeftRun(scope, runId));
    if (!left || this.prepared.get(runId) !== ready) return;
    const driver = await this.driverOf(left.run, ready.rig);
    this.drivers.set(runId, driver);
    this.prepared.delete(runId);
    driver.begin(switchesMains);
    void driver.over.then(() => this.forget(runId));
  }

  /** What was prepared and was refused after all: its instruments are free again. */
  async discard(runId: string): Promise<void> {
    const ready = this.prepared.get(runId);
    if (!ready) return;
    this.prepared.delete(runId);
    await ready.rig.letGo().catch(() => undefined);
    this.free(runId);
  }

  /** A wish that waits for nothing: also where it cannot be stored. */
  cancel(runId: string): void {
    this.drivers.get(runId)?.heed("cancel");
  }

  /** Something was asked of a run: they look at once. */
  wakeAll(): void {
    for (const driver of this.drivers.values()) driver.wakeUp();
  }

  /** The server is stopped by a person: what runs is ended, the mains first. */
  async close(): Promise<void> {
    this.isClosed = true;
    if (this.timer) clearInterval(this.timer);
    await this.adopting;
    await Promise.all([...this.drivers.values()].map((one) => one.stopForServer()));
  }

  private adoptSoon(): void {
    this.adopting = this.adopting
      .then(() => this.adopt())
      .catch((error: unknown) => this.context.logger.warn({ err: error }, "runs could not be looked for"));
  }

  private async adopt(): Promise<void> {
    if (this.isClosed) return;
    const { database, now, instruments } = this.context;
    const open = await database.read(now(), openRunIds);
    for (const runId of open) {
      if (this.knows(runId) || this.isClosed) continue;
      await this.leases.want([runId]);
      if (!this.leases.isMine(runId)) {
        await this.leases.drop([runId]);
        continue;
      }
      const found = await database.read(now(), async (scope) => ({
        left: await loadLeftRun(scope, runId),
        all: await loadInstruments(scope),
        rules: await loadRuleValues(scope),
      }));
      if (!found.left || this.knows(runId)) continue;
      const gap = found.rules["prove.runGapSeconds"];
      const rig = new RunRig(instruments, byId(found.all), found.left.run.plan, gap);
      instruments.reserve(rig.ids, runId);
      const driver = await this.driverOf(found.left.run, rig);
      this.drivers.set(runId, driver);
      driver.takeOver(found.left, gap);
      void driver.over.then(() => this.forget(runId));
    }
  }

  private forget(runId: string): void {
    this.drivers.delete(runId);
    this.free(runId);
  }

  private free(runId: string): void {
    this.context.instruments.release(runId);
    void this.leases.drop([runId]).catch(() => undefined);
  }

  private async driverOf(run: ProofRunRow, rig: RunRig): Promise<RunDriver> {
    const { database, now, logger } = this.context;
    const { nets, names } = await database.read(now(), async (scope) => ({
      nets: (await loadJob(scope, run.jobId)).nets,
      names: new Map((await loadInstruments(scope)).map((one) => [one.id, one.name])),
    }));
    const leastOf = (netId: string) => {
      const net = nets.find((one) => one.id === netId);
      return net ? leastAmps(net) : 0;
    };
    const askedSince = (heard: number) =>
      database.read(now(), async (scope) => {
        const kinds = ["asked_to_pause", "asked_to_continue", "asked_to_cancel"] as const;
        const asked = await scope.rows.proofRunEvents.all({ runId: run.id, kind: [...kinds] }, [["sequence", "ASC"]]);
        return asked.slice(heard).map((one) => one.kind.replace("asked_to_", "") as RunWord);
      });
    const store = new RunStore(this.context, run, names);
    return new RunDriver({ run, rig, store, leastOf, askedSince, logger, now, times: this.times });
  }
}

const byId = (all: readonly Instrument[]): ReadonlyMap<string, Instrument> => new Map(all.map((one) => [one.id, one]));

function namesOf(detail: Awaited<ReturnType<typeof loadJob>>): NameOf {
  return (targetKind, targetId) => {
    if (targetKind === "part") return detail.positions.find((one) => one.id === targetId)?.designator ?? null;
    return targetKind === "rail" ? (detail.nets.find((one) => one.id === targetId)?.name ?? null) : null;
  };
}
