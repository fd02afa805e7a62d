import { benchPort, instrumentKinds } from "@pale-cap/contract";
import { instruments } from "./instruments";
import { Bench } from "./instruments/bench";
import { type LineServer, serveInstrument } from "./protocol/lineServer";
import { loadScenarios } from "./scenarios";

export interface RunningBench {
  readonly bench: Bench;
  readonly basePort: number;
  close(): Promise<void>;
}

/** Opens one port for each simulated instrument, counted up from the base. */
export async function startBench(basePort: number, now = () => performance.now() / 1000): Promise<RunningBench> {
  const bench = new Bench(loadScenarios(), now);
  const servers: LineServer[] = [];
  const close = async () => {
    await Promise.all(servers.map((server) => server.close()));
  };
  try {
    for (const kind of instrumentKinds)
      servers.push(await serveInstrument(instruments[kind](bench), benchPort(kind, basePort)));
  } catch (error) {
    await close();
    throw error;
  }
  return { bench, basePort, close };
}
