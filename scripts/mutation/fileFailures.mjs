// A test runner for the mutation tester: the usual one, that also notices a file whose tests never ran because the broken
// piece threw while it was loaded or in what is done before all of its tests.
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { pathToFileURL } from "node:url";

const usual = createRequire(import.meta.url).resolve("@stryker-mutator/vitest-runner/package.json");
const here = (path) => join(dirname(usual), "dist", path);
const { VitestTestRunner } = await import(pathToFileURL(here("src/vitest-test-runner.js")).href);

/** What the tester's own hook says in every file under this version of Vitest: nothing of the tests. */
const ownHook = 'uses fixtures "meta"';

class FileFailureRunner extends VitestTestRunner {
  #knownIds = [];

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

export const strykerPlugins = [{ kind: "TestRunner", name: "vitest-files", factory: createRunner }];
export const strykerValidationSchema = JSON.parse(readFileSync(here("schema/vitest-runner-options.json"), "utf8"));
