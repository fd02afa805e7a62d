// npm run screenshots: one PNG of each main view from the demo data, into docs/screenshots/.
import { runInBrowser } from "./inBrowser.mjs";

await runInBrowser("../e2e/src/screenshots.ts");
