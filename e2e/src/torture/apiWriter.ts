import { randomUUID } from "node:crypto";

const patienceMilliseconds = 8000;
const pause = (milliseconds: number) => new Promise<void>((resolve) => setTimeout(resolve, milliseconds));
let writerCount = 0;

/** A client that sends each fact under its id until it is answered, as the outbox does, and remembers what was. */
export class ApiWriter {
  readonly acknowledged: string[] = [];
  private count = 0;

  private constructor(
    private readonly addresses: readonly string[],
    private readonly jobId: string,
    private readonly number: number,
  ) {}

  /** On a job of its own. */
  static async open(addresses: readonly string[]): Promise<ApiWriter> {
    writerCount += 1;
    const jobId = randomUUID();
    const device = { deviceKind: "monitor", deviceMaker: null, deviceModel: null, complaint: null };
    const writer = new ApiWriter(addresses, jobId, writerCount);
    await writer.untilAnswered("/api/jobs", { id: jobId, ...device, personId: null });
    return writer;
  }

  async writeUntil(end: number): Promise<void> {
    while (Date.now() < end) {
      const text = `api ${this.number} ${this.count++}`;
      const body = readingOfUnit(this.jobId, text);
      // Now at its own address, now in a batch with a second one.
      if (this.count % 2 === 0) {
        await this.untilAnswered(`/api/jobs/${this.jobId}/readings`, body);
        this.acknowledged.push(text);
        continue;
      }
      const second = `api ${this.number} ${this.count++}`;
      const facts = [body, readingOfUnit(this.jobId, second)].map((one) => ({ kind: "reading", body: one }));
      const answers = (await this.untilAnswered(`/api/jobs/${this.jobId}/facts`, { facts })) as { problem?: object }[];
      for (const [n, one] of [text, second].entries()) if (!answers[n]?.problem) this.acknowledged.push(one);
    }
  }

  /** From one server to the next until one of them answers. */
  private async untilAnswered(path: string, body: object): Promise<unknown> {
    for (let turn = this.number; ; turn++) {
      try {
        const address = this.addresses[turn % this.addresses.length];
        const answer = await fetch(`${address}${path}`, {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body: JSON.stringify(body),
          signal: AbortSignal.timeout(patienceMilliseconds),
        });
        if (answer.ok) return await answer.json();
        if (answer.status < 500) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
      } catch (error) {
        if (error instanceof Error && error.message.startsWith(path)) throw error;
      }
      await pause(150);
    }
  }
}

/** Watts of the whole unit: needs no board. */
function readingOfUnit(jobId: string, rawText: string) {
  return {
    ...{ id: randomUUID(), targetKind: "unit", targetId: jobId, fittedPartId: null, quantity: "power", value: 12 },
    ...{ coarseCode: null, terminals: null, uncertainty: null, circuitState: null, frequencyHertz: null },
    ...{ temperatureCelsius: null, isPowered: true, loadAmps: null, rawText, instrument: null, isWithdrawn: false },
    rig: {
      ...{ isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
      ...{ areLeadsZeroed: true, measuredAt: null },
    },
    ...{ supersedesId: null, measuredAt: new Date().toISOString(), clockId: null, personId: null },
  };
}
