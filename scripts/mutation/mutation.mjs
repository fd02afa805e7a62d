// npm run test:mutation -- --in FOLDER [--in FOLDER] [--sample N] [--seed N] [--part 1/4]: breaks the code of a folder
// piece by piece and counts how often its tests notice. A part is one of so many shares of a sample, to be added up: a
// whole one can take hours; --go-on takes what a run that was stopped has found already. Not part of any other run;
// docs/testing.md has the figures and how to read them.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { basename, dirname, join } from "node:path";
import { parseArgs } from "node:util";
import { ensurePostgres, NeedsPerson } from "../debianPackages.mjs";
import { ensurePackages } from "../npmPackages.mjs";
import { checkout, runFolder } from "../paths.mjs";
import { openScratch, removeScratch, sweepScratch } from "../postgres/cluster.mjs";

const { values } = parseArgs({
  options: {
    in: { type: "string", multiple: true },
    sample: { type: "string" },
    seed: { type: "string", default: "1" },
    part: { type: "string", default: "1/1" },
    survivors: { type: "boolean", default: false },
    "go-on": { type: "boolean", default: false },
  },
});

/** Which tests speak for the code of a folder, beside those that stand in it. */
const speakingTests = [
  {
    folder: /^core\/src\/(capacitors|constants|economics|incircuit|life|numerics|proof|replacement|ripple|stock)$/,
    tests: ["core/reference/*.test.ts"],
  },
  { folder: /^server\/src\/(http|summaries|audit)$/, tests: ["server/src/audit/*.test.ts"] },
];
/** Rooms that are told by their own tests (and those that speak for them): what only a room beside or above notices is not noticed. */
const toldByItself = /^(core\/src|server\/src\/features)\//;
/** Facts of every kind come by one route: what each says is told where its kind is at home. */
const factsRoom = "server/src/features/facts";
const homesOfFacts = ["readings", "verdicts", "energy", "plans", "teardown", "jobs"].map(
  (room) => `server/src/features/${room}`,
);
/** Whole storms and long simulations: they would be run again for every piece. */
const leftOut = ["server/src/http/everyWrite.test.ts", "core/src/ripple/mainsBulk.test.ts"];
/** Long tests speak for the room of the features that they stand in alone. */
const longTests = { ofRoom: "{core,bench,server/src/{http,database}}/**/*.long.test.ts", all: "**/*.long.test.ts" };
const clusterName = `test-${process.pid}`;
/** The server's files with what stands in them, read once. */
let serverTexts = null;
const results = join(runFolder(), "mutation");

await ensurePackages();
const folders = values.in ?? [];
if (folders.length === 0) throw new NeedsPerson("Say where: --in core/src/safety");
mkdirSync(results, { recursive: true });
const { register } = await import("tsx/esm/api");
register();
const { seededRandom } = await import("../../core/src/numerics/seededRandom.ts");
const { mutantInterval } = await import("./mutantInterval.mjs");

const files = folders.flatMap(sourcesIn);
const places = await placesOf(files);
const [part, partCount] = values.part.split("/").map(Number);
const sample = values.sample ? drawn(places, Number(values.sample), Number(values.seed)) : places;
const wanted = sample.filter((_, n) => n % partCount === part - 1);
let cluster;
const env = { ...process.env, NODE_ENV: "test" };
if (files.some((file) => file.startsWith("server/"))) {
  ensurePostgres();
  sweepScratch();
  cluster = await openScratch(clusterName);
  const { superuser, owner, app } = cluster.urls;
  Object.assign(env, { TEST_POSTGRES_ADDRESS: superuser, TEST_POSTGRES_OWNER: owner, TEST_POSTGRES_APP: app });
}
try {
  const outcomes = [];
  // A whole folder goes file by file, a sample room by room: each start of the tester runs the room's tests once.
  const groups = Map.groupBy?.(wanted, groupOf) ?? grouped(wanted, groupOf);
  // What few rooms speak for first: a run that is stopped has most of them.
  for (const [name, group] of [...groups].sort(([one], [other]) => one.length - other.length)) {
    const found = runGroup(name, group);
    outcomes.push(...found);
    console.log(`${name}: ${scoreText(found)}`);
  }
  console.log(
    `\n${folders.join(", ")}${values.sample ? ` (${wanted.length} of ${places.length} pieces, seed ${values.seed}, part ${values.part})` : ""}: ${scoreText(outcomes)}`,
  );
} finally {
  if (cluster) removeScratch(clusterName);
}

