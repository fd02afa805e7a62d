import { randomUUID } from "node:crypto";
import type { JobDetail } from "@pale-cap/contract";
import { Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, openBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";
import { demoLines } from "./views";

let server: ServerUnderTest;
let browser: Browser;
let page: Page;
let monitor: string;
beforeAll(async () => {
  server = await openServer("demo");
  browser = await openBrowser();
  page = new Page(browser.driver, server.address);
  monitor = (await demoLines(server.address)).find((one) => one.deviceModel === "Halden 24")?.id as string;
});
afterAll(async () => {
  await browser?.close();
  await server?.close();
});

async function post(path: string, body: object): Promise<void> {
  const answer = await fetch(`${server.address}/api${path}`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
}
const detailOf = async (jobId: string) =>
  (await (await fetch(`${server.address}/api/jobs/${jobId}`)).json()) as JobDetail;

async function read(jobId: string, at: string, value: number, circuitState = "in_circuit"): Promise<void> {
  const { positions, fittedParts } = await detailOf(jobId);
  const place = positions.find((one) => one.designator === at);
  const part = fittedParts.find((one) => one.positionId === place?.id);
  await post(`/jobs/${jobId}/readings`, {
    ...{ id: randomUUID(), targetKind: "part", targetId: place?.id, fittedPartId: part?.id, quantity: "esr", value },
    ...{ coarseCode: null, terminals: null, uncertainty: null, circuitState, frequencyHertz: 100e3 },
    ...{ temperatureCelsius: null, isPowered: false, loadAmps: null, rawText: null, instrument: null },
    rig: {
      ...{ isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
      ...{ areLeadsZeroed: true, measuredAt: null },
    },
    ...{ isWithdrawn: false, supersedesId: null, measuredAt: new Date().toISOString(), clockId: null, personId: null },
  });
}

describe("the casebook", () => {
  it("finds a misspelt model, says what it looked for, and keeps the search in the address", async () => {
    await page.open("/casebook");
    await page.fill("Find in the casebook", "vespr 27");
    await page.see("Nothing is spelt “vespr”: looked for");
    await page.see("Brambix Vesper 27");
    expect(await browser.driver.getCurrentUrl()).toContain("q=vespr");
    await page.open("/casebook?q=vesper&back=yes");
    await page.see("the same fault, job");
  });

  it("shows a model's usual failure, and a series by its life", async () => {
    await page.open("/casebook?q=vesper+27");
    await page.click("Brambix Vesper 27");
    await page.see("More often than its like in other models, beyond chance");
    await page.see("Units come because they failed");
    await page.see("starts after repeated attempts");
    await page.click("Series");
    await page.click("Midge HK");
    await page.see("A tenth has failed by");
    await page.open("/casebook/series/one?series=brook");
    await page.see("worse than its series, beyond chance");
  });

  it("opens in Intake as soon as a known model is typed, and moves a verdict that names it", async () => {
    const jobId = randomUUID();
    const device = { deviceKind: "monitor", deviceMaker: "Brambix", deviceModel: null, complaint: "dead" };
    await post("/jobs", { id: jobId, ...device, personId: null });
    await page.open(`/jobs/${jobId}/intake`);
    await page.seeNot("Seen here before");
    await page.fill("Model", "halden 24");
    await page.see("Seen here before:");
    await page.see("had failed in");
    await page.open(`/jobs/${monitor}/judge`);
    await page.see("All parts, worst first");
    await page.click("C15");
    await page.see("seen at this place of this model had failed");
    await page.click("Leave this out");
    await page.see("Too little yet of this place and of its series");
    await page.open("/casebook/changes");
    await page.see("C15 of brambix halden 24, left out");
  });

  it("tells what it changes, each with a switch, and how far told chances held", async () => {
    await page.open("/casebook/changes");
    await page.see("by default");
    await page.open("/casebook/quality");
    await page.see("Chances that were told in circuit");
    await page.see("bits");
  });
});

describe("a family of five", () => {
  it("is read place by place across units, each with its own charge, and jumps from a cell to its place", async () => {
    const study = randomUUID();
    await post("/jobs", {
      ...{ id: study, deviceKind: "instrument", deviceMaker: "Zwenth", deviceModel: "Counter 3", complaint: "resets" },
      personId: null,
    });
    const net = randomUUID();
    const places = ["C17", "C18"].map((name) => ({ name, id: randomUUID(), part: randomUUID() }));
    const insert = (table: string, id: string, values: object) => ({
      table,
      operation: "insert",
      id,
      version: null,
      values,
    });
    await post(`/jobs/${study}/board-edits`, {
      id: randomUUID(),
      changes: [
        insert("net", net, {
          ...{ name: "12 V", section: "output", nominalVolts: 12, fullLoadAmps: 2, toleranceRatio: null },
          ...{ rippleLimitVolts: null, network: null, converter: null },
        }),
        ...places.flatMap(({ name, id, part }) => [
          insert("position", id, {
            ...{ designator: name, kind: "electrolytic", netId: net, xMetres: null, yMetres: null, markedOhms: null },
            ...{ outlineWidthMetres: null, outlineDepthMetres: null, outlineHeightMetres: null, pitchMetres: null },
            ...{ polarityMark: null, boardNegativeDegrees: null, fixing: null, heatSource: null },
          }),
          insert("fittedPart", part, {
            ...{ positionId: id, capacitanceFarads: 1e-3, ratedVolts: 16, temperatureClassCelsius: 105 },
            ...{ capacitorClass: "lowz", diameterMetres: 0.01, heightMetres: 0.02, stripeDegrees: null },
            ...{ datasheetEsrOhms: null, toleranceRatio: null, series: null },
          }),
        ]),
      ],
    });
    const units = Array.from({ length: 4 }, (_, n) => ({ id: randomUUID(), serial: `Z-${n}` }));
    await post(`/jobs/${study}/family/units`, { id: randomUUID(), familyName: "five counters", units });
    await page.open(`/family/${study}`);
    await page.see("five counters");
    await page.click("C17");
    await page.see("C17 on all of them");
    await page.see("not before its charge was measured low");
    const numbers = await Promise.all(
      [study, ...units.map((one) => one.id)].map(async (id) => (await detailOf(id)).job.number),
    );
    for (const [n, number] of numbers.entries()) {
      await page.fill(`ESR of C17 of ${number}`, n === 3 ? "0.31" : `0.0${40 + n}`);
      await page.press(Key.ENTER);
    }
    await page.see("times the middle of the family");
    await page.until("have all five stored", async () => {
      const details = await Promise.all([study, ...units.map((one) => one.id)].map(detailOf));
      return details.every((one) => one.readings.length === 1);
    });
    await read(units[0]?.id as string, "C18", 0.05, "out");
    await page.open(`/family/${study}`);
    await page.seeNamed(`C18 of ${String(numbers[1]).padStart(4, "0")}`);
    await page.click(`C17 of ${String(numbers[3]).padStart(4, "0")}`);
    await page.until("stand in that job", async () =>
      (await browser.driver.getCurrentUrl()).includes(units[2]?.id as string),
    );
    await page.seeNamed("Reading, C17");
  });
});
