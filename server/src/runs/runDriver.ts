import type { RunWord } from "@pale-cap/contract";
import {
  emptiedVolts,
  endOrder,
  mayGoOn,
  type RunEvent,
  type RunEventKind,
  type RunSample,
  type RunState,
  type RunStop,
  runState,
  setAmpsOf,
  stopBecause,
  watchRun,
} from "@pale-cap/core";
import type { Logger } from "pino";
import type { ProofRunRow } from "../database/models/proofRuns";
import { RigTrouble, type RunRig } from "./runRig";
import type { LeftRun, Pending, RunStore } from "./runStore";

export interface DriverTimes {
  /** How often it tries again to switch something off, and for how long. */
  readonly retryMilliseconds: number;
  readonly offMilliseconds: number;
  /** Rails are waited for until they are empty. */
  readonly emptyMilliseconds: number;
  /** From the mains to rails that stand. */
  readonly startMilliseconds: number;
  /** After a restart the lines need a moment. */
  readonly reachMilliseconds: number;
  readonly flushMilliseconds: number;
  /** So long it goes on while nothing can be stored. */
  readonly unstoredMilliseconds: number;
}
export const usualDriverTimes: DriverTimes = {
  retryMilliseconds: 250,
  offMilliseconds: 6000,
  emptyMilliseconds: 30_000,
  startMilliseconds: 20_000,
  reachMilliseconds: 10_000,
  flushMilliseconds: 2000,
  unstoredMilliseconds: 30_000,
};

export interface DriverParts {
  readonly run: ProofRunRow;
  readonly rig: RunRig;
  readonly store: Pick<RunStore, "store">;
  /** What an output needs at least, also while the run is paused. */
  readonly leastOf: (netId: string) => number;
  /** What a person asked for that this process has not heard itself. */
  readonly askedSince: (heard: number) => Promise<readonly RunWord[]>;
  readonly logger: Logger;
  readonly now: () => Date;
  readonly times: DriverTimes;
}

/** A temperature is a reading of the job this often at least. */
const heatSeconds = 60;
/** What is kept of the samples for watching. */
const watchedSeconds = 90;

/**
 * Drives one run: sets its loads step by step, reads, and ends it in the order that core says. It acts first and writes down
 * afterwards: a database that is slow keeps no mains on.
 */
export class RunDriver {
  private events: RunEvent[] = [];
  private recent: RunSample[] = [];
  private stepSamples: RunSample[] = [];
  private pending: Pending[] = [];
  private nextNumber = 0;
  private step = 0;
  private stepSeconds = 0;
  private doneSeconds = 0;
  private lastHeat = Number.NEGATIVE_INFINITY;
  private origin: number;
  private lastTick: number | null = null;
  private wishes: (RunWord | "server_stopped")[] = [];
  private heardCount = 0;
  private wake: (() => void) | null = null;
  private isStarting = false;
  private isAsking = false;
  private flushing: Promise<void> = Promise.resolve();
  private flushedAt = 0;
  private unstoredSince: number | null = null;
  private finished: Promise<void> = Promise.resolve();

  constructor(private readonly parts: DriverParts) {
    this.origin = performance.now();
  }

  get state(): RunState {
    return runState(this.events);
  }

  /** Resolves when the run has ended, whatever happened. */
  get over(): Promise<void> {
    return this.finished;
  }

  /** @param switchesMains a person's press at this moment */
  begin(switchesMains: boolean): void {
    this.events.push({ kind: "begun", seconds: 0, step: null, stop: null });
    this.isStarting = true;
    this.finished = this.guarded(async () => {
      // An output that must not be open has its least load before it is fed.
      await this.setLoads();
      if (switchesMains) {
        if (!(await this.parts.rig.switchMains(true))) return stopBecause("mains_gone", this.parts.run.plan.mainsId);
        this.say("mains_on");
        this.queue({ kind: "mains", isOn: true, at: this.parts.now() });
      }
      return (await this.railsUp()) ?? (await this.goThrough());
    });
  }

