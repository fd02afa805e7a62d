import { statSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";
import { BaseSequencer, type TestSpecification } from "vitest/node";

const list = (patterns = "[]") => JSON.parse(patterns) as string[];

/** The shortest files first: the first test that notices a broken piece ends its run. */
class ShortestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sizes = new Map(files.map(({ moduleId }) => [moduleId, statSync(moduleId).size]));
    return [...files].sort((one, other) => (sizes.get(one.moduleId) ?? 0) - (sizes.get(other.moduleId) ?? 0));
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
    sequence: { sequencer: ShortestFirst },
    hookTimeout: 120_000,
    testTimeout: 120_000,
  },
});
