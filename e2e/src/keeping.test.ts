import { Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, devTools, openBrowser } from "./browser";
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
/** Every answer of the server comes so much later: a slow machine. */
const slow = (milliseconds: number) =>
  devTools(browser.driver).sendDevToolsCommand("Network.emulateNetworkConditions", {
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
