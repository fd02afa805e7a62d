// For the mutation tester: the usual test runner, that also notices a file whose tests never ran because the broken piece threw
// while it was loaded or in what is done before all of its tests, and that runs nothing for a piece that is not of the sample (the
// tester is asked for places, and finds several pieces in one); and a reporter that keeps each outcome as it comes, so that a run
// that was stopped can go on.
import { appendFileSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join, relative } from "node:path";
import { pathToFileURL } from "node:url";

const usual = createRequire(import.meta.url).resolve("@stryker-mutator/vitest-runner/package.json");
const here = (path) => join(dirname(usual), "dist", path);
const { VitestTestRunner } = await import(pathToFileURL(here("src/vitest-test-runner.js")).href);

/** What the tester's own hook says in every file under this version of Vitest: nothing of the tests. */
const ownHook = 'uses fixtures "meta"';

const { MUTATION_ROOT: root = ".", MUTATION_WANTED: wantedFile, MUTATION_OUTCOMES: outcomesFile } = process.env;
const wanted = wantedFile ? new Set(JSON.parse(readFileSync(wantedFile, "utf8"))) : null;
/** A piece by its place, counted from 1, and what stands there instead. */
const keyOf = ({ fileName, mutatorName, replacement }, { start, end }) =>
  [relative(root, fileName), `${start.line}:${start.column}-${end.line}:${end.column}`, mutatorName, replacement].join(
    "|",
  );
const countedFromOne = ({ line, column }) => ({ line: line + 1, column: column + 1 });

class FileFailureRunner extends VitestTestRunner {
  #knownIds = [];

  async mutantRun(asked) {
    const { activeMutant } = asked;
    const { start, end } = activeMutant.location;
    const place = { start: countedFromOne(start), end: countedFromOne(end) };
    if (wanted && !wanted.has(keyOf(activeMutant, place)))
      return { status: "error", errorMessage: "not of the sample" };
    return super.mutantRun(asked);
  }

  async run(asked) {
    const found = await super.run(asked);
    if (found.status !== "complete") return found;
    if (this.#knownIds.length === 0) this.#knownIds = found.tests.map((one) => one.id);
    const errors = this.ctx.state.getFiles().flatMap((file) => file.result?.errors ?? []);
    const error = errors.find(({ message }) => !message.includes(ownHook));
    if (!error || found.tests.some((one) => one.status === 1)) return found;
    const [id = "none"] = this.#knownIds;
    const failed = { id, name: id, timeSpentMs: 0, status: 1, failureMessage: error.message };
    return { ...found, tests: [...found.tests, failed] };
  }
}

function createRunner(injector) {
  return injector.provideValue("globalNamespace", "__stryker__").injectClass(FileFailureRunner);
}
createRunner.inject = ["$injector"];

class KeptOutcomes {
  onMutantTested(mutant) {
    const key = keyOf(mutant, mutant.location);
    if (wanted?.has(key)) appendFileSync(outcomesFile, `${JSON.stringify({ key, status: mutant.status })}\n`);
  }
}

export const strykerPlugins = [
  { kind: "TestRunner", name: "vitest-files", factory: createRunner },
  { kind: "Reporter", name: "kept-outcomes", injectableClass: KeptOutcomes },
];
export const strykerValidationSchema = JSON.parse(readFileSync(here("schema/vitest-runner-options.json"), "utf8"));
