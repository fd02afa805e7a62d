import { randomUUID } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { JobDetail, StockItem } from "@pale-cap/contract";
import { boardInsert, netValues, partValues, positionValues, readingValues } from "@pale-cap/core/testing";
import { By } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, openBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";
import { cataloguePart, shopApi } from "./shopApi";

/** As many as the long run asks for; a tenth in every run. */
const rowCount = Number(process.env.LONG_IMPORT_ROWS ?? 5000);
const folder = mkdtempSync(join(tmpdir(), "pale-cap-parts-"));
let server: ServerUnderTest;
let browser: Browser;
let page: Page;
let api: ReturnType<typeof shopApi>;
const send = <T>(path: string, body: object, method = "POST") => api.send<T>(path, body, method);
const load = <T>(path: string) => api.load<T>(path);
const takeIn = (parts: readonly object[]) => api.takeIn(parts);
beforeAll(async () => {
  server = await openServer("none");
  api = shopApi(server);
  browser = await openBrowser();
  page = new Page(browser.driver, server.address);
});
afterAll(async () => {
  await browser?.close();
  await server?.close();
  rmSync(folder, { recursive: true, force: true });
});

const part = cataloguePart;
/** A job with failed capacitors on one 12 V rail. */
async function makeJob(
  designators: readonly string[],
  net: object = {},
  board: object = {},
  marking: object = {},
): Promise<string> {
  const id = randomUUID();
  const device = { deviceKind: "monitor", deviceMaker: "Brambix", deviceModel: "Bank", complaint: "dead" };
  await send("/jobs", { id, ...device, personId: null });
  const netId = randomUUID();
  const places = designators.map((designator, n) => ({
    designator,
    n,
    positionId: randomUUID(),
    partId: randomUUID(),
  }));
  const changes = [
    boardInsert("net", netId, { ...netValues, ...net }),
    ...places.flatMap(({ designator, n, positionId, partId }) => [
      boardInsert("position", positionId, { ...positionValues, designator, netId, xMetres: 0.02 + 0.02 * n }),
      boardInsert("fittedPart", partId, { ...partValues, ...marking, positionId }),
    ]),
  ];
  await send(`/jobs/${id}/board-edits`, { id: randomUUID(), changes });
  const detail = await load<JobDetail>(`/jobs/${id}`);
  const [first] = detail.boards;
  if (first && Object.keys(board).length > 0) {
    const { id: boardId, version, place: _, ...values } = first;
    const update = { table: "board", operation: "update", id: boardId, version, values: { ...values, ...board } };
    await send(`/jobs/${id}/board-edits`, { id: randomUUID(), changes: [update] });
  }
  await failPlaces(id);
  return id;
}
/** Each capacitor of a job reads far too high. */
async function failPlaces(jobId: string): Promise<void> {
  const { fittedParts } = await load<JobDetail>(`/jobs/${jobId}`);
  for (const { id: fittedPartId, positionId: targetId } of fittedParts) {
    const reading = { ...readingValues, id: randomUUID(), targetId, fittedPartId, value: 2.4 };
    await send(`/jobs/${jobId}/readings`, { ...reading, measuredAt: new Date().toISOString() });
  }
}
async function readRail(jobId: string, value: number): Promise<void> {
  const { nets } = await load<JobDetail>(`/jobs/${jobId}`);
  const rail = { targetKind: "rail", targetId: nets[0]?.id, fittedPartId: null, isPowered: true, loadAmps: 1 };
  const reading = { ...readingValues, ...rail, id: randomUUID(), quantity: "dc_voltage", value };
  await send(`/jobs/${jobId}/readings`, { ...reading, frequencyHertz: null, measuredAt: new Date().toISOString() });
}
const heap = async (orderCode: string, drawer: string, count: number): Promise<string> => {
  const { rows } = await load<{ rows: { id: string }[] }>(`/catalogue?text=${orderCode}&offset=0`);
  const values = {
    ...{ drawer, origin: "distributor", lot: null, dateCode: null, receivedOn: null, usedHours: null, note: null },
  };
  const id = randomUUID();
  await send("/stock", { id, cataloguePartId: rows[0]?.id, marking: null, values, count, personId: null });
  return id;
};
const free = async (id: string) => (await load<StockItem[]>("/stock")).find((one) => one.id === id)?.free;

