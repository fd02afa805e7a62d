import { Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, openBrowser, resize } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";

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

/** Whether something of the page is wider or higher than the window. */
const overflows = () =>
  browser.driver.executeScript<boolean>(
    "const root = document.documentElement; return root.scrollWidth > innerWidth || root.scrollHeight > innerHeight",
  );

describe("an empty shop", () => {
  it("teaches the next act and lists its keys", async () => {
    await page.open("/");
    await page.see("The bench is empty.");
    await page.press("?");
    await page.see("Keys of this screen");
    await page.see("take in a unit");
    await page.press(Key.ESCAPE);
  });

  it("says plainly where an address leads nowhere", async () => {
    await page.open("/jobs/0190a5b0-0000-7000-8000-000000000001");
    await page.see("There is no job with this id.");
    await page.open("/no/such/place");
    await page.see("There is nothing under this address");
  });

  it("shows every lens of a bare job without a scroll of the page, in both sizes and schemes", async () => {
    await page.open("/");
    await page.see("The bench is empty.");
    await page.press("n");
    await page.see("Make the job");
    await page.press("other", Key.TAB, Key.ENTER);
    await page.see("Intake of unnamed other");
    const views = [
      { width: 1280, height: 800, scheme: "light" },
      { width: 1024, height: 768, scheme: "dark" },
    ] as const;
    for (const view of views) {
      await resize(browser.driver, view);
      for (let rung = 1; rung <= 9; rung++) {
        await page.chord(Key.ALT, String(rung));
        await page.until(`stand on rung ${rung}`, () =>
          browser.driver.executeScript<boolean>(
            "return document.querySelector('nav[aria-label=Lenses] a.active')?.textContent.startsWith(arguments[0])",
            String(rung),
          ),
        );
        expect(await overflows(), `lens ${rung} at ${view.width}`).toBe(false);
      }
    }
  });

  it("lets the shop change a rule, refuses an absurd one, and finds the way back", async () => {
    const job = await browser.driver.getCurrentUrl();
    await resize(browser.driver, { width: 1280, height: 800, scheme: "light" });
    await page.open("/house-rules");
    await page.fill("Drained means at or below", "400");
    await page.press(Key.TAB);
    await page.see("must lie between 1 and 60 V");
    await page.fill("Warranty", "12");
    await page.press(Key.TAB);
    await page.see("changed 1 time");
    await browser.driver.get(job);
    await page.chord(Key.ALT, "9");
    await page.see("Warranty of 12 months from today");
    await page.open("/house-rules");
    // What was typed and refused stays until a person throws it away.
    const limit = await page.field("Drained means at or below");
    expect(await limit.getAttribute("value")).toBe("400");
    await page.see("must lie between 1 and 60 V");
    await limit.sendKeys(Key.ESCAPE);
    await page.until("see the refused limit gone", async () => (await limit.getAttribute("value")) === "10");
    await page.click("Back to 6 months");
    await page.see("changed 2 times");
    await browser.driver.get(job);
    await page.seeNamed("1 Intake");
  });

  it("keeps the focus visible and reaches the board by Tab", async () => {
    await resize(browser.driver, { width: 1280, height: 800, scheme: "light" });
    await page.chord(Key.ALT, "3");
    await page.fill("New part, capacitance", "470");
    await page.fill("New part, rated voltage", "25");
    await page.press(Key.ENTER);
    await page.seeNamed("C1, 470 µF 25 V");
    for (let presses = 0; presses < 90; presses++) {
      await page.press(Key.TAB);
      const name = await browser.driver.executeScript<string>(
        "return document.activeElement?.getAttribute('aria-label') ?? ''",
      );
      if (name.startsWith("C1, 470")) break;
    }
    const outline = await browser.driver.executeScript<string>(
      "const ring = document.activeElement.querySelector('circle[class*=focus]'); return ring ? getComputedStyle(ring).stroke : 'none'",
    );
    expect(outline).not.toBe("none");
    await page.press(Key.ENTER);
    await page.see("What can be seen");
  });

  it("finds jobs, lenses and parts from the command box, and says when it finds nothing", async () => {
    await page.press("g", "measure", Key.ENTER);
    await page.seeNamed("Probe bar");
    await (await page.field("Go to a job, lens or part")).sendKeys("C99", Key.ENTER);
    await page.see("not found");
  });
});
