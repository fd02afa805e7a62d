import { defineConfig } from "vitest/config";

const longTests = "**/*.long.test.*";
const journeys = {
  // Two rows of files, each in one process with one Chromium: a journey waits for its page half of the time.
  maxWorkers: 2,
  isolate: false,
  globalSetup: ["e2e/src/oneChromedriver.ts"],
  hookTimeout: 180_000,
  testTimeout: 480_000,
};

/**
 * Projects of scripts/test.mjs: pure tests, API tests on PostgreSQL, browser journeys; and for `npm run test:long` alone those that take
 * long and stand for what seldom changes, `*.long.test.*`.
 */
export default defineConfig({
  test: {
    // Bounds for what hangs, not for what is slow: a busy machine takes several times as long.
    hookTimeout: 180_000,
    testTimeout: 120_000,
    projects: [
      {
        extends: true,
        test: {
          name: "unit",
          css: true,
          include: ["{core,contract,wording,web,bench}/**/*.test.{ts,tsx}"],
          exclude: ["**/node_modules/**", longTests],
          // Pure tests leave nothing behind: loading every module anew for each file would be most of the time.
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: "api",
          include: ["server/src/**/*.test.ts", "scripts/**/*.test.mjs"],
          exclude: ["**/node_modules/**", longTests],
          fileParallelism: false,
          // Each file has a database of its own: loading the server anew for each would be a third of the time.
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: "long",
          include: ["{core,bench,server}/src/**/*.long.test.ts", "scripts/**/*.long.test.mjs"],
          fileParallelism: false,
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          ...journeys,
          name: "browser",
          include: ["e2e/src/**/*.test.ts"],
          exclude: ["**/node_modules/**", longTests],
        },
      },
      {
        extends: true,
        test: { ...journeys, name: "long-browser", include: ["e2e/src/**/*.long.test.ts"] },
      },
    ],
  },
});
