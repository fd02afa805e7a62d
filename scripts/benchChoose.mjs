// npm run bench:choose: how long a ranking and a bank's choice take, and how they grow with the catalogue. Nothing passes or fails.
import { runOnCluster } from "./onCluster.mjs";

await runOnCluster(async () => {
  const { benchChoose } = await import("../e2e/src/benchServer/benchChoose.ts");
  await benchChoose(console.log);
});
