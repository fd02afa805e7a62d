// npm run test:long: what takes longer than a test run may: every *.long.test.* (clusters and proxies, the demo's past, abuse, lives
// of series, half of the journeys, a catalogue of 50,000 rows among them), five minutes of torture, every practice supply solved,
// the study, the benches.
import { spawnSync } from "node:child_process";
import { checkout } from "./paths.mjs";

const steps = [
  [
    "clusters, lives, long journeys; a catalogue of 50,000 rows",
    ["scripts/test.mjs", "long"],
    { LONG_IMPORT_ROWS: "50000" },
  ],
  ["torture", ["scripts/torture.mjs", "--minutes", "5"]],
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
