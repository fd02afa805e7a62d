// npm run bench:judge: how long verdicts and explanations of a large job take after one more reading. Nothing passes or fails.
import { runInNode } from "./inNode.mjs";

await runInNode("../core/testing/benchJudge.ts");
