// npm run bench:web: how long a hand waits on a full job, in Chromium. Prints, and never fails on a time.
import { runInBrowser } from "./inBrowser.mjs";

await runInBrowser("../e2e/src/benchWeb.ts");