  /** Takes over what another process, or this one before it was restarted, left: reads before it sets anything. */
  takeOver(left: LeftRun, mostGapSeconds: number): void {
    const last = left.samples.at(-1);
    const state = runState(left.events);
    this.events = [...left.events];
    this.heardCount = left.events.filter((one) => one.kind.startsWith("asked_")).length;
    this.nextNumber = left.nextNumber;
    this.step = state.step;
    this.stepSeconds = last?.stepSeconds ?? 0;
    this.doneSeconds = this.parts.run.plan.steps.slice(0, state.step).reduce((sum, one) => sum + one.dwellSeconds, 0);
    this.stepSamples = [...left.samples];
    const seconds = (last?.seconds ?? left.events.at(-1)?.seconds ?? 0) + Math.max(left.gapSeconds, 0);
    this.origin = performance.now() - 1000 * seconds;
    this.finished = this.guarded(async () => {
      const since = performance.now();
      const sample = await this.firstLook();
      const gapSeconds = left.gapSeconds + (performance.now() - since) / 1000;
      const isMeant = state.name === "running" || state.name === "paused";
      const isGoing =
        isMeant &&
        last !== undefined &&
        sample !== null &&
        mayGoOn({
          ...{ gapSeconds, mostGapSeconds },
          isMainsOn: this.parts.run.plan.mainsId === null ? true : sample.isMainsOn,
          areLoadsOn: sample.rails.every((one) => one.isOn === one.setAmps > 0),
          stop: watchRun(this.parts.run.plan, [sample]),
        });
      if (!isGoing)
        return state.name === "ending" ? (state.stop ?? stopBecause("server_gone")) : stopBecause("server_gone");
      this.say("went_on_after_gap");
      return this.loop();
    });
  }

  /** What a person wants of it at once. */
  heed(word: RunWord): void {
    this.wishes.push(word);
    this.wake?.();
  }

  /** Something was asked: it is fetched at once, and ends a wait as it comes. */
  wakeUp(): void {
    this.ask();
  }

  /** The server is being stopped: nobody will watch it. */
  stopForServer(): Promise<void> {
    this.wishes.push("server_stopped");
    this.wake?.();
    return this.finished;
  }

  private async guarded(work: () => Promise<RunStop | null>): Promise<void> {
    let stop: RunStop | null;
    try {
      stop = await work();
    } catch (error) {
      if (!(error instanceof RigTrouble)) this.parts.logger.error({ err: error }, "a run failed");
      stop = troubleStop(error);
    }
    await this.end(stop).catch((error: unknown) => this.parts.logger.error({ err: error }, "a run could not be ended"));
  }

  private async goThrough(): Promise<RunStop | null> {
    this.isStarting = false;
    await this.enter(0);
    return this.loop();
  }

  /** Loads come on when the rails stand: a supply that starts slowly has not failed a step. */
  private async railsUp(): Promise<RunStop | null> {
    const until = performance.now() + this.parts.times.startMilliseconds;
    for (;;) {
      const stop = (await this.look()) ?? (await this.hear());
      if (stop) return stop;
      const read = this.recent.at(-1)?.rails ?? [];
      const low = this.parts.run.plan.rails.find(
        (rail) => Math.abs(read.find((one) => one.netId === rail.netId)?.volts ?? 0) < rail.lowVolts,
      );
      if (!low) return null;
      const volts = Math.abs(read.find((one) => one.netId === low.netId)?.volts ?? 0);
      if (performance.now() > until) return stopBecause("under_voltage", low.netId, volts, low.lowVolts);
      this.flushSoon();
      await this.pause(this.parts.times.retryMilliseconds);
    }
  }

  /** @returns why it ends before its time; null: it is through */
  private async loop(): Promise<RunStop | null> {
    const { plan } = this.parts.run;
    for (;;) {
      const stop = await this.look();
      if (stop) return stop;
      const wish = await this.hear();
      if (wish) return wish;
      const dwell = plan.steps[this.step]?.dwellSeconds ?? 0;
      if (!this.isPaused && this.stepSeconds >= dwell) {
        this.finishStep();
        if (this.step + 1 >= plan.steps.length) return null;
        await this.enter(this.step + 1);
      }
      this.flushSoon();
      if (
        this.unstoredSince !== null &&
        performance.now() - this.unstoredSince > this.parts.times.unstoredMilliseconds
      ) {
        return stopBecause("not_stored");
      }
      await this.pause(plan.sampleSeconds * 1000);
    }
  }

  private get isPaused(): boolean {
    return this.isStarting || this.state.name === "paused";
  }

