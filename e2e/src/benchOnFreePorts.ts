import { type RunningBench, startBench } from "@pale-cap/bench";
import { freePort } from "./freePort";

/** A row of ports that nobody uses: one free port is found, and the bench counts up from it. */
export async function benchOnFreePorts(): Promise<RunningBench> {
  for (let attempt = 0; attempt < 20; attempt++) {
    try {
      return await startBench(await freePort());
    } catch {
      // One of them is taken: another row.
    }
  }
  throw new Error("No row of free ports was found.");
}
