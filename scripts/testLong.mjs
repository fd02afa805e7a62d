// npm run test:long: what takes longer than a test run may: five minutes of torture, the study, the benches.
import { spawnSync } from "node:child_process";
import { checkout } from "./paths.mjs";

const steps = [
  ["torture", ["scripts/torture.mjs", "--minutes", "5"]],
  ["study of judgement", ["scripts/studyJudge.mjs"]],
  ["bench of the server", ["scripts/benchServer.mjs"]],
];
let failed = 0;
for (const [name, args] of steps) {
  console.log(`\n== ${name}`);
  const { status } = spawnSync(process.execPath, args, { cwd: checkout, stdio: "inherit" });
  if (status !== 0) failed += 1;
}
console.log(`\n${steps.length - failed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
