// npm run bench:judge: how long verdicts and explanations of a large job take after one more reading. Nothing passes or fails.
import { ensurePackages } from "./npmPackages.mjs";

ensurePackages();
const { register } = await import("tsx/esm/api");
register();
await import("../core/testing/benchJudge.ts");
