// npm run study:judge [BOARDS] [tune]: virtual boards through the simulated instruments, held against the truth.
import { ensurePackages } from "./npmPackages.mjs";

ensurePackages();
const { register } = await import("tsx/esm/api");
register();
await import("../bench/src/study/main.ts");
