// npm run bench:core: speed of the ripple engine, and how it grows with capacitors and harmonics. Nothing passes or fails.
import { runInNode } from "./inNode.mjs";

await runInNode("../core/testing/benchCore.ts");
