import { Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, openBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";
import { jobIdOf, readBefore } from "./timeBack";

let server: ServerUnderTest;
let browser: Browser;
let page: Page;
beforeAll(async () => {
  server = await openServer("none");
  browser = await openBrowser();
  page = new Page(browser.driver, server.address);
});
afterAll(async () => {
  await browser?.close();
  await server?.close();
});

async function lens(number: number, heading: string): Promise<void> {
  await page.chord(Key.ALT, String(number));
  await page.see(heading);
}

/** A unit taken in with its parts, a line each. */
async function takeIn(model: string, ...parts: string[]): Promise<void> {
  await page.open("/");
  await page.see("Take in a unit");
  await page.press("n");
  await page.see("Make the job");
  await page.press("adapter", Key.TAB, "Pandruil", Key.TAB, model, Key.TAB, "Dead.", Key.ENTER);
  await page.see(`Intake of Pandruil ${model}`);
  await lens(3, "Words in any order");
  for (const part of parts) {
    await page.fill("Quick entry", part);
    await page.press(Key.ENTER);
    await page.seeNamed(part.split(" ")[0] as string);
  }
}

describe("a doubler", () => {
  it("is two stores: one reading clears one, and each has its own wait", async () => {
    await takeIn("Twin", "C1 bulk 220u 200v", "C2 bulk 220u 200v");
    await page.choose("Bulk, capacitors are", "in series (doubler)");
    await page.seeNamed("Charge watch: Charge unknown: C1 and C2 not named yet");
    await lens(2, "What holds charge?");
    for (const half of ["C1", "C2"]) {
      await page.click(`${half} from the board`);
      await page.click("Add store");
      await page.see(`One of two in series ${half}`);
    }
    await page.seeNamed("Charge watch: One of two in series C1 unknown");
    await drained("One of two in series C1");
    await page.seeNamed("Charge watch: One of two in series C2 unknown");
    await drained("One of two in series C2");
    await page.seeNamed("Charge watch: One of two in series C1 measured 600 mV");
  });

  /** Two low readings of a proved meter at one store, two minutes apart. */
  async function drained(store: string): Promise<void> {
    await readBefore(server, await jobIdOf(browser), { store, volts: 0.5, secondsAgo: 120 });
    await readBefore(server, await jobIdOf(browser), { store, volts: 0.6, secondsAgo: 0 });
    await page.driver.navigate().refresh();
  }
});

describe("a blown fuse with a shorted bulk behind it", () => {
  it("shuts the gate, and is read to the end", async () => {
    await takeIn("Gate", "C1 bulk 120u 400v", "F1", "BR1", "Q1", "R5");
    await lens(1, "Intake of Pandruil Gate");
    await page.switchTo("fuse open");
    await page.press(Key.ENTER);
    await lens(8, "Tests before power");
    console.log(await page.text());
  });
});