function sourcesIn(folder) {
  if (/\.tsx?$/.test(folder)) return [folder];
  return readdirSync(join(checkout, folder), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name) && !/\.test\.|^index\.ts$/.test(entry.name))
    .map((entry) => join(entry.parentPath ?? entry.path, entry.name).slice(checkout.length + 1))
    .sort();
}

/** Every piece that the tester would break, as it finds them itself. */
async function placesOf(sources) {
  const fromCore = createRequire(createRequire(import.meta.url).resolve("@stryker-mutator/core/package.json"));
  const { createInstrumenter } = await import(fromCore.resolve("@stryker-mutator/instrumenter"));
  const { createInjector } = await import(fromCore.resolve("typed-inject"));
  const silent = new Proxy({}, { get: (_, name) => (String(name).startsWith("is") ? () => false : () => undefined) });
  const injector = createInjector().provideValue("logger", silent).provideValue("options", {});
  const instrumenter = injector.injectFunction(createInstrumenter);
  const options = { plugins: null, excludedMutations: [], ignorers: [], noHeader: true };
  const { mutants } = await instrumenter.instrument(
    sources.map((name) => ({ name, content: readFileSync(join(checkout, name), "utf8"), mutate: true })),
    options,
  );
  return mutants.map(({ fileName, location, mutatorName, replacement }) => {
    const { start, end } = location;
    // The parser counts lines and columns from 0, the report both from 1, and what is asked for the lines alone.
    const asked = `${start.line + 1}:${start.column}-${end.line + 1}:${end.column}`;
    const told = `${start.line + 1}:${start.column + 1}-${end.line + 1}:${end.column + 1}`;
    return { file: fileName, range: asked, key: [fileName, told, mutatorName, replacement].join("|") };
  });
}

/** A sample without replacement, the same for the same seed. */
function drawn(all, count, seed) {
  const random = seededRandom(seed);
  const left = [...all];
  for (let n = 0; n < Math.min(count, left.length); n++) {
    const other = n + Math.floor(random() * (left.length - n));
    [left[n], left[other]] = [left[other], left[n]];
  }
  return left.slice(0, count).sort((a, b) => (a.key < b.key ? -1 : 1));
}

function groupOf({ file }) {
  if (!values.sample) return file;
  return (isRecord(file) && featuresThatUse(file).join(", ")) || dirname(file);
}

function isRecord(file) {
  return dirname(file) === "server/src/records";
}

/** The rooms of the features that use a record, themselves or through another record: their tests speak for it. */
function featuresThatUse(file) {
  const users = usersOf(file);
  const features = (list) => [...new Set(list.map(dirname).filter((room) => room.startsWith("server/src/features/")))];
  const found = features([...users, ...users.filter(isRecord).flatMap(usersOf)]);
  return [...new Set([...found, ...(found.includes(factsRoom) ? homesOfFacts : [])])].sort();
}

/** Every file of the server that imports a record. */
function usersOf(record) {
  const name = basename(record, ".ts");
  serverTexts ??= sourcesIn("server/src").map((file) => [file, readFileSync(join(checkout, file), "utf8")]);
  return serverTexts
    .filter(([file, text]) => text.includes(isRecord(file) ? `"./${name}"` : `/records/${name}"`))
    .map(([file]) => file);
}

function grouped(all, keyOf) {
  const map = new Map();
  for (const one of all) map.set(keyOf(one), [...(map.get(keyOf(one)) ?? []), one]);
  return map;
}

