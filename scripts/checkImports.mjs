// Import directions by dependency-cruiser. It passes silently when it sees nothing, so this also asserts that it saw
// every module, and that a planted violation of each kind is found.
import { spawnSync } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { checkout, runFolder } from "./paths.mjs";

const { forbidden } = createRequire(import.meta.url)("../.dependency-cruiser.cjs");
/** From the ground up, as the rules have them. */
const coreRooms = forbidden.flatMap(({ name }) => /^core-room-(.*)/.exec(name)?.[1] ?? []);
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

/** For each rule one file that breaks it, in a copy of the tree's skeleton: what it is called and what it imports. */
const planted = {
  "core-imports-nothing": ["core/src/plantedNode.ts", "node:fs"],
  ...Object.fromEntries(coreRooms.map((room, n) => [`core-room-${room}`, plantedInRoom(room, coreRooms[n + 1])])),
  "core-rooms-are-known": ["core/src/cellar/planted.ts", "../errors"],
  "core-reference-imports-core": ["core/reference/planted.ts", "../../contract/src/index"],
  "contract-imports-core": ["contract/src/planted.ts", "../../server/src/app"],
  "wording-imports-core-and-contract": ["wording/src/planted.ts", "../../web/src/main"],
  "bench-stands-on-contract": ["bench/src/planted.ts", "../../server/src/app"],
  "server-never-meets-web": ["server/src/planted.ts", "../../web/src/main"],
  "web-never-meets-server": ["web/src/planted.ts", "../../server/src/app"],
  "features-are-strangers": ["server/src/features/one/planted.ts", "../two/other"],
  "lenses-and-places-are-strangers": ["web/src/lenses/one/planted.ts", "../../places/two/other"],
  "nothing-imports-lenses-but-app": ["web/src/job/planted.ts", "../places/two/other"],
  "nothing-imports-app-but-main": ["web/src/job/plantedApp.ts", "../app/frame"],
  "ui-is-field-free": ["web/src/ui/planted.ts", "../job/thing"],
  "drawing-knows-no-job": ["web/src/drawing/planted.ts", "../job/thing"],
  "job-knows-no-probe": ["web/src/job/plantedProbe.ts", "../probe/thing"],
  "yup-stays-in-contract": ["web/src/plantedYup.ts", "yup"],
  "nothing-unresolved": ["server/src/unresolved.ts", "no-such-package"],
  "no-circles": ["core/src/plantedCircle.ts", "./otherCircle"],
};

/** From a room into the one above it; from the topmost to the front door. Type imports count. */
function plantedInRoom(room, above) {
  return [`core/src/${room}/planted.ts`, above ? `../${above}/planted` : "../index"];
}

for (const { name } of forbidden) if (!(name in planted)) problems.push(`no planted violation of ${name}`);
const tree = mkdtempSync(join(runFolder(), "planted-"));
try {
  const place = (file, text) => {
    mkdirSync(dirname(join(tree, file)), { recursive: true });
    writeFileSync(join(tree, file), text);
  };
  cpSync(join(checkout, "tsconfig.base.json"), join(tree, "tsconfig.base.json"));
  symlinkSync(join(checkout, "node_modules"), join(tree, "node_modules"));
  for (const file of [
    ...["core/src/index.ts", "core/src/errors.ts", "contract/src/index.ts", "server/src/app.ts"],
    ...["server/src/features/two/other.ts", "web/src/main.ts", "web/src/places/two/other.ts", "web/src/app/frame.ts"],
    ...["web/src/job/thing.ts", "web/src/probe/thing.ts"],
  ]) {
    place(file, "export {};");
  }
  place("core/src/otherCircle.ts", 'import type { T } from "./plantedCircle";\nexport type U = T;');
  for (const [file, target] of Object.values(planted)) {
    place(
      file,
      `import type { T } from "${target}";\nexport type ${file.includes("Circle") ? "T = string; export type V" : "V"} = T;`,
    );
  }
  const { violations } = cruise(tree, folders.slice(0, -1)).summary;
  for (const [rule, [file]] of Object.entries(planted)) {
    const isFound = violations.some((one) => one.rule.name === rule && (one.from === file || one.to === file));
    if (!isFound) problems.push(`planted violation of ${rule} was not found`);
  }
} finally {
  rmSync(tree, { recursive: true, force: true });
}
if (problems.length > 0) {
  console.error(problems.join("\n"));
  process.exit(1);
}
console.log(`${expected.length} modules, ${Object.keys(planted).length} planted violations found`);
