// Import directions by dependency-cruiser. It passes silently when it sees nothing, so this also asserts that it saw
// every module, and that a planted violation of each kind is found.
import { spawnSync } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { checkout, runFolder } from "./paths.mjs";

const folders = ["core", "contract", "wording", "server", "web", "bench", "e2e"];
const depcruise = join(checkout, "node_modules/dependency-cruiser/bin/dependency-cruise.mjs");

function cruise(folder, targets) {
  const args = [depcruise, "--config", join(checkout, ".dependency-cruiser.cjs"), "--output-type", "json", ...targets];
  const result = spawnSync(process.execPath, args, { cwd: folder, encoding: "utf8", maxBuffer: 1 << 28 });
  try {
    return JSON.parse(result.stdout);
  } catch {
    throw new Error(`dependency-cruiser did not answer: ${result.stderr}`);
  }
}

const problems = [];
const real = cruise(
  checkout,
  folders.map((folder) => `${folder}/`),
);
for (const { rule, from, to } of real.summary.violations) problems.push(`${rule.name}: ${from} -> ${to}`);
const listed = spawnSync("git", ["ls-files", "-co", "--exclude-standard", ...folders], {
  cwd: checkout,
  encoding: "utf8",
});
const expected = listed.stdout.split("\n").filter((file) => /\.tsx?$/.test(file) && !/\.d\.ts$/.test(file));
const seen = new Set(real.modules.map((module) => module.source));
const unseen = expected.filter((file) => !seen.has(file));
if (expected.length < 100 || unseen.length > 0)
  problems.push(`not cruised: ${unseen.slice(0, 5).join(", ")} (${unseen.length})`);

/** One file for each rule that must not pass, in a copy of the tree's skeleton. */
const planted = {
  "core-imports-nothing": ["core/src/planted.ts", 'import "node:fs";'],
  "contract-imports-core": ["contract/src/planted.ts", 'import "../../server/src/app";'],
  "server-never-meets-web": ["server/src/planted.ts", 'import "../../web/src/main";'],
  "web-never-meets-server": ["web/src/planted.ts", 'import "../../server/src/app";'],
  "features-are-strangers": ["web/src/features/one/planted.ts", 'import "../two/other";'],
  "ui-is-field-free": ["web/src/ui/planted.ts", 'import "../job/thing";'],
  "yup-stays-in-contract": ["web/src/plantedYup.ts", 'import "yup";'],
  "bench-stands-on-contract": ["bench/src/planted.ts", 'import "../../server/src/app";'],
  "nothing-unresolved": ["server/src/unresolved.ts", 'import "no-such-package";'],
};
const tree = mkdtempSync(join(runFolder(), "planted-"));
try {
  const place = (file, text) => {
    mkdirSync(dirname(join(tree, file)), { recursive: true });
    writeFileSync(join(tree, file), text);
  };
  cpSync(join(checkout, "tsconfig.base.json"), join(tree, "tsconfig.base.json"));
  symlinkSync(join(checkout, "node_modules"), join(tree, "node_modules"));
  for (const file of [
    "server/src/app.ts",
    "web/src/main.ts",
    "web/src/features/two/other.ts",
    "web/src/job/thing.ts",
  ]) {
    place(file, "export {};");
  }
  for (const [file, text] of Object.values(planted)) place(file, text);
  const found = new Set(
    cruise(tree, ["core", "contract", "server", "web", "bench"]).summary.violations.map((one) => one.rule.name),
  );
  for (const rule of Object.keys(planted))
    if (!found.has(rule)) problems.push(`planted violation of ${rule} was not found`);
} finally {
  rmSync(tree, { recursive: true, force: true });
}
if (problems.length > 0) {
  console.error(problems.join("\n"));
  process.exit(1);
}
console.log(`${expected.length} modules, ${Object.keys(planted).length} planted violations found`);
