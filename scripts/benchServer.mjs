// npm run bench:server: how long a question waits in a shop of 20,000 jobs, and while somebody abuses the server.
import { runOnCluster } from "./onCluster.mjs";

await runOnCluster(async () => {
  const { benchServer } = await import("../e2e/src/benchServer/benchServer.ts");
  await benchServer(console.log);
});