/** Runs the tester over one group and gives the outcome of each wanted piece. */
function runGroup(name, group) {
  const room = dirname(group[0].file);
  const isCore = room.startsWith("core/src/");
  const folder = toldByItself.test(room)
    ? room
    : (folders.find((one) => room === one || room.startsWith(`${one}/`)) ?? room);
  const tests = [
    `${folder}/**/*.test.ts`,
    ...(isRecord(group[0].file) ? featuresThatUse(group[0].file).map((one) => `${one}/**/*.test.ts`) : []),
    ...speakingTests.filter((one) => one.folder.test(folder)).flatMap((one) => one.tests),
  ];
  const rangesOf = (pieces) => [
    ...new Set(pieces.map(({ file, range }) => (values.sample ? `${file}:${range}` : file))),
  ];
  const ranges = rangesOf(group);
  const id = createHash("sha256").update(ranges.join()).digest("hex").slice(0, 12);
  const kept = join(results, `${id}.outcomes`);
  if (!values["go-on"]) rmSync(kept, { force: true });
  const known = keptOutcomes(kept);
  const outcomes = group.map((piece) => ({ ...piece, status: known.get(piece.key) ?? null }));
  const left = outcomes.filter(({ status }) => status === null);
  const config = {
    testRunner: "vitest-files",
    plugins: [join(checkout, "scripts/mutation/fileFailures.mjs")],
    vitest: { configFile: "scripts/mutation/vitest.config.ts", related: true },
    mutate: rangesOf(left),
    coverageAnalysis: "perTest",
    // A server's tests share a set-up that reaches nearly everything: without this each piece would be tried with all tests.
    ignoreStatic: !isCore,
    concurrency: 2,
    reporters: ["kept-outcomes"],
    tempDirName: ".run/stryker-tmp",
    ignorePatterns: [".run", "docs", "web/dist", "e2e"],
    // Where a server or a busy machine answers late, late is not noticed.
    timeoutMS: isCore ? 4000 : 60_000,
    dryRunTimeoutMinutes: 15,
    disableTypeChecks: false,
    logLevel: "warn",
    allowEmpty: true,
  };
  const file = join(results, `${id}.config.json`);
  writeFileSync(file, JSON.stringify(config));
  writeFileSync(join(results, `${id}.wanted.json`), JSON.stringify(left.map(({ key }) => key)));
  const bin = join(checkout, "node_modules/@stryker-mutator/core/bin/stryker.js");
  if (left.length > 0) {
    spawnSync(process.execPath, [bin, "run", file], {
      cwd: checkout,
      stdio: ["ignore", "inherit", "inherit"],
      env: {
        ...env,
        MUTATION_TESTS: JSON.stringify(tests),
        MUTATION_LEFT_OUT: JSON.stringify([...leftOut, isRecord(group[0].file) ? longTests.all : longTests.ofRoom]),
        MUTATION_OUTCOMES: kept,
        MUTATION_ROOT: checkout,
        MUTATION_WANTED: join(results, `${id}.wanted.json`),
      },
    });
  }
  const statuses = keptOutcomes(kept);
  if (statuses.size === 0) console.log(`${name}: no test of ${folder} reaches it`);
  const fallback = statuses.size === 0 ? "NoCoverage" : "NotFound";
  for (const outcome of outcomes) outcome.status ??= statuses.get(outcome.key) ?? fallback;
  if (values.survivors) {
    for (const { key, status } of outcomes)
      if (/Survived|NoCoverage|NotFound|Ignored/.test(status)) console.log(`  ${status} ${key}`);
  }
  return outcomes;
}

/** What the tester has found of each piece, as far as it came. */
function keptOutcomes(path) {
  if (!existsSync(path)) return new Map();
  const lines = readFileSync(path, "utf8").split("\n").filter(Boolean);
  return new Map(lines.map((line) => JSON.parse(line)).map(({ key, status }) => [key, status]));
}

/** Killed (or never ending) of all that could be run, with its 95 % interval. */
function scoreText(outcomes) {
  const tried = outcomes.filter(({ status }) => /Killed|Timeout|Survived|NoCoverage|NotFound|Ignored/.test(status));
  const killed = tried.filter(({ status }) => /Killed|Timeout/.test(status)).length;
  if (tried.length === 0) return "nothing to break";
  const { low, high } = mutantInterval(killed, tried.length);
  const percent = (ratio) => `${Math.round(100 * ratio)} %`;
  return `${killed} of ${tried.length} killed, ${percent(killed / tried.length)} (${percent(low)} to ${percent(high)})`;
}
