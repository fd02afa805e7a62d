import { createServer } from "node:net";

/**
 * Below the range from which the system gives out ports of its own accord: the tests that run beside the journeys are given
 * theirs from there, and one could otherwise answer at a port between its being found free and its being used.
 */
const lowestPort = 12_000;
const highestPort = 32_000;

/** A port of loopback that nobody listens on just now. */
export async function freePort(): Promise<number> {
  for (let attempt = 0; attempt < 100; attempt++) {
    const port = lowestPort + Math.floor(Math.random() * (highestPort - lowestPort));
    if (await isFree(port)) return port;
  }
  throw new Error("No free port was found.");
}

function isFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const probe = createServer().once("error", () => resolve(false));
    probe.listen(port, "127.0.0.1", () => probe.close(() => resolve(true)));
  });
}
