import { createServer } from "node:net";
import { type RunningBench, startBench } from "@pale-cap/bench";

/** A row of ports that nobody uses: one free port is found, and the bench counts up from it. */
export async function benchOnFreePorts(): Promise<RunningBench> {
  for (let attempt = 0; attempt < 20; attempt++) {
    const probe = createServer();
    await new Promise<void>((resolve) => probe.listen(0, "127.0.0.1", resolve));
    const { port } = probe.address() as { port: number };
    await new Promise((resolve) => probe.close(resolve));
    try {
      return await startBench(port);
    } catch {
      // One of them is taken: another row.
    }
  }
  throw new Error("No row of free ports was found.");
}
