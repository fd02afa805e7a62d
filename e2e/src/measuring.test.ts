import { loadScenarios, type RunningBench, startBench } from "@pale-cap/bench";
import { By, Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { benchOnFreePorts } from "./benchOnFreePorts";
import { type Browser, openBrowser } from "./browser";
import { layOnBench } from "./layOnBench";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";

let bench: RunningBench;
let server: ServerUnderTest;
let browser: Browser;
let page: Page;

beforeAll(async () => {
  bench = await benchOnFreePorts();
  server = await openServer("none", bench.basePort);
  browser = await openBrowser();
  page = new Page(browser.driver, server.address);
});
afterAll(async () => {
  await browser?.close();
  await server?.close();
  await bench?.close();
});

interface StoredJob {
  readonly positions: readonly { readonly id: string; readonly designator: string; readonly kind: string }[];
  readonly readings: readonly {
    readonly id: string;
    readonly targetId: string;
    readonly quantity: string;
    readonly value: number | null;
    readonly coarseCode: string | null;
    readonly terminals: string | null;
    readonly circuitState: string | null;
    readonly instrument: string | null;
  }[];
}

async function stored(): Promise<StoredJob> {
  const jobPath = new URL(await browser.driver.getCurrentUrl()).pathname.replace(/\/(inspect|measure).*/, "");
  return (await (await fetch(`${server.address}/api${jobPath}`)).json()) as StoredJob;
}

const bar = () =>
  browser.driver.executeScript<{ label: string; live: string; placeholder: string }>(
    `const input = document.querySelector("section[aria-label='Probe bar'] input[aria-label^='Reading']");
     const pins = document.querySelector("section[aria-label='Probe bar'] [class*=pins]");
     return { label: (input?.getAttribute("aria-label") ?? "") + (pins?.textContent ?? ""), placeholder: input?.placeholder ?? "",
       live: document.querySelector("section[aria-label='Probe bar'] [class*=live]")?.textContent ?? "" };`,
  );

/** The probe key, a look at the live value, Enter: one reading. */
async function measureHere(): Promise<string> {
  const { label } = await bar();
  await page.press("p");
  await page.until(`have a live value for ${label}`, async () => {
    const now = await bar();
    return now.label === label && now.placeholder !== "–" && /live|reads open/.test(now.live);
  });
  await page.press(Key.ENTER);
  await page.until(`be done with ${label}`, async () => (await bar()).label !== label);
  return label;
}

describe("a board of twenty parts, with the keyboard alone", () => {
  it("is entered from what is printed on its parts, by line and as a list", async () => {
    const card = await layOnBench(server, "02-dried-output-bank");
    expect(card.lines).toHaveLength(20);
    await page.open("/");
    await page.see("The bench is empty.");
    await page.click("Practice");
    await page.click("Open a practice job");
    await page.see("Make the practice job");
    await page.press("monitor", Key.TAB, Key.TAB, Key.TAB, Key.ENTER);
    await page.see("Intake of unnamed monitor");
    // The frame says that it is nobody's unit.
    await page.see("Practice");
    await page.chord(Key.ALT, "3");
    await page.see("Words in any order");
    await page.press("e");
    const typed = card.lines.slice(0, 2);
    for (const [n, line] of typed.entries()) {
      await page.chord(Key.CONTROL, "a");
      await page.press(line, Key.ENTER);
      await page.until(`have part ${n + 1}`, async () => {
        const field = await (await page.field("Quick entry")).getAttribute("value");
        return field !== line && (await stored()).positions.length === n + 1;
      });
    }
    await page.click("Several lines");
    await page.paste("One part or range a line", card.lines.slice(typed.length).join("\n"));
    await page.click("Put 18 parts on the board");
    await page.until("have all parts", async () => (await stored()).positions.length === card.lines.length);
    const { positions } = await stored();
    for (const { designator } of positions) await page.seeNamed(`${designator}, `);
    expect(positions.filter((one) => one.kind === "electrolytic")).toHaveLength(9);
  });

  it("is measured from the simulated bench, part by part, volts first", async () => {
    await page.chord(Key.ALT, "4");
    await page.until("have the bar aimed", async () => (await bar()).label.includes(" of C"));
    const seen: string[] = [];
    // Capacitors with the volts of each net before them, then every pin test of the other parts, until it is round.
    while (!seen.includes((await bar()).label)) seen.push(await measureHere());
    // The last one may still be on its way.
    await page.until("have the last one stored", async () => {
      const { positions, readings } = await stored();
      return positions.every((place) => readings.some((one) => one.targetId === place.id));
    });
    const { positions, readings } = await stored();
    for (const position of positions) {
      const own = readings.filter((one) => one.targetId === position.id);
      expect(own.length, position.designator).toBeGreaterThan(0);
      expect(own.every((one) => one.instrument !== null)).toBe(true);
    }
    const at = (designator: string) => positions.find((one) => one.designator === designator)?.id;
    const esr = readings.find((one) => one.targetId === at("C16") && one.quantity === "esr");
    expect(esr?.value).toBeGreaterThan(0.2);
    const truth = loadScenarios().find((one) => one.name === "02-dried-output-bank");
    expect(truth?.capacitors.find((one) => one.at === "C16")?.esrRatio).toBe(28);
    expect(readings.filter((one) => one.targetId === at("BR1") && one.quantity === "diode_drop")).toHaveLength(5);
    const across = readings.find((one) => one.targetId === at("BR1") && one.terminals === "+,-");
    expect(across).toMatchObject({ coarseCode: "over_range", value: null });
    // Backward, D9 shows what the board hangs on its rail: 1.2 kilohms at a milliampere, and no open junction.
    const backward = readings.find((one) => one.targetId === at("D9") && one.terminals === "K,A");
    expect(backward?.value).toBeCloseTo(1.2, 1);
    await page.seeNamed("C16, 1000 µF 10 V, 5 V, output, before choke, failed");
  });

  it("lifts a lead with one key, and the value that then stands is the part's own", async () => {
    await page.press("*");
    await page.until("read with one lead lifted", async () =>
      (await browser.driver.findElement(By.css("section[aria-label='Probe bar']")).getText()).includes(
        "one lead lifted",
      ),
    );
    const label = await measureHere();
    expect(label).toContain("ESR");
    const lifted = async () =>
      (await stored()).readings.filter((one) => one.circuitState === "lead_lifted" && one.quantity === "esr");
    await page.until("have the lifted reading kept", async () => (await lifted()).length > 0);
    expect(await lifted()).toHaveLength(1);
  });

  it("logs by itself when the value stands still, once, with hold to log and probes that follow", async () => {
    const before = (await stored()).readings.length;
    await page.click("How the bar works");
    await (await page.field("Probes follow the target")).sendKeys(Key.SPACE);
    await (await page.field("Hold to log")).sendKeys(Key.SPACE);
    await page.press(Key.ESCAPE);
    // From the first capacitor on: the ohms of a fuse never stand still.
    await page.fill("Go to a job, lens or part", "C3");
    await page.press(Key.ENTER);
    await page.until("have three more readings by itself", async () => (await stored()).readings.length >= before + 3);
    const { readings } = await stored();
    expect(new Set(readings.map((one) => one.id)).size).toBe(readings.length);
  });
});

describe("the Instruments place", () => {
  it("shows live values, moves probes, and says what an instrument refuses", async () => {
    await page.open("/instruments");
    await page.see("On the simulated bench");
    // What was measured last by itself may have been capacitance.
    await page.choose("LCR meter reads", "ESR");
    await page.fill("Probes of LCR meter", "C16");
    await page.press(Key.ENTER);
    await page.see("mΩ");
    await page.fill("Probes of Multimeter", "C999");
    await page.press(Key.ENTER);
    await page.see("No such point on this board: C999");
  });
  it("shows a bench that is gone as gone, and takes it up again when it is back", async () => {
    const { basePort } = bench;
    await bench.close();
    await page.see("not there");
    bench = await startBench(basePort);
    await page.until("see all seven ready again", async () => {
      const ready = await browser.driver.findElements(By.css("section[data-status='ready']"));
      return ready.length === 7;
    });
  });
});
