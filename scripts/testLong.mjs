// npm run test:long: what takes longer than a test run may: clusters and proxies, the demo's past, abuse, journeys of practice and
// of backups, five minutes of torture, a catalogue of 50,000 rows in and out, every practice supply solved, the study, the benches.
import { spawnSync } from "node:child_process";
import { checkout } from "./paths.mjs";

const steps = [
  ["clusters, proxies, the demo's past, abuse; journeys of practice and of backups", ["scripts/test.mjs", "long"]],
  ["torture", ["scripts/torture.mjs", "--minutes", "5"]],
  ["a catalogue of 50,000 rows", ["scripts/test.mjs", "browser", "parts.test"], { LONG_IMPORT_ROWS: "50000" }],
  ["practice supplies", ["scripts/test.mjs", "unit", "practice/solved"], { LONG_PRACTICE: "1" }],
  ["study of judgement", ["scripts/studyJudge.mjs"]],
  ["bench of the server", ["scripts/benchServer.mjs"]],
  ["bench of the casebook", ["scripts/benchCasebook.mjs"]],
  ["bench of choosing", ["scripts/benchChoose.mjs"]],
];
let failed = 0;
for (const [name, args, env = {}] of steps) {
  console.log(`\n== ${name}`);
  const { status } = spawnSync(process.execPath, args, {
    cwd: checkout,
    stdio: "inherit",
    env: { ...process.env, ...env },
  });
  if (status !== 0) failed += 1;
}
console.log(`\n${steps.length - failed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
