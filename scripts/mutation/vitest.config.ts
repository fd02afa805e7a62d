import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

/**
 * For mutation.mjs alone: the tests of the files that are mutated, in one process without isolation. Files that
 * leave state behind would see each other; the ordinary runs find those.
 */
export default defineConfig({
  resolve: { alias: { "@fast-check/vitest": fileURLToPath(new URL("propertyTests.mjs", import.meta.url)) } },
  test: {
    include: (process.env.MUTATION_TESTS ?? "").split(","),
    exclude: ["**/node_modules/**", ...(process.env.MUTATION_LEFT_OUT ?? "").split(",")],
    isolate: false,
    fileParallelism: false,
    hookTimeout: 60_000,
    testTimeout: 30_000,
  },
});
