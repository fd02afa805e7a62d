// npm run -s verify-reference -- FILE...: runs reference cases through core, a line a case; exit 1 on any failure.
import { ensurePackages } from "./npmPackages.mjs";

await ensurePackages();
const { register } = await import("tsx/esm/api");
register();
const { verifyFiles } = await import("../core/reference/verifyFiles.ts");
const { readFileSync } = await import("node:fs");
const files = process.argv.slice(2);
if (files.length === 0) {
  console.error("usage: npm run -s verify-reference -- FILE...");
  process.exit(2);
}
const { lines, isGood } = verifyFiles(files.map((name) => ({ name, read: () => readFileSync(name, "utf8") })));
console.log(lines.join("\n"));
process.exit(isGood ? 0 : 1);
