import { benchBasePort } from "@pale-cap/contract";
import { startBench } from "./startBench";

/** The simulated bench as a process of its own; it ends with the process that started it. */
const basePort = Number(process.env.BENCH_PORT ?? benchBasePort);
await startBench(basePort);
process.send?.("ready");
process.once("disconnect", () => process.exit(0));
for (const signal of ["SIGINT", "SIGTERM"] as const) process.once(signal, () => process.exit(0));
