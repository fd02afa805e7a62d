import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { AxeResults, Result } from "axe-core";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type Browser, openBrowser, resize } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";
import { demoLines, views } from "./views";

const axeSource = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

let server: ServerUnderTest;
let browser: Browser;
let page: Page;
let lines: Awaited<ReturnType<typeof demoLines>>;
beforeAll(async () => {
  server = await openServer("demo");
  browser = await openBrowser();
  page = new Page(browser.driver, server.address);
  lines = await demoLines(server.address);
});
afterAll(async () => {
  await resize(browser.driver, { width: 1280, height: 800, scheme: "light" });
  await browser?.close();
  await server?.close();
});

const grave = ({ impact }: Result) => impact === "serious" || impact === "critical";

/** What the engine finds that is serious or worse: rule, and the first places of it. */
async function findings(rules: object = {}): Promise<readonly string[]> {
  await browser.driver.executeScript(`if (!window.axe) { ${axeSource} }`);
  const results = await browser.driver.executeAsyncScript<AxeResults>(
    "const done = arguments[arguments.length - 1]; window.axe.run(document, arguments[0]).then(done);",
    rules,
  );
  return results.violations.filter(grave).map(
    (one) =>
      `${one.id}: ${one.nodes
        .slice(0, 3)
        .map((node) => node.target.join(" "))
        .join(" | ")}`,
  );
}

const size = { width: 1280, height: 800 };
/** All that the scheme changes. */
const coloursOnly = { runOnly: ["color-contrast"] };

it.each(views)("$file has nothing that shuts somebody out, in the light and in the dark", async (view) => {
  await resize(browser.driver, { ...size, scheme: "light" });
  const id = "model" in view ? lines.find((line) => line.deviceModel === view.model)?.id : undefined;
  await page.open("path" in view ? view.path : `/jobs/${id}/${view.lens}`);
  await page.see("model" in view ? view.model : view.heading);
  if ("part" in view) await page.click(`${view.part}, `);
  if ("click" in view) await page.click(view.click);
  expect(await findings()).toEqual([]);
  await resize(browser.driver, { ...size, scheme: "dark" });
  await page.until("see it in the dark", () =>
    browser.driver.executeScript<boolean>(
      "return document.documentElement.getAttribute('data-mantine-color-scheme') === 'dark'",
    ),
  );
  expect(await findings(coloursOnly)).toEqual([]);
});