  /** One sample, and whether it lets the run go on. */
  private async look(): Promise<RunStop | null> {
    const sample = await this.sample();
    this.recent = [...this.recent, sample].filter((one) => sample.seconds - one.seconds <= watchedSeconds);
    this.stepSamples.push(sample);
    this.queue({ kind: "sample", number: this.nextNumber++, sample });
    if (sample.seconds - this.lastHeat >= heatSeconds && sample.celsius.some((one) => one !== null)) {
      this.lastHeat = sample.seconds;
      this.queue({ kind: "heat", sample, at: this.parts.now() });
    }
    return watchRun(this.parts.run.plan, this.recent);
  }

  private async sample(): Promise<RunSample> {
    const { rig, run, leastOf } = this.parts;
    const read = await rig.read();
    const now = performance.now();
    if (this.lastTick !== null && !this.isPaused) this.stepSeconds += (now - this.lastTick) / 1000;
    this.lastTick = now;
    const wanted = setAmpsOf(run.plan, this.step, this.isPaused, leastOf);
    return {
      ...read,
      ...{ seconds: this.seconds, step: this.step, stepSeconds: this.stepSeconds, isPaused: this.isPaused },
      rails: read.rails.map((one) => ({
        ...one,
        setAmps: wanted.find((set) => set.netId === one.netId)?.amps ?? 0,
      })),
    };
  }

  /** After a restart: the lines are opened in the background, so it asks until they answer, and no longer than a moment. */
  private async firstLook(): Promise<RunSample | null> {
    const until = performance.now() + this.parts.times.reachMilliseconds;
    for (;;) {
      try {
        return await this.sample();
      } catch (error) {
        if (!(error instanceof RigTrouble) || performance.now() > until) return null;
        await new Promise((resolve) => setTimeout(resolve, this.parts.times.retryMilliseconds));
      }
    }
  }

  private async enter(step: number): Promise<void> {
    this.step = step;
    this.stepSeconds = 0;
    this.lastTick = null;
    this.stepSamples = [];
    await this.setLoads();
    this.say("step_begun", null, step);
  }

  private async setLoads(): Promise<void> {
    const { rig, run, leastOf } = this.parts;
    for (const { loadId, amps, heldVolts } of setAmpsOf(run.plan, this.step, this.isPaused, leastOf))
      await rig.setLoad(loadId, amps, heldVolts);
  }

  private finishStep(): void {
    this.doneSeconds += this.parts.run.plan.steps[this.step]?.dwellSeconds ?? 0;
    this.say("step_done", null, this.step);
    this.queue({ kind: "step", step: this.step, samples: this.stepSamples, at: this.parts.now() });
  }

  /** What another process took down is asked for behind the run's back: a database that hangs must not stop it from being watched. */
  private ask(): void {
    if (this.isAsking) return;
    this.isAsking = true;
    void this.parts
      .askedSince(this.heardCount)
      .then((words) => {
        this.heardCount += words.length;
        for (const word of words) this.heed(word);
      })
      .catch(() => undefined)
      .finally(() => {
        this.isAsking = false;
      });
  }

  /** What was asked of it by now; @returns why it ends */
  private async hear(): Promise<RunStop | null> {
    this.ask();
    for (const wish of this.wishes.splice(0)) {
      if (wish === "cancel") return stopBecause("cancelled");
      if (wish === "server_stopped") return stopBecause("server_stopped");
      const isAsked = wish === "pause";
      if (isAsked === (this.state.name === "paused")) continue;
      this.say(isAsked ? "paused" : "continued");
      this.lastTick = null;
      await this.setLoads();
    }
    return null;
  }

  private async end(stop: RunStop | null): Promise<void> {
    const { run, rig } = this.parts;
    const isGoneOn = this.state.name === "ending";
    if (!isGoneOn) this.say("stopping", stop);
    let isMainsOff = false;
    for (const act of endOrder(stop, run.plan.mainsId !== null)) {
      switch (act) {
        case "mains_off":
          isMainsOff = await this.tried(() => rig.switchMains(false));
          this.say(isMainsOff ? "mains_off" : "mains_unconfirmed");
          if (isMainsOff) this.queue({ kind: "mains", isOn: false, at: this.parts.now() });
          break;
        case "wait_for_rails":
          // Where the mains would not go, waiting for its rails is in vain: the loads go off now.
          if (isMainsOff) this.say((await this.railsEmpty()) ? "rails_empty" : "rails_not_empty");
          break;
        case "loads_off": {
          const off = await Promise.all(run.plan.rails.map((one) => this.loadOff(one.loadId)));
          this.say(off.every(Boolean) ? "loads_off" : "loads_unconfirmed");
          break;
        }
        case "ask_for_mains_off":
          this.say("mains_unconfirmed");
          break;
      }
    }
    await rig.letGo();
    if (stop === null && run.plan.kind === "burn_in") {
      this.queue({ kind: "burn_in", seconds: this.doneSeconds, at: this.parts.now() });
    }
    this.say("ended");
    await this.flushAll();
  }

