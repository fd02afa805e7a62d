import { benchPort, instrumentKinds, mostLoads } from "@pale-cap/contract";
import { instruments } from "./instruments";
import { Bench } from "./instruments/bench";
import { load } from "./instruments/load";
import { withHands } from "./practice/handCommands";
import { type LineServer, serveInstrument } from "./protocol/lineServer";
import { loadScenarios } from "./scenarios";

export interface RunningBench {
  /** The first of its benches. */
  readonly bench: Bench;
  readonly basePort: number;
  close(): Promise<void>;
}

/** How often the instruments look whether they have to switch off by themselves. */
const tickMilliseconds = 250;

/**
 * Opens the ports of a first bench, counted up from the base, and of each further one as soon as somebody asks for it: each has a
 * supply, loads and probes of its own.
 */
export async function startBench(basePort: number, now = () => performance.now() / 1000): Promise<RunningBench> {
  const scenarios = loadScenarios();
  const servers: LineServer[] = [];
  const benches: Bench[] = [];
  let opening: Promise<void> = Promise.resolve();
  const open = async () => {
    const set = benches.length;
    const bench = new Bench(scenarios, now);
    bench.openSets = wanted;
    benches.push(bench);
    for (const kind of instrumentKinds) {
      const instrument = instruments[kind](bench);
      const served = kind === "mains" ? withHands(bench, instrument) : instrument;
      servers.push(await serveInstrument(served, benchPort(kind, basePort, set)));
    }
    for (let channel = 2; channel <= mostLoads; channel++)
      servers.push(await serveInstrument(load(bench, channel), benchPort("load", basePort, set, channel)));
    return bench;
  };
  /** One after the other; a port that is taken leaves that bench out, and says so. */
  function wanted(count: number): void {
    opening = opening.then(async () => {
      while (benches.length < count) {
        await open().catch((error: unknown) => console.error("A simulated bench could not open its ports:", error));
      }
    });
  }
  const ticking = setInterval(() => {
    for (const bench of benches) bench.tick();
  }, tickMilliseconds);
  const close = async () => {
    clearInterval(ticking);
    await opening;
    await Promise.all(servers.map((server) => server.close()));
  };
  try {
    return { bench: await open(), basePort, close };
  } catch (error) {
    await close();
    throw error;
  }
}
