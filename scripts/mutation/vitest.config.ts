import { statSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";
import { BaseSequencer, type TestSpecification } from "vitest/node";

const list = (patterns = "[]") => JSON.parse(patterns) as string[];

/** The folder's own tests stand first in the list. */
const ownFolder = `/${list(process.env.MUTATION_TESTS)[0]?.split("/**")[0]}/`;

/** The folder's own tests first, then the shortest files: the first test that notices a broken piece ends its run. */
class LikeliestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const cost = new Map(
      files.map(({ moduleId }) => [moduleId, moduleId.includes(ownFolder) ? 0 : statSync(moduleId).size]),
    );
    return [...files].sort((one, other) => (cost.get(one.moduleId) ?? 0) - (cost.get(other.moduleId) ?? 0));
  }
}

/**
 * For mutation.mjs alone: the tests of the files that are mutated, in one process without isolation. Files that
 * leave state behind would see each other; the ordinary runs find those.
 */
export default defineConfig({
  resolve: { alias: { "@fast-check/vitest": fileURLToPath(new URL("propertyTests.mjs", import.meta.url)) } },
  test: {
    include: list(process.env.MUTATION_TESTS),
    exclude: ["**/node_modules/**", ...list(process.env.MUTATION_LEFT_OUT)],
    isolate: false,
    fileParallelism: false,
    sequence: { sequencer: LikeliestFirst },
    hookTimeout: 120_000,
    testTimeout: 120_000,
  },
});
