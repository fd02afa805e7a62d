import { By, Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, devTools, openBrowser, openOwnBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";

let server: ServerUnderTest;
let browser: Browser;
let page: Page;
let monitor: string;

interface StoredJob {
  readonly readings: readonly { readonly rawText: string | null; readonly cameAfterClosing: boolean }[];
  readonly chargeEvents: readonly { readonly volts: number | null; readonly clockAheadSeconds: number | null }[];
  readonly signs: readonly unknown[];
}
const stored = async (path: string) => (await (await fetch(`${server.address}/api${path}`)).json()) as StoredJob;
beforeAll(async () => {
  server = await openServer("demo");
  const { lines } = (await (await fetch(`${server.address}/api/bench`)).json()) as {
    lines: { id: string; deviceModel: string }[];
  };
  monitor = `/jobs/${lines.find((line) => line.deviceModel === "Halden 24")?.id}`;
  browser = await openBrowser();
  page = new Page(browser.driver, server.address);
});
afterAll(async () => {
  await browser?.close();
  await server?.close();
});

describe("a browser whose storage does not open", () => {
  it("says that nothing is kept here, and has every reading of a burst stored", async () => {
    const source = 'IDBFactory.prototype.open = () => { throw new DOMException("shut", "UnknownError"); };';
    const own = await openOwnBrowser();
    try {
      await devTools(own.driver).sendDevToolsCommand("Page.addScriptToEvaluateOnNewDocument", { source });
      const shut = new Page(own.driver, server.address);
      await shut.open(`${monitor}/measure`);
      await shut.seeNamed("Reading, ");
      const texts = ["v 0.821", "v 0.822", "v 0.823", "v 0.824", "v 0.825"];
      await shut.press(...texts.flatMap((text) => [text, "/"]));
      await shut.see("This browser keeps nothing on this computer");
      await shut.until("have all five stored", async () => {
        const raw = (await stored(monitor)).readings.map((one) => one.rawText);
        return texts.every((text) => raw.filter((one) => one === text).length === 1);
      });
      await server.kill();
      await shut.press("v 0.826", "/");
      await shut.see("stay on this page until the server has them");
      await server.start();
      await shut.click("Try now");
      await shut.seeNot("not stored yet");
      expect((await stored(monitor)).readings.filter((one) => one.rawText === "v 0.826")).toHaveLength(1);
    } finally {
      await own.close();
    }
  });
});

describe("a computer whose clock is wrong", () => {
  it("is told so, and its low voltage verifies nothing", async () => {
    const source = "const now = Date.now; Date.now = () => now() + 600000;";
    const own = await openOwnBrowser();
    try {
      await devTools(own.driver).sendDevToolsCommand("Page.addScriptToEvaluateOnNewDocument", { source });
      const fast = new Page(own.driver, server.address);
      await fast.open(`${monitor}/make-safe`);
      await fast.see("clock is 10 min ahead of the server's");
      await fast.fill("Measured voltage", "1.5");
      await (await fast.field("meter proved on a known source")).sendKeys(Key.SPACE);
      await (await fast.field("Measured voltage")).sendKeys(Key.ENTER);
      await fast.until("have it stored", async () =>
        (await stored(monitor)).chargeEvents.some((one) => one.volts === 1.5 && (one.clockAheadSeconds ?? 0) > 590),
      );
      await fast.seeNamed("Charge watch: Bulk C1 unknown: that computer's clock runs ahead");
    } finally {
      await own.close();
    }
  });
});

describe("a closed job", () => {
  const close = async (isReopened: boolean) => {
    const { job } = (await (await fetch(`${server.address}/api${monitor}`)).json()) as { job: { version: number } };
    const body = {
      ...{ id: crypto.randomUUID(), version: job.version, handedOverAt: new Date().toISOString(), warrantyMonths: 6 },
      ...{ spentMinutes: null, note: null, isReopened, clockId: null, personId: null },
    };
    const send = (path: string, said: object) =>
      fetch(`${server.address}/api${monitor}/${path}`, {
        ...{ method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(said) },
      });
    // One of its earth screws is out: it can only leave as not repaired.
    const tagged = { id: crypto.randomUUID(), kind: "outcome", subjectId: null, word: "not_repaired", note: null };
    await send("acts", { ...tagged, at: new Date().toISOString(), clockId: null, personId: null });
    expect((await send("hand-over", body)).status).toBe(200);
  };

  it("offers no entry; what was confirmed before it was closed is kept, told on the bench, and proves nothing", async () => {
    await page.open(`${monitor}/measure`);
    await page.seeNamed("Reading, ");
    // Confirmed here while the server is gone; meanwhile another bench closes the job.
    await server.kill();
    await page.press("0.831", "/");
    await page.see("is not stored yet");
    await page.open("about:blank", "");
    await server.start();
    await close(false);
    await page.open("/");
    await page.see("Came after closing");
    await page.see("1 late");
    const late = (await stored(monitor)).readings.find((one) => one.rawText === "0.831");
    expect(late?.cameAfterClosing).toBe(true);
    await page.open(`${monitor}/intake`);
    await page.see("nothing is entered on a closed job");
    const fields = "main :is(input:not([type=radio]), textarea, select)";
    const inputs = await browser.driver.findElements(By.css(fields));
    expect(inputs.length).toBeGreaterThan(0);
    for (const input of inputs) expect(await input.isEnabled()).toBe(false);
    // Its pages can still be looked at.
    await page.switchTo("Same kind");
    await page.seeNot("What it does wrong");
    // A key that would enter a sign says why it does not.
    const signs = (await stored(monitor)).signs.length;
    await page.open(`${monitor}/inspect`);
    await page.fill("Go to a job, lens or part", "C14");
    await page.press(Key.ENTER, Key.ESCAPE);
    await page.see("vent open");
    await page.press("1");
    await page.see("Nothing is entered on a closed job");
    expect((await stored(monitor)).signs).toHaveLength(signs);
    for (const lens of ["measure", "hand-over"]) {
      await page.open(`${monitor}/${lens}`);
      await page.see(lens === "measure" ? "Open it again in Hand over" : "as things stand now");
      // What stands on a label or goes with a file is no entry.
      const entries = `${fields}:enabled:not([data-leaves] *), section[aria-label='Probe bar']`;
      expect(await browser.driver.findElements(By.css(entries))).toEqual([]);
    }
    await page.click("Open the job again");
    await page.see("Minutes it took");
    await page.open(`${monitor}/measure`);
    await page.seeNot("nothing is entered on a closed job");
  });
});
