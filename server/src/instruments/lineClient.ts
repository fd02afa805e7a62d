import { once } from "node:events";
import { createInterface } from "node:readline";
import type { Duplex } from "node:stream";

/** Why an instrument gave no answer. */
export class LineFailure extends Error {
  constructor(readonly kind: "slow" | "missing") {
    super(kind === "slow" ? "No answer in time." : "The line is closed.");
  }
}

/** Longest text between two line ends; more than this is no line-based instrument. */
const longestLine = 200_000;

/**
 * Question and answer over any line-based stream, one after the other. A late answer to a question that was given up
 * would be taken for the next one's: after a time-out the line is closed, and whoever owns it opens a new one.
 */
export class LineClient {
  private waiting: { resolve(line: string): void; reject(error: Error): void } | null = null;
  private queue: Promise<unknown> = Promise.resolve();
  private isClosed = false;

  constructor(
    private readonly stream: Duplex,
    private readonly patienceMilliseconds: number,
  ) {
    let unfinished = 0;
    stream.on("data", (chunk: Buffer) => {
      unfinished = chunk.includes(10) ? 0 : unfinished + chunk.length;
      if (unfinished > longestLine) this.close();
    });
    createInterface({ input: stream, crlfDelay: Infinity })
      // It passes on the errors of the stream, which are taken below.
      .on("error", () => undefined)
      .on("line", (line) => {
        this.waiting?.resolve(line);
        this.waiting = null;
      });
    for (const event of ["close", "error", "end"]) stream.on(event, () => this.close());
  }

  get isOpen(): boolean {
    return !this.isClosed;
  }

  tell(line: string): Promise<void> {
    return this.inTurn(async () => {
      if (this.isClosed) throw new LineFailure("missing");
      if (!this.stream.write(`${line}\n`)) await this.within(once(this.stream, "drain"));
    });
  }

  ask(line: string): Promise<string> {
    return this.inTurn(() => {
      if (this.isClosed) throw new LineFailure("missing");
      const answer = new Promise<string>((resolve, reject) => {
        this.waiting = { resolve, reject };
      });
      this.stream.write(`${line}\n`);
      return this.within(answer);
    });
  }

  close(): void {
    if (this.isClosed) return;
    this.isClosed = true;
    this.waiting?.reject(new LineFailure("missing"));
    this.waiting = null;
    this.stream.destroy();
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const next = this.queue.then(work);
    this.queue = next.catch(() => undefined);
    return next;
  }

  /** Gives up when patience runs out, and closes the line: see above. */
  private async within<T>(work: Promise<T>): Promise<T> {
    let timer: NodeJS.Timeout | undefined;
    const giveUp = new Promise<never>((_, reject) => {
      timer = setTimeout(() => {
        reject(new LineFailure("slow"));
        this.close();
      }, this.patienceMilliseconds);
    });
    try {
      return await Promise.race([work, giveUp]);
    } finally {
      clearTimeout(timer);
    }
  }
}
