import { Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, openBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";

let server: ServerUnderTest;
let browser: Browser;
let page: Page;
beforeAll(async () => {
  server = await openServer("demo");
  browser = await openBrowser();
  page = new Page(browser.driver, server.address);
});
afterAll(async () => {
  await browser?.close();
  await server?.close();
});

/** Types a reading into the probe bar, which has the focus, and logs it. */
async function probe(text: string): Promise<void> {
  await page.press(text, Key.ENTER);
}

/** One row of the capacitor table, from the designator on; Enter adds it. */
async function enterCapacitor(row: Record<string, string>): Promise<void> {
  for (const [label, text] of Object.entries(row)) await page.fill(`New part, ${label}`, text);
  await page.press(Key.ENTER);
}

describe("one job through all nine lenses", () => {
  it("is made on the bench with the keyboard alone", async () => {
    await page.open("/");
    await page.see("Halden 24");
    await page.press("n");
    await page.see("Make the job");
    await page.press("console", Key.TAB, "Pandruil", Key.TAB, "Duo mini", Key.TAB, "Resets in the game.", Key.ENTER);
    await page.see("Intake of Pandruil Duo mini");
  });

  it("takes in symptoms, limit and date, and keeps them", async () => {
    await (await page.field("collapses or resets under load")).sendKeys(Key.SPACE);
    await page.fill("Symptoms in free words", "worse when warm");
    await page.fill("Price limit", "45,50");
    await page.fill("Age, years", "4");
    await page.see("Where to look first");
    await page.switchTo("Does it pay");
    await page.fill("Minutes", "40");
    await page.fill("Another unit costs", "34");
    // 40 minutes at 60 an hour are 40: another unit at 34 is cheaper, whatever the parts cost.
    await page.see("€40.00 labour");
    await page.see("Another unit is cheaper");
    await page.see("not saved yet");
    await page.press(Key.ENTER);
    await page.see("saved");
    await page.seeNot("not saved yet");
    await browser.driver.navigate().refresh();
    await page.see("Intake of Pandruil Duo mini");
    expect(await (await page.field("Price limit")).getAttribute("value")).toBe("45.5");
    expect(await (await page.field("collapses or resets under load")).isSelected()).toBe(true);
  });

  it("computes what is stored and follows the charge until mains takes it back", async () => {
    await page.lens(2, "What holds charge?");
    await page.fill("Name", "Bulk C1");
    await page.fill("Capacitance", "150");
    await page.fill("Expected voltage", "325");
    await page.press(Key.ENTER);
    // C V^2 / 2 = 150e-6 x 325^2 / 2 = 7.92 J
    await page.see("7.92 J");
    await page.fill("Or a drain resistor of", "8k2");
    await page.press(Key.ENTER);
    // R C ln(325 / 10) = 8200 x 150e-6 x 3.481 = 4.28 s; V^2 / R = 12.9 W
    await page.see("4.3 s");
    await page.see("13 W");
    // The shop's kit: a wire-wound 10 kilohm stands it, one 60 W lamp too; nothing has to be bought.
    await page.see("10 kΩ wire-wound");
    await page.seeNot("proposed:");
    await page.fill("Measured voltage", "311");
    await page.press(Key.ENTER);
    await page.seeNamed("Charge watch: Bulk C1 charged, 311");
    await (await page.field("meter proved")).sendKeys(Key.SPACE);
    await page.fill("Measured voltage", "3,2");
    await page.press(Key.ENTER);
    await page.seeNamed("Charge watch: Bulk C1 3.2 V, drained once: wait");
    await page.fill("Measured voltage", "26");
    await page.press(Key.ENTER);
    await page.see("It crept back to 26 V: drain again, verify again.");
    await page.seeNamed("Charge watch: Bulk C1 charged, 26");
    await page.click("Mains connected");
    await page.seeNamed("Charge watch: Bulk C1 unknown: mains was connected");
    await page.seeNot("It crept back");
  });

  it("refuses a slip of unit at its field, keeps the text and stores nothing", async () => {
    await page.fill("Measured voltage", "5k");
    await page.see("a unit slipped?");
    await page.press(Key.ENTER);
    await page.seeNamed("Charge watch: Bulk C1 unknown: mains was connected");
    expect(await (await page.field("Measured voltage")).getAttribute("value")).toBe("5k");
    await page.fill("Measured voltage", "1.000,5");
    await page.see("did you mean 1000.5 or 1.0005?");
  });

  it("enters capacitors row by row and draws them to scale", async () => {
    await page.lens(3, "Type the first capacitor");
    const size = { capacitance: "1000", "rated voltage": "16", diameter: "10", height: "20", pitch: "5" };
    await enterCapacitor({ designator: "C31", ...size, x: "60", y: "30" });
    await page.seeNamed("C31, 1000 µF 16 V, Output, before choke");
    await enterCapacitor({ ...size, x: "80", y: "30" });
    await page.seeNamed("C32, 1000 µF 16 V, Output, before choke");
    const [first, second] = await browser.driver.executeScript<number[]>(
      `return ["C31", "C32"].map((name) => {
         const can = [...document.querySelectorAll("[role=button]")].find((one) => one.getAttribute("aria-label")?.startsWith(name));
         return can.querySelector("circle[class*=sleeve]").getBoundingClientRect().width;
       })`,
    );
    expect(first).toBeGreaterThan(10);
    expect(second).toBe(first);
    await enterCapacitor({ designator: "C31", ...size });
    await page.see("This designator is already on the board.");
  });

  it("notes rail, promise, signs and polarity", async () => {
    await page.fill("Output, before choke, nominal voltage", "12");
    await page.press(Key.TAB);
    await page.fill("Output, before choke, promised load", "4");
    await page.press(Key.TAB);
    await page.see("1 rail promised");
    await page.click("C31, ");
    await (await page.field("domed top")).sendKeys(Key.SPACE);
    await page.seeNamed("domed top");
    await page.choose("It puts the negative side", "bottom");
    await page.choose("C31, stripe points to", "bottom");
    await page.seeNamed("C31");
  });

  it("measures on the number pad: a bank in circuit, then lifted, with a slip taken back", async () => {
    await page.lens(4, "Readings of this part");
    await page.see("C31");
    // Nothing on this net was measured since the mains: volts come first, and the same part stays the target.
    await page.seeNamed("Reading, DC of C31");
    await page.see("DC volts first");
    await probe("0,1");
    await page.seeNamed("Reading, ESR of C31");
    await probe("45");
    await page.see("C32");
    await page.press("*");
    await page.see("one lead lifted");
    await probe("30");
    // Lifted it is read whole: beside a bad neighbour a good ESR alone does not clear. How it is held never passes on.
    await page.seeNamed("Reading, C of C32");
    await probe("985");
    await page.seeNamed("Reading, ESR of C31");
    await page.see("in circuit");
    await page.press("*");
    await page.press("3R1");
    await page.see("= 3.1 Ω");
    await page.press(Key.ENTER);
    await page.seeNamed("Reading, C of C31");
    await page.press(Key.SUBTRACT);
    await page.see("taken back");
    await probe("esr 410");
    await page.see("410 mΩ");
    await page.choose("Frequency of the C reading", "120 Hz");
    await page.click("C31, ");
    await page.seeNamed("Reading, C of C31");
    await probe("380");
    await page.seeNamed("Reading, ESR of C32");
    await page.press("+");
    await page.see("380 µF");
  });

  it("takes a rail for a probe point too, and the reading counts as live", async () => {
    await page.click("Output, before choke 12");
    await page.seeNamed("Reading, DC of Output, before choke");
    await page.see("The right voltage without load clears nothing");
    await (await page.field("Reading, DC of Output")).sendKeys("12,2", Key.ENTER);
    await page.see("12.2 V no load");
    await page.seeNamed("Charge watch: Bulk C1 unknown: a live reading was taken");
    await page.lens(2, "Mains and log");
    const card = "Bulk C1 unknown: a live reading was taken";
    await page.until(
      "see lens and card agree with the frame",
      async () => (await page.text()).split(card).length === 4,
    );
  });

  it("judges with reasons", async () => {
    await page.lens(5, "All parts, worst first");
    await page.seeNamed("C31, 1000 µF 16 V, Output, before choke, failed");
    await page.seeNamed("C32, 1000 µF 16 V, Output, before choke, sound");
    await page.click("C31, ");
    await page.see("ESR 410 mΩ, out of circuit");
    await page.see("38 % of the marking");
    await page.see("Goes out in any case");
  });

  it("chooses by requirement and life, and says why near ones were turned down", async () => {
    await page.lens(6, "What the place needs");
    // Two cans of 10 x 20 carry less than a flyback of 4 A drives into them: what comes near is taken with a reason.
    await page.see("Ripple current by the converter at its full load");
    await page.see("What fits: longest life first");
    await page.see("Near, but");
    await page.click("Take it, because");
    await page.fill("Why it is taken all the same", "as strong as the old one was");
    await page.click("Take it");
    await page.see("Chosen:");
    await page.see("Taken although it breaks a limit");
  });

  it("ticks removal, fitting and both polarity checks", async () => {
    await page.lens(7, "Parts of one value together");
    for (const step of ["Old part out", "New part in", "Polarity by the board's mark"]) {
      const box = await page.field(`C31: ${step}`);
      await page.until(`tick ${step}`, () => box.isEnabled());
      await box.sendKeys(Key.SPACE);
      await page.until(`have ${step} ticked`, () => box.isSelected());
    }
    // The stripe of the new part is seen, not copied: picking where it points is the tick.
    await page.choose("C31: stripe seen", "bottom");
    await page.seeNamed("7 Rework, done");
  });

  it("proves the rail unloaded and loaded, with ripple", async () => {
    await page.lens(8, "promised 4");
    await page.seeNamed("Reading, DC of Output");
    await page.see("Cold checks are missing: Output, before choke to its ground.");
    await page.seeNot("Series lamp of");
    await page.fill("Output, before choke to its ground: ohms", "470");
    await page.press(Key.ENTER);
    // 12 V times 4 A: the smallest common lamp that is not below 48 W.
    await page.see("Series lamp of 60 W");
    const rig = await page.field("series lamp in");
    await rig.sendKeys(Key.SPACE);
    await page.see("Readings through a lamp are kept but prove nothing");
    await page.see("Taken through the series lamp: kept, but proves nothing.");
    await page.click("Unloaded");
    await probe("9,8");
    await page.see("not measured");
    await rig.sendKeys(Key.SPACE);
    await page.click("Unloaded");
    await probe("12,15");
    await page.see("12.15 V");
    await page.click("Loaded");
    await probe("11,94");
    // (12.15 - 11.94) / 12 = 1.75 %
    await page.see("Load regulation 1.8 %");
    await page.click("Ripple p-p");
    await probe("62");
    await page.see("62.0 mV");
    await page.seeNamed("8 Prove, done");
  });

  it("hands over on paper: work on an output asks for no charge", async () => {
    await page.lens(9, "Open points");
    await page.see("C31: the new part was never read.");
    await page.click("Small repair: accept the light point as not measured");
    await page.see("accepted: not measured");
    await page.switchTo("The verdict of the job was read");
    await page.click("Hand over");
    await page.see("warranty until");
    await page.click("Show the report");
    await page.switchTo("For the record");
    await page.see("Repair report");
    const report = await page.text();
    for (const part of [
      "Pandruil Duo mini",
      "Resets in the game.",
      "collapses or resets under load",
      "410 mΩ",
      "380 µF",
    ]) {
      expect(report).toContain(part);
    }
    for (const part of ["C31", "failed", "stays in", "12.15 V", "11.94 V", "1.8 %", "62 mV"]) {
      expect(report).toContain(part);
    }
    expect(report).toMatch(/Accepted, \d+ \w+ 20\d\d, \d\d:\d\d: not measured/);
    expect(report).toMatch(/Warranty until \d+ \w+ 2027/);
    expect(report).toContain("Local electrical codes");
  });
});
