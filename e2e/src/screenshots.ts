import { mkdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { startBench } from "@pale-cap/bench";
import { openBrowser, resize } from "./browser";
import { openFamily } from "./familyPicture";
import { openLoadRun } from "./loadRunPicture";
import { Page } from "./page";
import { openPeople } from "./peoplePicture";
import { openDebrief } from "./practicePicture";
import { openServer } from "./server";
import { demoLines, views } from "./views";

const folder = join(dirname(dirname(dirname(fileURLToPath(import.meta.url)))), "docs/screenshots");
/** Where the pictures find their simulated bench. */
const benchPort = 48_790;
const bench = await startBench(benchPort);
const server = await openServer("demo", benchPort);
const browser = await openBrowser();
try {
  mkdirSync(folder, { recursive: true });
  const lines = await demoLines(server.address);
  const page = new Page(browser.driver, server.address);
  for (const view of views.filter((one) => !("isOnlyTested" in one))) {
    const scheme = "scheme" in view ? view.scheme : "light";
    await resize(browser.driver, { width: 1280, height: 800, scheme });
    const id = "model" in view ? lines.find((line) => line.deviceModel === view.model)?.id : undefined;
    await page.open("path" in view ? view.path : `/jobs/${id}/${view.lens}`);
    if ("model" in view) await page.see(view.model);
    else await page.see(view.heading);
    if ("part" in view) await page.click(`${view.part}, `);
    if ("click" in view) await page.click(view.click);
    if ("view" in view) await page.switchTo(view.view);
    if ("show" in view) await scrollTo(page, view.show);
    // Charts and the ranking are loaded on demand: the picture waits until nothing changes any more.
    await settle(page);
    writeFileSync(join(folder, `${view.file}.png`), Buffer.from(await browser.driver.takeScreenshot(), "base64"));
    console.log(`docs/screenshots/${view.file}.png`);
  }
  await resize(browser.driver, { width: 1280, height: 800, scheme: "light" });
  await openLoadRun(server, page);
  writeFileSync(join(folder, "load-run.png"), Buffer.from(await browser.driver.takeScreenshot(), "base64"));
  console.log("docs/screenshots/load-run.png");
  await openFamily(server.address, page);
  await settle(page);
  writeFileSync(join(folder, "family.png"), Buffer.from(await browser.driver.takeScreenshot(), "base64"));
  console.log("docs/screenshots/family.png");
  await openDebrief(server, page);
  await settle(page);
  writeFileSync(join(folder, "practice.png"), Buffer.from(await browser.driver.takeScreenshot(), "base64"));
  console.log("docs/screenshots/practice.png");
  const shop = await openServer("demo", undefined, { mode: "shop" });
  try {
    await openPeople(shop, new Page(browser.driver, shop.address));
    await settle(page);
    writeFileSync(join(folder, "people.png"), Buffer.from(await browser.driver.takeScreenshot(), "base64"));
    console.log("docs/screenshots/people.png");
  } finally {
    await shop.close();
  }
} finally {
  await browser.close();
  await server.close();
  await bench.close();
}

/** A table further down, at the top of its pane. */
async function scrollTo(page: Page, table: string): Promise<void> {
  await page.until(`have ${table}`, () =>
    page.driver.executeScript<boolean>(
      "const one = document.querySelector('table[aria-label=\"' + arguments[0] + '\"]'); one?.scrollIntoView(); return one !== null;",
      table,
    ),
  );
}

async function settle(page: Page): Promise<void> {
  let before = "";
  let same = 0;
  await page.until("see the page at rest", async () => {
    const now = await page.driver.executeScript<string>("return document.body.innerHTML");
    same = now === before ? same + 1 : 0;
    before = now;
    await page.driver.sleep(120);
    return same >= 5;
  });
}