describe("the bank of a rail", () => {
  it("is filled by two parts instead of five, three places stay empty, and the ripple that they leave is said", async () => {
    const big = {
      capacitanceFarads: 2.7e-3,
      esrOhms: 0.016,
      rippleAmpsRms: 3.4,
      diameterMetres: 0.0125,
      heightMetres: 0.02,
    };
    await takeIn([part("T-102"), part("P-272", { series: "Plover", capacitorClass: "ultra", priceMinor: 55, ...big })]);
    const jobId = await makeJob(["C1", "C2", "C3", "C4", "C5"], { fullLoadAmps: 1.5 });
    await page.open(`/jobs/${jobId}/choose`);
    await page.click("C1, failed");
    await page.see("C1, C2, C3, C4, C5 together");
    await page.switchTo("lowest price");
    await page.see("3 places left empty");
    await page.click("Take for all");
    await page.until(
      "have every place decided",
      async () => (await load<JobDetail>(`/jobs/${jobId}`)).plans.length === 5,
    );
    const { plans } = await load<JobDetail>(`/jobs/${jobId}`);
    expect(plans.filter((one) => one.isLeftEmpty)).toHaveLength(3);
    expect(plans.filter((one) => one.cataloguePartId !== null)).toHaveLength(2);
  });
  it("takes a can that is too tall laid flat, with its reason, and the lid closes over it", async () => {
    const tall = { heightMetres: 0.025, capacitanceFarads: 1.2e-3, rippleAmpsRms: 2.5, esrOhms: 0.03 };
    await takeIn([part("TALL-122", { series: "Brook", maker: "Ostrel", ...tall })]);
    const jobId = await makeJob(["C7"], { fullLoadAmps: 1.5 }, { lidHeightMetres: 0.0245 });
    await page.open(`/jobs/${jobId}/choose`);
    await page.click("C7, failed");
    await page.see("25 mm high");
    const line = await browser.driver.findElement(By.xpath("//li[contains(., 'Brook')]//button"));
    await browser.driver.executeScript("arguments[0].click()", line);
    await page.fill("Why it is taken all the same", "laid flat under the lid");
    await page.click("Take it");
    await page.see("Laid flat it does");
  });
});

describe("a place with room for two", () => {
  it("takes two small cans, the second as a place of its own that asks nothing out", async () => {
    const small = { diameterMetres: 0.008, heightMetres: 0.0115, pitchMetres: 0.0035, capacitanceFarads: 560e-6 };
    await takeIn([part("S-561", { series: "Dunlin", maker: "Ostrel", ...small, esrOhms: 0.05, rippleAmpsRms: 1.4 })]);
    const jobId = await makeJob(["C1"], { fullLoadAmps: 0.6 });
    const beside = { ...positionValues, designator: "J1", kind: "connector", xMetres: 0.05, outlineWidthMetres: 0.005 };
    const changes = [boardInsert("position", randomUUID(), { ...beside, outlineDepthMetres: 0.02 })];
    await send(`/jobs/${jobId}/board-edits`, { id: randomUUID(), changes });
    await page.open(`/jobs/${jobId}/choose`);
    await page.click("C1, failed");
    await page.see("Two cans at C1");
    await page.see("the second beside it on short wires");
    await page.click("Take both");
    const detail = () => load<JobDetail>(`/jobs/${jobId}`);
    const second = async () => (await detail()).positions.find((one) => one.designator === "C1b");
    await page.until("have both chosen", async () => {
      const id = (await second())?.id;
      const { plans } = await detail();
      return plans.length === 2 && plans.some((one) => one.positionId === id && one.cataloguePartId !== null);
    });
    await page.open(`/jobs/${jobId}/rework`);
    await page.see("nothing was there");
    await page.switchTo("C1b: New part in");
    await page.until("have the second in", async () => {
      const id = (await second())?.id;
      return (await detail()).fittedParts.some((one) => one.positionId === id && one.origin === "replacement");
    });
  });
});