  private loadOff(loadId: string): Promise<boolean> {
    return this.tried(async () => {
      await this.parts.rig.setLoad(loadId, 0);
      return this.parts.rig.isLoadOff(loadId);
    });
  }

  /** Again and again for some seconds: a line that broke is opened anew in the meantime. */
  private async tried(work: () => Promise<boolean>): Promise<boolean> {
    const until = performance.now() + this.parts.times.offMilliseconds;
    for (;;) {
      if (await work().catch(() => false)) return true;
      if (performance.now() > until) return false;
      await new Promise((resolve) => setTimeout(resolve, this.parts.times.retryMilliseconds));
    }
  }

  private async railsEmpty(): Promise<boolean> {
    const until = performance.now() + this.parts.times.emptyMilliseconds;
    const { rig, run } = this.parts;
    for (;;) {
      const rails = await Promise.all(run.plan.rails.map(({ loadId }) => this.emptied(rig, loadId)));
      if (rails.every((one) => one === "empty")) return true;
      // Nothing empties a rail whose load is off or does not answer.
      if (performance.now() > until || !rails.includes("emptying")) return false;
      await new Promise((resolve) => setTimeout(resolve, this.parts.times.retryMilliseconds));
    }
  }

  private async emptied(rig: RunRig, loadId: string): Promise<"empty" | "emptying" | "unknown"> {
    try {
      if ((await rig.volts(loadId)) < emptiedVolts) return "empty";
      return (await rig.isLoadOff(loadId)) ? "unknown" : "emptying";
    } catch {
      return "unknown";
    }
  }

  private get seconds(): number {
    return (performance.now() - this.origin) / 1000;
  }

  private say(kind: RunEventKind, stop: RunStop | null = null, step: number | null = null): void {
    const event: RunEvent = { kind, seconds: this.seconds, step, stop };
    this.events.push(event);
    this.queue({ kind: "event", event, at: this.parts.now() });
  }

  private queue(one: Pending): void {
    this.pending.push(one);
    if (one.kind !== "sample") this.flush();
  }

  private flushSoon(): void {
    if (performance.now() - this.flushedAt >= this.parts.times.flushMilliseconds) this.flush();
  }

  /** Behind the run's back; what could not be stored stays at the head of what is to be. */
  private flush(): void {
    this.flushedAt = performance.now();
    this.flushing = this.flushing.then(async () => {
      const taken = this.pending;
      if (taken.length === 0) return;
      this.pending = [];
      try {
        await this.parts.store.store(taken);
        this.unstoredSince = null;
      } catch (error) {
        this.parts.logger.warn({ err: error }, "a run could not be stored");
        this.pending = [...taken, ...this.pending];
        this.unstoredSince ??= performance.now();
      }
    });
  }

  private async flushAll(): Promise<void> {
    for (let tries = 0; tries < 20; tries++) {
      this.flush();
      await this.flushing;
      if (this.pending.length === 0) return;
      await new Promise((resolve) => setTimeout(resolve, this.parts.times.retryMilliseconds * 2 ** Math.min(tries, 5)));
    }
    this.parts.logger.error("the end of a run could not be stored");
  }

  private pause(milliseconds: number): Promise<void> {
    if (this.wishes.length > 0) return Promise.resolve();
    return new Promise((resolve) => {
      const timer = setTimeout(done, milliseconds);
      const driver = this;
      function done() {
        clearTimeout(timer);
        driver.wake = null;
        resolve();
      }
      this.wake = done;
    });
  }
}

function troubleStop(error: unknown): RunStop {
  return error instanceof RigTrouble ? stopBecause(error.code, error.instrumentId) : stopBecause("instrument_lost");
}
