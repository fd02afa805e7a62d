import { By, Key, type WebDriver } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, openBrowser, openOwnBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";

let server: ServerUnderTest;
let browser: Browser;
let page: Page;
let monitor: string;
let logger: string;

interface StoredJob {
  readonly job: {
    readonly symptomNote: string | null;
    readonly deviceAgeYears: number | null;
    readonly handedOverAt: string | null;
  };
  readonly readings: readonly { readonly rawText: string | null; readonly cameAfterClosing: boolean }[];
  readonly chargeEvents: readonly { readonly volts: number | null; readonly clockAheadSeconds: number | null }[];
  readonly signs: readonly unknown[];
  readonly ticks: readonly { readonly step: string; readonly isDone: boolean }[];
}
const stored = async (path: string) => (await (await fetch(`${server.address}/api${path}`)).json()) as StoredJob;
const tools = (driver: WebDriver) =>
  driver as unknown as { sendDevToolsCommand(command: string, parameters: object): Promise<void> };
/** Every answer of the server comes so much later: a slow machine. */
const slow = (milliseconds: number) =>
  tools(browser.driver).sendDevToolsCommand("Network.emulateNetworkConditions", {
    ...{ offline: false, latency: milliseconds, downloadThroughput: -1, uploadThroughput: -1 },
  });
const valueIn = async (label: string) => (await page.field(label)).getAttribute("value");

beforeAll(async () => {
  server = await openServer("demo");
  const { lines } = (await (await fetch(`${server.address}/api/bench`)).json()) as {
    lines: { id: string; deviceModel: string }[];
  };
  const pathOf = (model: string) => `/jobs/${lines.find((line) => line.deviceModel === model)?.id}`;
  monitor = pathOf("Halden 24");
  logger = pathOf("Logger 8");
  browser = await openBrowser();
  page = new Page(browser.driver, server.address);
});
afterAll(async () => {
  await browser?.close();
  await server?.close();
});

describe("what is typed", () => {
  it("while the server stores the number before it stays in the field", async () => {
    await page.open(`${monitor}/make-safe`);
    await page.see("Log voltage");
    await slow(1500);
    await page.fill("Measured voltage", "3.2");
    await page.press(Key.ENTER);
    await page.press("26");
    await page.until("have the first stored", async () =>
      (await stored(monitor)).chargeEvents.some((one) => one.volts === 3.2),
    );
    expect(await valueIn("Measured voltage")).toBe("26");
    await page.press(Key.ENTER);
    await page.until("have the second stored", async () =>
      (await stored(monitor)).chargeEvents.some((one) => one.volts === 26),
    );
    await slow(0);
  });

  it("in the bar and not logged stands there again after the tab was closed", async () => {
    await page.open(`${monitor}/measure`);
    await page.seeNamed("Reading, ");
    const label = await browser.driver.executeScript<string>(
      "return document.querySelector(\"section[aria-label='Probe bar'] input[aria-label^=Reading]\").getAttribute('aria-label')",
    );
    await page.press("47");
    await page.open("about:blank", "");
    await page.open(`${monitor}/measure`);
    await page.until("see it again", async () => (await valueIn(label)) === "47");
    await page.press(Key.ESCAPE);
  });

  it("in intake and not saved is stored where it is valid when the lens is left, and told where it is not", async () => {
    await page.open(`${monitor}/intake`);
    await page.see("Intake of Brambix Halden 24");
    await page.fill("Symptoms in free words", "worse when cold");
    await page.fill("Age, years", "six or so");
    await page.chord(Key.ALT, "4");
    await page.see("Intake was stored, but for: age");
    await page.until(
      "have the words stored",
      async () => (await stored(monitor)).job.symptomNote === "worse when cold",
    );
    await page.chord(Key.ALT, "1");
    await page.until("see the words", async () => (await valueIn("Symptoms in free words")) === "worse when cold");
  });

  it("in intake survives a closed tab", async () => {
    await page.fill("Symptoms in free words", "only when it is raining");
    await page.open("about:blank", "");
    await page.open(`${monitor}/intake`);
    await page.until(
      "see it again",
      async () => (await valueIn("Symptoms in free words")) === "only when it is raining",
    );
    // So does the number that was not understood, until a person throws it away.
    expect(await valueIn("Age, years")).toBe("six or so");
    await (await page.field("Age, years")).sendKeys(Key.ESCAPE);
    await page.see("not saved yet");
    await page.click("Save intake");
    await page.seeNot("not saved yet");
  });

  it("as a reason stands there again, until a person leaves it", async () => {
    await page.open(`${monitor}/hand-over`);
    await page.see("Open points");
    const label = await browser.driver.executeScript<string>(
      "return document.querySelector('input[aria-label^=\"Reason to accept\"]').getAttribute('aria-label')",
    );
    await page.fill(label, "the customer knows");
    await page.open("about:blank", "");
    await page.open(`${monitor}/hand-over`);
    await page.until("see the reason", async () => (await valueIn(label)) === "the customer knows");
  });
});

describe("ticks pressed fast", () => {
  it("are all taken, in their order, on a slow line", async () => {
    await page.open(`${logger}/rework`);
    await page.see("Old part out");
    const before = (await stored(logger)).ticks.length;
    await slow(800);
    for (const name of ["C1: New part in", "C1: Polarity by the board's mark"]) {
      const box = await page.field(name);
      await page.until(`be able to tick ${name}`, () => box.isEnabled());
      await browser.driver.executeScript("arguments[0].click()", box);
    }
    await page.choose("C1: stripe seen", "bottom");
    await slow(0);
    await page.until("have three ticks more", async () => (await stored(logger)).ticks.length === before + 3);
    const { ticks } = await stored(logger);
    expect(ticks.slice(-3).map((one) => one.step)).toEqual(["fitted", "polarity_board_mark", "polarity_part_mark"]);
  });
});

describe("two pages of one browser", () => {
  it("share one outbox: the one that stays sends what the closed one confirmed", async () => {
    await page.open(`${monitor}/measure`);
    await page.seeNamed("Reading, ");
    const first = await browser.driver.getWindowHandle();
    await browser.driver.switchTo().newWindow("tab");
    await page.open(`${monitor}/judge`);
    await page.see("Verdicts");
    const second = await browser.driver.getWindowHandle();
    await browser.driver.switchTo().window(first);
    await server.kill();
    // Each says what it is: what the bar asks for changes with the first.
    await page.press("v 0.811", "/", "v 0.812", "/");
    await page.see("2 entries are not stored yet");
    await page.see("They are kept on this computer");
    await browser.driver.close();
    await browser.driver.switchTo().window(second);
    await server.start();
    await page.until("have both stored once", async () => {
      const texts = (await stored(monitor)).readings.map((one) => one.rawText);
      return ["v 0.811", "v 0.812"].every((text) => texts.filter((one) => one === text).length === 1);
    });
  });
});

describe("a browser whose storage does not open", () => {
  it("says that nothing is kept here, and has every reading of a burst stored", async () => {
    const source = 'IDBFactory.prototype.open = () => { throw new DOMException("shut", "UnknownError"); };';
    const own = await openOwnBrowser();
    try {
      await tools(own.driver).sendDevToolsCommand("Page.addScriptToEvaluateOnNewDocument", { source });
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
      await tools(own.driver).sendDevToolsCommand("Page.addScriptToEvaluateOnNewDocument", { source });
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
