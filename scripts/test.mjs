// npm test: set-up, then every check and test; the last line counts the whole. An argument runs one part of it.
import { spawnSync } from "node:child_process";
import { readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { ensureClientBuild } from "./clientBuild.mjs";
import { ensureChromium, ensurePostgres, NeedsPerson } from "./debianPackages.mjs";
import { ensurePackages } from "./npmPackages.mjs";
import { checkout, runFolder } from "./paths.mjs";
import { openScratch, removeScratch, sweepScratch } from "./postgres/cluster.mjs";

const parts = { static: staticChecks, unit: unitTests, api: apiTests, browser: browserTests };
const wanted = process.argv[2] ? [process.argv[2]] : Object.keys(parts);
const clusterName = `test-${process.pid}`;
const totals = { passed: 0, failed: 0 };
let cluster;

for (const signal of ["SIGINT", "SIGTERM"]) {
  process.on(signal, () => {
    if (cluster) removeScratch(clusterName);
    process.exit(1);
  });
}
try {
  if (!wanted.every((part) => part in parts)) throw new NeedsPerson(`Parts are: ${Object.keys(parts).join(", ")}.`);
  ensurePackages();
  for (const part of wanted) {
    console.log(`\n== ${part}`);
    await parts[part]();
  }
} catch (error) {
  totals.failed += 1;
  console.error(error instanceof NeedsPerson ? error.message : error);
} finally {
  if (cluster) removeScratch(clusterName);
}
if (totals.passed + totals.failed === 0) totals.failed = 1;
console.log(`\n${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed === 0 ? 0 : 1);

/** Formatting and lint, types of every package, import directions. Each counts as one. */
function staticChecks() {
  const bin = (name) => join(checkout, "node_modules/.bin", name);
  check("format and lint", bin("biome"), ["check", ".", "--error-on-warnings"]);
  for (const project of ["core", "core/tsconfig.test.json", "contract", "server", "web", "bench", "e2e"]) {
    check(`types of ${project}`, bin("tsc"), ["-p", project]);
  }
  check("import directions", process.execPath, [join(checkout, "scripts/checkImports.mjs")]);
}

function check(name, command, args) {
  const result = spawnSync(command, args, { cwd: checkout, encoding: "utf8", env: cleanEnvironment() });
  const isGood = result.status === 0;
  totals[isGood ? "passed" : "failed"] += 1;
  console.log(`${isGood ? "ok  " : "FAIL"} ${name}`);
  if (!isGood) console.log(result.stdout + result.stderr);
}

function unitTests() {
  vitest("unit");
}

async function apiTests() {
  vitest("api", await testCluster());
}

async function browserTests() {
  ensureChromium();
  ensureClientBuild();
  vitest("browser", await testCluster());
  // On a cluster of its own, as durable as a shop's.
  const torture = [join(checkout, "scripts/torture.mjs"), "--minutes", "1"];
  check("a minute of killing server, database and browser: nothing lost, nothing doubled", process.execPath, torture);
}

/** A cluster of this run's own: no shop is ever opened, and stopping `npm start` or another run never touches it. */
async function testCluster() {
  if (!cluster) {
    ensurePostgres();
    sweepScratch();
    cluster = await openScratch(clusterName);
  }
  const { superuser, owner, app } = cluster.urls;
  return { TEST_POSTGRES_ADDRESS: superuser, TEST_POSTGRES_OWNER: owner, TEST_POSTGRES_APP: app };
}

/** Runs one vitest project; a part that ran no test counts as failed. */
function vitest(project, env = {}) {
  const report = join(runFolder(), `${project}.json`);
  rmSync(report, { force: true });
  const bin = join(checkout, "node_modules/vitest/vitest.mjs");
  const reporters = ["--reporter=dot", "--reporter=json", `--outputFile.json=${report}`];
  spawnSync(process.execPath, [bin, "run", "--project", project, ...reporters], {
    cwd: checkout,
    stdio: ["ignore", "inherit", "inherit"],
    env: { ...cleanEnvironment(), ...env },
  });
  const { numPassedTests = 0, numFailedTests = 0, numFailedTestSuites = 0 } = readReport(report);
  totals.passed += numPassedTests;
  // A file that could not even be loaded has no failed test, only a failed suite.
  totals.failed += numFailedTests + (numFailedTests === 0 ? numFailedTestSuites : 0);
  if (numPassedTests + numFailedTests === 0) totals.failed += 1;
}

function readReport(report) {
  try {
    return JSON.parse(readFileSync(report, "utf8"));
  } catch {
    console.error("The test runner left no report.");
    return {};
  }
}

/** The outer npm's settings and a person's DATABASE_URL must not reach the tests. */
function cleanEnvironment() {
  const env = Object.fromEntries(
    Object.entries(process.env).filter(([name]) => !/^(DATABASE_(OWNER_)?URL|PORT|PALE_CAP_\w+)$/.test(name)),
  );
  return { ...env, NODE_ENV: "test" };
}