describe("the last one of a drawer", () => {
  it("goes to one of two browsers; the other is told to whom, and takes it to be ordered", async () => {
    const itemId = await heap("T-102", "B3", 1);
    const light = { fullLoadAmps: 0.6 };
    const [mine, theirs] = [await makeJob(["C1"], light), await makeJob(["C1"], light)];
    const profile = mkdtempSync(join(tmpdir(), "pale-cap-other-"));
    const other = await openBrowser(undefined, profile);
    try {
      const beside = new Page(other.driver, server.address);
      await page.open(`/jobs/${mine}/choose`);
      await beside.open(`/jobs/${theirs}/choose`);
      for (const one of [page, beside]) {
        await one.click("C1, failed");
        await one.see("1 in B3");
      }
      await page.click("Take");
      await page.see("one set aside out of drawer B3");
      // The other still sees it lie there.
      await beside.click("Take");
      await beside.see("None of it is free in a drawer any more");
      await beside.seeNot("1 in B3");
      await beside.click("Take");
      await beside.see("to be ordered: none is set aside");
      expect(await free(itemId)).toBe(0);
    } finally {
      await other.close();
      rmSync(profile, { recursive: true, force: true });
    }
    await page.open("/parts/orders");
    await page.see("nobody offers it");
  });
});

describe("three units of a kind", () => {
  it("take the lower-voltage part by the rail that was read on two, and the third the last one of a drawer", async () => {
    const marked = { capacitanceFarads: 1.5e-3, ratedVolts: 10, rippleAmpsRms: 2.5, esrOhms: 0.03 };
    await takeIn([
      part("TEN-152", { series: "Ouzel", maker: "Ostrel", ...marked }),
      part("SIX-152", { series: "Wren", maker: "Ostrel", ...marked, ratedVolts: 6.3 }),
    ]);
    const itemId = await heap("TEN-152", "D4", 1);
    const first = await makeJob(
      ["C1"],
      { name: "5 V", nominalVolts: 5, fullLoadAmps: 0.6 },
      {},
      { capacitanceFarads: 1.5e-3, ratedVolts: 10 },
    );
    const [second, third] = [randomUUID(), randomUUID()];
    const units = [second, third].map((id) => ({ id, serial: null }));
    await send(`/jobs/${first}/family/units`, { id: randomUUID(), familyName: "Bank, three of them", units });
    for (const id of [second, third]) await failPlaces(id);
    const rival = await makeJob(
      ["C1"],
      { name: "5 V", nominalVolts: 5, fullLoadAmps: 0.6 },
      {},
      { capacitanceFarads: 1.5e-3, ratedVolts: 10 },
    );
    for (const id of [first, second]) await readRail(id, 5);

    await page.open(`/jobs/${third}/choose`);
    await page.click("C1, failed");
    await page.see("1 in D4");
    await page.click("Take");
    await page.see("one set aside out of drawer D4");
    // Who comes later wants the same one.
    const profile = mkdtempSync(join(tmpdir(), "pale-cap-rival-"));
    const other = await openBrowser(undefined, profile);
    try {
      const beside = new Page(other.driver, server.address);
      await beside.open(`/jobs/${rival}/choose`);
      await beside.click("C1, failed");
      await beside.see("Ouzel");
      await beside.seeNot("1 in D4");
    } finally {
      await other.close();
      rmSync(profile, { recursive: true, force: true });
    }
    await page.see("at most: a lower marking may do there");
    for (const id of [first, second]) {
      await page.open(`/jobs/${id}/choose`);
      await page.click("C1, failed");
      await page.see("Wren");
      const line = await browser.driver.findElement(By.xpath("//li[contains(., 'Wren')]//button"));
      await browser.driver.executeScript("arguments[0].click()", line);
      await page.fill("Why it is taken all the same", "the rail read 5.0 V");
      await page.click("Take it");
      await page.see("to be ordered: none is set aside");
    }
    const chosen = await Promise.all(
      [first, second, third].map(async (id) => (await load<JobDetail>(`/jobs/${id}`)).plans[0]),
    );
    expect(chosen.map((one) => [one?.stockItemId, one?.reasons.part ?? null])).toEqual([
      [null, "the rail read 5.0 V"],
      [null, "the rail read 5.0 V"],
      [itemId, null],
    ]);
    expect(await free(itemId)).toBe(0);
  });
});

