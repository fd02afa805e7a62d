// npm run bench:casebook: how long the casebook's questions take in a shop of 20,000 closed jobs and a million readings. Nothing passes or
// fails.
import { runOnCluster } from "./onCluster.mjs";

await runOnCluster(async () => {
  const { benchCasebook } = await import("../e2e/src/benchServer/benchCasebook.ts");
  await benchCasebook(console.log);
});
