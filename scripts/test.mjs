// npm test: set-up, then every check and test; the last line counts the whole. An argument runs one part of it (or the long tests,
// which are no part of it), a second one only its files whose names hold that.
import { execFile, spawn } from "node:child_process";
import { readFileSync, rmSync } from "node:fs";
import { join, relative } from "node:path";
import { promisify } from "node:util";
import { ensureClientBuild } from "./clientBuild.mjs";
import { ensureChromium, ensurePostgres, NeedsPerson } from "./debianPackages.mjs";
import { ensurePackages } from "./npmPackages.mjs";
import { checkout, runFolder } from "./paths.mjs";
import { openScratch, removeScratch, sweepScratch } from "./postgres/cluster.mjs";
import { ensureServerBuild } from "./serverBuild.mjs";

const run = promisify(execFile);
const parts = { static: staticChecks, unit: unitTests, api: apiTests, browser: browserTests, long: longTests };
const wanted = process.argv[2] ? [process.argv[2]] : Object.keys(parts).filter((part) => part !== "long");
const fileFilter = process.argv[3];
const clusterName = `test-${process.pid}`;
/** Journeys and the server's tests wait more than they reckon: they go on beside each other. */
const lanes = process.argv[2]
  ? [wanted]
  : [
      ["static", "browser"],
      ["api", "unit"],
    ];
const totals = { passed: 0, failed: 0 };
/** Seconds of each file of tests that was run. */
const fileSeconds = [];
let cluster;
let opening = null;

const running = new Set();

for (const signal of ["SIGINT", "SIGTERM"]) {
  process.on(signal, async () => {
    // What runs goes first: it still holds connections to the cluster.
    await Promise.all(
      [...running].map((child) => new Promise((resolve) => child.once("exit", resolve) && child.kill(signal))),
    );
    if (cluster) removeScratch(clusterName);
    process.exit(1);
  });
}
try {
  if (!wanted.every((part) => part in parts)) throw new NeedsPerson(`Parts are: ${Object.keys(parts).join(", ")}.`);
  await ensurePackages();
  await ensureServerBuild();
  await Promise.all(lanes.map(runLane));
} finally {
  if (cluster) removeScratch(clusterName);
}
if (totals.passed + totals.failed === 0) totals.failed = 1;
tellSlowest();
console.log(`\n${totals.passed} passed, ${totals.failed} failed`);
process.exit(totals.failed === 0 ? 0 : 1);

async function runLane(lane) {
  for (const part of lane) {
    if (lanes.length === 1) console.log(`\n== ${part}`);
    try {
      await parts[part]();
    } catch (error) {
      totals.failed += 1;
      console.error(error instanceof NeedsPerson ? error.message : error);
      // What a machine lacks the next part lacks too.
      return;
    }
  }
}

/** Formatting and lint, types of every package, import directions. Each counts as one; two run side by side. */
async function staticChecks() {
  const bin = (name) => join(checkout, "node_modules/.bin", name);
  // What knows the same surroundings is checked as one: each would check core again.
  const projects = [
    ["web", "web"],
    ["server, bench, journeys and core's tests", "tsconfig.node.json"],
    ["contract and wording", "tsconfig.words.json"],
    ["core", "core"],
  ];
  const waiting = [
    ...projects.map(([name, project]) => [`types of ${name}`, bin("tsc"), ["-p", project]]),
    ["format and lint", bin("biome"), ["check", ".", "--error-on-warnings"]],
    ["import directions", process.execPath, [join(checkout, "scripts/checkImports.mjs")]],
    ["lock file", process.execPath, [join(checkout, "scripts/lockFile.mjs")]],
  ];
  const hand = async () => {
    for (let next = waiting.shift(); next; next = waiting.shift()) await check(...next);
  };
  await Promise.all([hand(), hand()]);
}

async function check(name, command, args) {
  const options = { cwd: checkout, env: cleanEnvironment(), maxBuffer: 64 * 1024 * 1024 };
  const failure = await run(command, args, options).then(
    () => null,
    (error) => error,
  );
  totals[failure ? "failed" : "passed"] += 1;
  console.log(`${failure ? "FAIL" : "ok  "} ${name}`);
  if (failure)
    console.log(`${failure.stdout ?? ""}${failure.stderr ?? ""}${failure.code === undefined ? failure : ""}`);
}

async function unitTests() {
  await vitest("unit");
}

async function apiTests() {
  await vitest("api", await testCluster());
}

async function longTests() {
  await vitest("long", await testCluster());
  await journeys("long-browser");
}

async function browserTests() {
  await journeys("browser");
}

async function journeys(project) {
  ensureChromium();
  await ensureClientBuild();
  await vitest(project, await testCluster());
}

/** A cluster of this run's own: no shop is ever opened, and stopping `npm start` or another run never touches it. */
async function testCluster() {
  opening ??= openCluster();
  await opening;
  const { superuser, owner, app } = cluster.urls;
  return { TEST_POSTGRES_ADDRESS: superuser, TEST_POSTGRES_OWNER: owner, TEST_POSTGRES_APP: app };
}

async function openCluster() {
  ensurePostgres();
  sweepScratch();
  cluster = await openScratch(clusterName);
}

/** Runs one vitest project; a part that ran no test counts as failed. */
async function vitest(project, env = {}) {
  const report = join(runFolder(), `${project}.json`);
  rmSync(report, { force: true });
  const bin = join(checkout, "node_modules/vitest/vitest.mjs");
  const reporters = ["--reporter=dot", "--reporter=json", `--outputFile.json=${report}`];
  // Two at once would write into each other's lines: each speaks when it is through.
  const isAlone = lanes.length === 1;
  const child = spawn(
    process.execPath,
    [bin, "run", ...(fileFilter ? [fileFilter] : []), "--project", project, ...reporters],
    {
      cwd: checkout,
      stdio: isAlone ? ["ignore", "inherit", "inherit"] : ["ignore", "pipe", "pipe"],
      env: { ...cleanEnvironment(), ...env },
    },
  );
  running.add(child);
  const said = [];
  for (const stream of [child.stdout, child.stderr]) stream?.on("data", (chunk) => said.push(chunk));
  await new Promise((resolve) => child.once("close", resolve));
  running.delete(child);
  if (!isAlone) console.log(`\n== ${project}\n${Buffer.concat(said)}`);
  const { numPassedTests = 0, numFailedTests = 0, numFailedTestSuites = 0, testResults = [] } = readReport(report);
  for (const { name, startTime, endTime } of testResults) {
    fileSeconds.push({ file: relative(checkout, name), seconds: (endTime - startTime) / 1000 });
  }
  totals.passed += numPassedTests;
  // A file that could not even be loaded has no failed test, only a failed suite.
  totals.failed += numFailedTests + (numFailedTests === 0 ? numFailedTestSuites : 0);
  if (numPassedTests + numFailedTests === 0) totals.failed += 1;
}

/** The ten slowest files: where the time of a run goes. */
function tellSlowest() {
  const slowest = fileSeconds.sort((a, b) => b.seconds - a.seconds).slice(0, 10);
  if (slowest.length === 0) return;
  console.log("\nSlowest files of tests:");
  for (const { file, seconds } of slowest) console.log(`${seconds.toFixed(1).padStart(7)} s  ${file}`);
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
