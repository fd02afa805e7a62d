import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
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
  await page.open("/");
});
afterAll(async () => {
  await resize(browser.driver, { width: 1280, height: 800, scheme: "light" });
  await browser?.close();
  await server?.close();
});

/** What the engine finds that is serious or worse: rule, and the first places of it. Only that comes out of the page: all it looked at is a lot. */
async function findings(rules: object = {}): Promise<readonly string[]> {
  await browser.driver.executeScript(`if (!window.axe) { ${axeSource} }`);
  return browser.driver.executeAsyncScript<readonly string[]>(
    `const done = arguments[arguments.length - 1];
     const grave = ({ impact }) => impact === "serious" || impact === "critical";
     const told = ({ id, nodes }) => id + ": " + nodes.slice(0, 3).map((node) => node.target.join(" ")).join(" | ");
     window.axe.run(document, { resultTypes: ["violations"], ...arguments[0] })
       .then(({ violations }) => done(violations.filter(grave).map(told)));`,
    rules,
  );
}

const size = { width: 1280, height: 800 };
/** All that the scheme changes. */
const coloursOnly = { runOnly: ["color-contrast"] };

it.each(views)("$file has nothing that shuts somebody out, in the light and in the dark", async (view) => {
  await resize(browser.driver, { ...size, scheme: "light" });
  const id = "model" in view ? lines.find((line) => line.deviceModel === view.model)?.id : undefined;
  // From where none of its words stand: a view that is left stays until the next one has come.
  await page.go("/no/such/place");
  await page.see("There is nothing under this address");
  await page.go("path" in view ? view.path : `/jobs/${id}/${view.lens}`);
  await page.see("model" in view ? view.model : view.heading);
  await page.seeNone(".mantine-Loader-root[aria-label]");
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

it("a job that is still on its way shuts nobody out", async () => {
  await page.open("/");
  await page.see("Halden 24");
  await page.leaveUnanswered("/api/jobs/");
  await page.go(`/jobs/${lines.find((line) => line.deviceModel === "Halden 24")?.id}/intake`);
  await page.seeNamed("Loading");
  expect(await findings()).toEqual([]);
});
