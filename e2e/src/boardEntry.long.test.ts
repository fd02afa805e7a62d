import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { JobDetail } from "@pale-cap/contract";
import { By, Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, openBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";

let server: ServerUnderTest;
let browser: Browser;
let page: Page;
const folder = mkdtempSync(join(tmpdir(), "pale-cap-positions-"));
beforeAll(async () => {
  server = await openServer("none");
  browser = await openBrowser();
  page = new Page(browser.driver, server.address);
});
afterAll(async () => {
  await browser?.close();
  await server?.close();
  rmSync(folder, { recursive: true, force: true });
});

interface StoredBoard {
  readonly positions: readonly {
    readonly designator: string;
    readonly kind: string;
    readonly xMetres: number | null;
    readonly yMetres: number | null;
    readonly outlineHeightMetres: number | null;
  }[];
  readonly nets: readonly { readonly name: string }[];
}

async function stored(): Promise<StoredBoard> {
  const jobPath = new URL(await browser.driver.getCurrentUrl()).pathname.replace(/\/inspect.*/, "");
  return (await (await fetch(`${server.address}/api${jobPath}`)).json()) as StoredBoard;
}
const placeOf = async (designator: string) =>
  (await stored()).positions.find((one) => one.designator === designator) ?? { xMetres: null, yMetres: null };
const millimetres = (metres: number | null) => (metres === null ? null : Math.round(metres * 1e5) / 100);

describe("a board by quick entry", () => {
  it("takes a part a line, shows what it understood, and stores nothing of what it did not", async () => {
    await page.open("/");
    await page.see("The bench is empty.");
    await page.press("n");
    await page.see("Make the job");
    await page.press("monitor", Key.TAB, Key.TAB, Key.TAB, Key.ENTER);
    await page.see("Intake of unnamed monitor");
    await page.chord(Key.ALT, "3");
    await page.see("Words in any order");
    await page.press("e", "C1 bulk 120u 400v 105 18x40 p7.5 blah");
    await page.see("“blah” is not understood");
    await page.press(Key.ENTER);
    expect((await stored()).positions).toEqual([]);
    await page.press(...Array(5).fill(Key.BACK_SPACE), " @25/38 -down", Key.ENTER);
    await page.seeNamed("C1, 120 µF 400 V, Bulk");
    expect(await (await page.field("Quick entry")).getAttribute("value")).toBe("C2 ");
  });

  it("completes a word, stands a range side by side, and asks back which rail is meant", async () => {
    await page.press(":12V 1000u 25v 105 10x20 p5", Key.ENTER);
    await page.seeNamed("C2, 1000 µF 25 V, 12V");
    await page.fill("Quick entry", "C14-C16 :5V 470u 16v 105 8x12 @60/30");
    await page.see("C14 to C16");
    await page.press(Key.ENTER);
    await page.seeNamed("C16, 470 µF 16 V, 5V");
    expect(millimetres((await placeOf("C16")).xMetres)).toBe(80);
    await page.fill("Quick entry", "C20 out 1u 50v");
    await page.see("Which rail? Name it: :12V or :5V");
    await page.fill("Quick entry", "C20 fee");
    await page.press(Key.ARROW_DOWN, Key.ENTER);
    await page.until("have the word completed", async () =>
      ((await (await page.field("Quick entry")).getAttribute("value")) ?? "").startsWith("C20 feedback "),
    );
  });

  it("takes a pasted list to twenty parts, all together or not at all", async () => {
    await page.click("Several lines");
    const lines = ["C30-C40 :12V 100u 25v 105 6.3x11 @10/10", "F1 17x7 @12/90", "BR1 15x10 @30/90", "C14 :5V 1u"];
    await page.paste("One part or range a line", lines.join("\n"));
    await page.see("C14 twice, or on the board already");
    await page.see("1 line to mend first");
    await page.paste(
      "One part or range a line",
      [...lines.slice(0, 3), "Q1 is:transistor 12x8 @50/90", "C41 :5V 1u"].join("\n"),
    );
    await page.click("Put 15 parts on the board");
    await page.seeNamed("C40, 100 µF 25 V, 12V");
    const { positions, nets } = await stored();
    expect(positions).toHaveLength(20);
    expect(positions.find((one) => one.designator === "BR1")?.kind).toBe("bridge");
    expect(nets.map((one) => one.name).sort()).toEqual(["12V", "5V", "Bulk"]);
  });
});

/** The can itself: its name stands wherever there is room for it. */
const middleOf = (name: string) => browser.driver.findElement(By.css(`[aria-label^='${name}'] circle`));

describe("arranging it", () => {
  it("drags a part where the pointer goes, nudges and turns by key, and takes it all back", async () => {
    const can = await middleOf("C16, 470");
    // Two moves, as a hand makes many: the first only shows that it is no click.
    await browser.driver
      .actions()
      .move({ origin: can })
      .press()
      .move({ origin: can, x: 12, y: 9 })
      .move({ origin: can, x: 30, y: 24 })
      .release()
      .perform();
    await page.until("have it moved", async () => ((await placeOf("C16")).xMetres ?? 0) > 0.0801);
    const dragged = await placeOf("C16");
    expect(dragged.yMetres).toBeGreaterThan(0.0301);
    await (await page.control("C16, 470")).sendKeys(Key.ARROW_LEFT);
    await page.until("have it nudged", async () => {
      const now = (await placeOf("C16")).xMetres ?? 0;
      return Math.abs((dragged.xMetres ?? 0) - 0.001 - now) < 2e-5;
    });
    await page.click("Undo");
    await page.until("have the nudge back", async () => (await placeOf("C16")).xMetres === dragged.xMetres);
    await page.press("u");
    await page.until("have the drag back", async () => millimetres((await placeOf("C16")).xMetres) === 80);
    await page.press("U");
    await page.until("have it again", async () => (await placeOf("C16")).xMetres === dragged.xMetres);
  });

  it("puts marked parts in a row and copies them below", async () => {
    await page.press("u");
    for (const name of ["C14, 470", "C16, 470"]) {
      const can = await middleOf(name);
      await browser.driver.actions().keyDown(Key.SHIFT).move({ origin: can }).click().keyUp(Key.SHIFT).perform();
    }
    await page.see("2 marked");
    await page.click("Copy row below");
    await page.seeNamed("C42, 470 µF 16 V, 5V");
    expect(millimetres((await placeOf("C42")).yMetres)).toBe(40);
    await page.click("Undo");
    await page.until("see the copies gone", async () => (await stored()).positions.length === 20);
  });
});

describe("the shape of it", () => {
  it("takes corners and lid zones, says what is none, and gives the rectangle back", async () => {
    const corners = async () => {
      const jobPath = new URL(await browser.driver.getCurrentUrl()).pathname.replace(/\/inspect.*/, "");
      const job = await (await fetch(`${server.address}/api${jobPath}`)).json();
      const [board] = (job as JobDetail).boards;
      if (!board) throw new Error("The unit has no board.");
      return board;
    };
    await page.fill("Corners, if it is no rectangle", "0/0 180/0 nonsense");
    await page.see("“nonsense” is no corner");
    expect((await corners()).outline).toBeNull();
    await page.fill("Corners, if it is no rectangle", "0/0 180/0 180/100 160/120 0/120");
    await page.press(Key.TAB);
    await page.until("have five corners", async () => (await corners()).outline?.length === 5);
    await page.fill("Lid by zone", "90/0 60x104 h18");
    await page.press(Key.TAB);
    await page.see("lid 18 mm");
    await page.click("Undo");
    await page.click("Undo");
    await page.until("have the rectangle back", async () => {
      const { outline, lidZones } = await corners();
      return outline === null && lidZones.length === 0;
    });
  });

  it("is edited in place for parts that are no capacitors", async () => {
    await page.fill("BR1, height above the board", "12");
    await page.press(Key.TAB);
    await page.until("have it tall", async () =>
      (await stored()).positions.some((one) => one.designator === "BR1" && one.outlineHeightMetres === 0.012),
    );
  });
});

describe("looking at it", () => {
  it("walks from part to part with one key for each sign", async () => {
    await page.click("C14, 470");
    await page.see("17 not looked at yet");
    await page.press("2");
    await page.seeNamed("C14, 470 µF 16 V, 5V, output, before choke, vent open");
    await page.press("n");
    await page.see("16 not looked at yet");
    const next = await browser.driver.executeScript<string>("return document.querySelector('h2')?.textContent ?? ''");
    expect(next).toMatch(/^C/);
    expect(next).not.toBe("C14");
    await page.press("k");
    await page.see("15 not looked at yet");
  });
});

describe("positions from a file", () => {
  it("shows what would change and what is wrong before it changes anything", async () => {
    const file = join(folder, "positions.csv");
    writeFileSync(file, "ref;x;y\nC1;30,5;40\nC77;100;100\nC2;abc;1\n");
    await (await browser.driver.findElement(By.css("input[aria-label='Positions file']"))).sendKeys(file);
    await page.see("1 part of this board found, 1 not on it yet.");
    await page.see("Line 4: x “abc” is no place in millimetres");
    expect(millimetres((await placeOf("C1")).xMetres)).toBe(25);
    await page.click("Place 2 parts");
    await page.seeNamed("C77, ");
    expect(millimetres((await placeOf("C1")).xMetres)).toBe(30.5);
    await page.click("Undo");
    await page.until("have the file taken back", async () => millimetres((await placeOf("C1")).xMetres) === 25);
  });
});

describe("the same parts as a list", () => {
  const names = async () =>
    browser.driver.executeScript<string[]>(
      "return [...document.querySelectorAll('table[class*=table] tbody tr td:first-child')].map((one) => one.textContent.trim()).filter(Boolean)",
    );
  it("is narrowed by any words and sorted by any column", async () => {
    await (await page.control("C14, 470")).sendKeys("l");
    await page.fill("Narrow the list", "transistor");
    await page.until(
      "see only the transistor",
      async () => (await names()).includes("Q1") && !(await names()).includes("BR1"),
    );
    await page.fill("Narrow the list", "5v 470");
    await page.until("see three capacitors", async () => (await names()).slice(0, 3).join() === "C14,C15,C16");
    await page.fill("Narrow the list", "bulk");
    await page.see("400 V");
    await page.fill("Narrow the list", " ");
    await page.click("V");
    await page.until("have the lowest rating first", async () => (await names())[0] === "C14");
    await page.click("V ↑");
    await page.until("have the highest rating first", async () => (await names())[0] === "C1");
    await page.switchTo("Board");
  });
});

describe("the next unit of the kind", () => {
  it("gets the board from the one before, and is told what differs on it", async () => {
    await page.fill("Name of the board type", "Sample board");
    await page.click("Keep as a type");
    await page.see("Sample board, revision 1. Nothing differs here.");
    await page.open("/");
    await page.see("Fault");
    await page.press("n");
    await page.see("Make the job");
    await page.press("monitor", Key.TAB, Key.TAB, Key.TAB, Key.ENTER);
    await page.see("Job 0002");
    await page.chord(Key.ALT, "3");
    await page.click("Sample board, 20 parts");
    await page.seeNamed("C40, 100 µF 25 V, 12V");
    await page.fill("C40, rated voltage", "35");
    await page.press(Key.TAB);
    await page.see("C40: rated voltage 35 V, on the type 25 V");
    await page.see("Keep this as revision 2");
  });
});