/** Rows as such files come: semicolons, decimal commas, units in the heading. */
function bigFile(): string {
  const heading =
    "Maker;Series;Order code;Class;Capacitance (µF);V;Temp °C;D mm;L mm;Pitch mm;ESR mohm;Ripple mA;Life h;Price";
  const volts = ["6,3", "10", "16", "25", "35", "50"];
  const values = ["100", "220", "330", "470", "680", "1000"];
  const rows = Array.from({ length: rowCount }, (_, n) =>
    [
      ...[
        "Ostrel",
        `Brook${n % 40}`,
        `BR-${n}`,
        "lowz",
        values[n % 6],
        volts[Math.floor(n / 6) % 6],
        "105",
        "12,5",
        "25",
      ],
      ...["5", String(20 + (n % 50)), String(1500 + (n % 900)), "7000", `0,${String(10 + (n % 90))}`],
    ].join(";"),
  );
  const bad = [
    "Ostrel;Brook;ZERO;lowz;470;25;105;10;16;5;0;1190;4000;0,42",
    "Ostrel;Brook0;BR-0;lowz;470;25;105;10;16;5;46;1190;4000;0,42",
  ];
  return [heading, ...rows, ...bad].join("\n");
}

describe("a catalogue of many thousand rows", () => {
  const attach = async (file: string) => {
    await page.click("Take in a file");
    await page.see("CSV with one part a row");
    await (await browser.driver.findElement(By.css("input[type=file]"))).sendKeys(file);
  };
  it("is read beside the page, its impossible rows are named, and nothing is stored before it is said", async () => {
    const file = join(folder, "big.csv");
    writeFileSync(file, `\ufeff${bigFile()}`);
    await page.open("/parts/catalogue");
    await attach(file);
    await page.see(`${rowCount + 2} rows, utf-8`);
    await page.click("Read the rows");
    await page.see(`${rowCount} rows can be taken in, 2 cannot`);
    await page.see("ESR “0” cannot be");
    await page.see("stand in row 2 already");
    const before = await load<{ totalCount: number }>("/catalogue?offset=0");
    await page.click(`Take these ${rowCount} in`);
    await page.see(`${rowCount} new, 0 changed, 0 as they were`);
    const after = await load<{ totalCount: number }>("/catalogue?offset=0");
    expect(after.totalCount - before.totalCount).toBe(rowCount);
  });
  it("is searched by value and name, given out, and the same when it comes back", async () => {
    await page.fill("Find in the catalogue", "470u 25v brook7");
    await page.until("find the parts of one series", async () => {
      const [, found, all] = /(\d+) of (\d+) parts/.exec(await page.text()) ?? [];
      return Number(found) < Number(all);
    });
    const found = await load<{ foundCount: number }>("/catalogue?text=470u%2025v%20BR-1234&offset=0");
    expect(found.foundCount).toBeLessThanOrEqual(11);
    const file = join(folder, "back.csv");
    const answer = await fetch(`${server.address}/api/catalogue/export`);
    writeFileSync(file, Buffer.from(await answer.arrayBuffer()));
    const lineCount = readFileSync(file, "utf8").trim().split("\n").length - 1;
    await page.open("/parts/catalogue");
    await attach(file);
    await page.click("Read the rows");
    await page.see(`${lineCount} rows can be taken in, 0 cannot`);
    await page.click(`Take these ${lineCount} in`);
    await page.see(`0 new, 0 changed, ${lineCount} as they were`);
  });
});
