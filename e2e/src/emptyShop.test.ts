import { Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, openBrowser } from "./browser";
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

/** Seconds of a practised hand: a key, and a way to the mouse with a click. */
const hand = { keySeconds: 0.2, clickSeconds: 1.7 };
let [keys, clicks] = [0, 0];

async function type(...parts: string[]): Promise<void> {
  keys += parts.reduce((sum, part) => sum + part.length, 0);
  await page.press(...parts);
}
async function lens(number: number, heading: string): Promise<void> {
  keys += 2;
  await page.lens(number, heading);
}
async function click(name: string): Promise<void> {
  clicks += 1;
  await page.click(name);
}
async function pick(label: string, option: string): Promise<void> {
  clicks += 2;
  await page.choose(label, option);
}

describe("the first repair of an empty shop", () => {
  it("is taken in, entered and judged", async () => {
    await page.open("/");
    await page.see("The bench is empty");
    await type("n");
    await page.see("Make the job");
    await type("console", Key.TAB, "Pandruil", Key.TAB, "Duo", Key.TAB, "No picture.", Key.ENTER);
    await page.see("Intake of Pandruil Duo");
    await lens(3, "Words in any order");
    await type("e", "C31 out 1000u 16v -down", Key.ENTER);
    await page.seeNamed("C31, 1000 µF 16 V");
    await lens(4, "Readings of this part");
    await page.seeNamed("Reading, DC of C31");
    await type("0", Key.ENTER);
    await page.seeNamed("Reading, ESR of C31");
    await type("3R1", Key.ENTER);
    await page.see("3.10 Ω");
    await lens(5, "All parts, worst first");
    await page.seeNamed("C31, 1000 µF 16 V, Output, before choke, failed");
  });

  it("chooses what lies in the drawer without any catalogue, and refuses what would vent", async () => {
    await lens(6, "The shop has no catalogue yet");
    await type("o", "1000u 25v 105 10x20 drawer esr 41");
    await page.see("ohms or milliohms");
    await type("m c 980u", Key.ENTER);
    await page.see("Chosen: own part 1000 µF 25 V, from a drawer, ESR 41 mΩ");
    await page.see("sound");
  });

  it("takes out, puts in and checks polarity by keys", async () => {
    await lens(7, "Own part, from a drawer");
    await type("1");
    await page.until("have it out", async () => (await page.field("C31: Old part out")).isSelected());
    await type("2");
    await page.until("have it in", async () => (await page.field("C31: New part in")).isSelected());
    await pick("C31: the board's mark puts the negative side", "negative bottom");
    await page.until("have the mark noted", async () =>
      (await page.field("C31: Polarity by the board's mark")).isEnabled(),
    );
    await page.driver.executeScript("document.activeElement.blur()");
    await type("3", Key.ARROW_DOWN);
    await page.seeNamed("7 Rework, done");
  });

  it("proves the output and hands over, under a minute of hands in all", async () => {
    await lens(8, "Cold checks are missing");
    clicks += 1;
    await page.fill("Output, before choke to its ground: ohms", "470");
    await type(Key.ENTER);
    await click("Unloaded");
    await page.seeNamed("Reading, DC of Output");
    await type("12,1", Key.ENTER);
    await page.see("12.10 V");
    await lens(9, "0 to resolve or accept");
    await page.switchTo("The verdict of the job was read");
    clicks += 1;
    await click("Hand over");
    await page.see("warranty until");
    await page.click("Show the report");
    await page.see("Your repair");
    await page.switchTo("For the record");
    await page.see("Repair report");
    const report = await page.text();
    expect(report).toContain("from a drawer");
    expect(report).toMatch(/C31 .* failed 41.* mΩ/);
    expect(report).toContain("Open points None.");
    expect(report).not.toContain("Round 1");
    expect(keys * hand.keySeconds + clicks * hand.clickSeconds).toBeLessThan(60);
  });
});

describe("a unit that is still faulty", () => {
  it("begins a second round, and the report blames each round's own part", async () => {
    await page.open("/");
    await page.see("The bench is empty");
    await type("n");
    await page.see("Make the job");
    await type("console", Key.TAB, "Pandruil", Key.TAB, "Trio", Key.TAB, "Restarts.", Key.ENTER);
    await page.see("Intake of Pandruil Trio");
    await lens(3, "Words in any order");
    await type("e", "C1 out 1000u 16v -down", Key.ENTER);
    await page.seeNamed("C1, 1000 µF 16 V");
    await page.until(
      "have the next designator in the line",
      async () => (await (await page.field("Quick entry")).getAttribute("value")) === "C2 ",
    );
    await type("reg 470u 16v -down", Key.ENTER);
    await page.seeNamed("C2, 470 µF 16 V");
    await lens(4, "Readings of this part");
    await page.click("C1, ");
    await page.seeNamed("Reading, DC of C1");
    await type("0", Key.ENTER);
    await page.seeNamed("Reading, ESR of C1");
    await type("4R2", Key.ENTER);
    await lens(5, "All parts, worst first");
    await page.seeNamed("C1, 1000 µF 16 V, Output, before choke, failed");
    await exchange("C1", "1000u 25v 105 drawer");
    await page.see("Still faulty?");
    await page.click("Still faulty: round 2");
    await page.see("round 2");
    await page.see("It was still faulty after round 1");
    await lens(5, "All parts, worst first");
    await page.seeNamed("C1, 1000 µF 25 V, Output, before choke, not measured");
    await lens(4, "Readings of this");
    await page.click("C2, ");
    await page.seeNamed("Reading, DC of C2");
    await type("0", Key.ENTER);
    await page.seeNamed("Reading, ESR of C2");
    await type("7R7", Key.ENTER);
    await lens(5, "All parts, worst first");
    await page.seeNamed("C2, 470 µF 16 V, Board regulator, failed");
    await exchange("C2", "470u 25v 105 salvaged esr 60m c 460u");
    await lens(9, "Open points");
    await page.click("Show the report");
    await page.see("Your repair");
    await page.switchTo("For the record");
    await page.see("Repair report");
    const report = await page.text();
    const [, first = "", second = ""] = report.split(/Round \d: findings/);
    expect(first).toMatch(/C1 .*4\.2 Ω.* failed/);
    expect(first).not.toContain("C2");
    const findings = second.split("Parts fitted")[0] ?? "";
    expect(findings).toMatch(/C2 .*7\.7 Ω.* failed/);
    expect(findings).not.toMatch(/C1 .* failed/);
    expect(second).toContain("salvaged");
  });

  /** Chooses an own part, exchanges it, and reads the output under power. */
  async function exchange(name: string, line: string): Promise<void> {
    await lens(6, "What I have");
    await page.click(`${name}, `);
    await page.seeNamed(`What I have for ${name}`);
    await page.driver.executeScript("document.activeElement.blur()");
    await type("o", line, Key.ENTER);
    await page.see("Chosen: own part");
    await lens(7, "Own part");
    await type("1");
    await page.until(`have ${name} out`, async () => (await page.field(`${name}: Old part out`)).isSelected());
    await type("2");
    await page.until(`have ${name} in`, async () => (await page.field(`${name}: New part in`)).isSelected());
    await lens(8, "Cold checks are missing");
    await page.click("Unloaded");
    await page.seeNamed("Reading, DC of Output");
    await type("12,1", Key.ENTER);
    await page.see("12.10 V");
  }
});
