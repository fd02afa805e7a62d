import type {
  BenchEvent,
  BestAct,
  HandAct,
  HandAnswer,
  HandsState,
  OfferedPractice,
  PracticeSupplyCard,
} from "@pale-cap/contract";
import { HttpProblem } from "../http/problems";
import { LineClient, LineFailure } from "../instruments/lineClient";
import { openBenchLine } from "../instruments/openLine";

const busy = "BUSY";
/** A bench opens its ports when somebody asks, and makes a supply in some seconds. */
const [openTries, openPauseMilliseconds] = [25, 120];
const [makeMilliseconds, makePauseMilliseconds] = [90_000, 250];
/** One line carries so much of what a bench is told at once. */
const pieceLength = 300;

/** What a bench tells of a supply only once its learner is done. */
export interface PracticeTruth {
  readonly bad: Readonly<Record<string, boolean>>;
  readonly answer: string;
}

export interface BestWay {
  readonly acts: readonly BestAct[];
  readonly minutes: number;
}

/** How a supply stands on its bench. */
export interface PracticeStanding {
  readonly events: readonly BenchEvent[];
  readonly state: HandsState;
}

/**
 * The simulated benches on which somebody practises. Each question opens a line of its own and closes it: what the hub keeps open
 * goes on reading meanwhile.
 */
export class PracticeBenches {
  /** Sets that were given out and stand in no row yet. */
  private readonly given = new Set<number>();

  constructor(
    private readonly benchBasePort: number,
    private readonly patienceMilliseconds = 8000,
  ) {}

  /** A set that nobody has, kept for whoever asks until it stands in the database. */
  take(used: readonly number[]): number {
    let set = 1;
    while (used.includes(set) || this.given.has(set)) set += 1;
    this.given.add(set);
    return set;
  }

  giveBack(set: number): void {
    this.given.delete(set);
  }

  offered(): Promise<readonly OfferedPractice[]> {
    return this.asked(0, async (line) => JSON.parse(await line.ask("HAND:LIST?")) as OfferedPractice[]);
  }

  /** Lays a supply on a bench and waits until it is made. */
  lay(set: number, supply: string): Promise<PracticeSupplyCard> {
    return this.asked(set, async (line) => {
      await line.tell("*CLS");
      await line.tell(`HAND:LAY ${supply}`);
      const refused = await line.ask("SYST:ERR?");
      if (!refused.startsWith("0,")) throw new HttpProblem("not_found", "There is no such practice supply.");
      return JSON.parse(await whenMade(line, "HAND:CARD?")) as PracticeSupplyCard;
    });
  }

  /** Brings a supply back where its bench was started anew meanwhile. */
  async stands(set: number, supply: string, lasting: object | null): Promise<void> {
    const laid = await this.asked(set, (line) => line.ask("HAND:LAY?"));
    if (laid === supply) return;
    await this.lay(set, supply);
    if (lasting === null) return;
    await this.asked(set, async (line) => {
      const text = Buffer.from(JSON.stringify(lasting)).toString("base64url");
      for (let n = 0; n * pieceLength < text.length; n++) {
        await line.tell(`HAND:PUT ${n},${text.slice(n * pieceLength, (n + 1) * pieceLength)}`);
      }
      await line.tell("HAND:USE");
      await line.ask("SYST:ERR?");
    });
  }

  do(set: number, act: HandAct): Promise<HandAnswer> {
    const text = Buffer.from(JSON.stringify(act)).toString("base64url");
    return this.asked(set, async (line) => {
      const answer = await line.ask(`HAND:DO? ${text}`);
      if (!answer.startsWith("{")) throw new HttpProblem("conflict", "The simulated bench did not understand that.");
      return JSON.parse(answer) as HandAnswer;
    });
  }

  standing(set: number): Promise<PracticeStanding> {
    return this.asked(set, async (line) => JSON.parse(await line.ask("HAND:EVEN?")) as PracticeStanding);
  }

  lasting(set: number): Promise<object> {
    return this.asked(set, async (line) => JSON.parse(await line.ask("HAND:KEEP?")) as object);
  }

  truth(set: number): Promise<PracticeTruth> {
    return this.asked(set, async (line) => JSON.parse(await line.ask("HAND:TRUT?")) as PracticeTruth);
  }

  /** The application's own way through it; the bench looks for it from the moment at which the supply was laid there. */
  best(set: number): Promise<BestWay> {
    return this.asked(set, async (line) => JSON.parse(await whenMade(line, "HAND:BEST?")) as BestWay);
  }

  private async asked<T>(set: number, work: (line: LineClient) => Promise<T>): Promise<T> {
    const stream = await this.open(set);
    const line = new LineClient(stream, this.patienceMilliseconds);
    try {
      return await work(line);
    } catch (error) {
      if (error instanceof HttpProblem) throw error;
      if (error instanceof LineFailure || error instanceof SyntaxError) {
        throw new HttpProblem("conflict", "The simulated bench does not answer. What was done stands; try again.");
      }
      throw error;
    } finally {
      line.close();
    }
  }

  private async open(set: number) {
    for (let n = 0; ; n++) {
      try {
        return await openBenchLine(this.benchBasePort, set);
      } catch {
        if (n >= (set === 0 ? 0 : openTries)) {
          throw new HttpProblem("conflict", "The simulated bench cannot be reached.");
        }
        await pause(openPauseMilliseconds);
      }
    }
  }
}

async function whenMade(line: LineClient, question: string): Promise<string> {
  const until = Date.now() + makeMilliseconds;
  for (;;) {
    const answer = await line.ask(question);
    if (answer.startsWith("{")) return answer;
    if (answer !== busy || Date.now() > until) {
      throw new HttpProblem("conflict", "No supply came of this number. Take another one.");
    }
    await pause(makePauseMilliseconds);
  }
}

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));
