// npm run bench:core: speed of the ripple engine, and how it grows with capacitors and harmonics. Nothing passes or fails.
import { ensurePackages } from "./npmPackages.mjs";

ensurePackages();
const { register } = await import("tsx/esm/api");
register();
await import("../core/testing/benchCore.ts");
