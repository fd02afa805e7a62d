// npm run count: lines of code and of tests, by package. Blank lines, style sheets and the demo shop's data do not count.
import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { checkout } from "./paths.mjs";

const listed = spawnSync("git", ["ls-files", "-co", "--exclude-standard"], { cwd: checkout, encoding: "utf8" });
const isData = (file) => file.endsWith("demo/demoJobs.ts");
const files = listed.stdout.split("\n").filter((file) => /\.(tsx?|mjs|cjs|sh)$/.test(file) && !isData(file));
const rows = new Map();
for (const file of files) {
  const isTest = /\.test\.tsx?$|(^|\/)testing\/|^e2e\//.test(file);
  const lines = readFileSync(join(checkout, file), "utf8")
    .split("\n")
    .filter((line) => line.trim() !== "").length;
  const name = file.includes("/") ? file.split("/")[0] : "(root)";
  const row = rows.get(name) ?? { package: name, code: 0, test: 0 };
  row[isTest ? "test" : "code"] += lines;
  rows.set(name, row);
}
const total = { package: "all", code: 0, test: 0 };
for (const row of rows.values()) {
  total.code += row.code;
  total.test += row.test;
}
console.table([...rows.values(), total]);
console.log(`Tests are ${Math.round((100 * total.test) / total.code)} % of the code by lines.`);
