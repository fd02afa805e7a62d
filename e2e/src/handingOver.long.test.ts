import { randomUUID } from "node:crypto";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { BenchPage, JobDetail, ReportVersion } from "@pale-cap/contract";
import { boardInsert, netValues, partValues, positionValues, readingValues } from "@pale-cap/core/testing";
import pg from "pg";
import { By } from "selenium-webdriver";
import { extractText, getDocumentProxy } from "unpdf";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";
import { emptyShop, shopApi } from "./shopApi";

const shop = emptyShop();
let other: ServerUnderTest;
let folder: string;
beforeAll(async () => {
  other = await openServer("none");
  folder = mkdtempSync(join(tmpdir(), "pale-cap-bundles-"));
});
afterAll(async () => {
  await other?.close();
  rmSync(folder, { recursive: true, force: true });
});

/** What stands in a file that a link of the page leads to. */
async function pdfText(name: string): Promise<string> {
  const href = await shop.page.control(name).then((one) => one.getAttribute("href"));
  const answer = await fetch(href ?? "");
  expect(answer.headers.get("content-type")).toBe("application/pdf");
  const { text } = await extractText(await getDocumentProxy(new Uint8Array(await answer.arrayBuffer())), {
    mergePages: true,
  });
  return text.normalize("NFKC").replace(/\s+/g, " ");
}

/** A monitor with a dried can, read, of a customer; quoted and agreed to up to a limit. */
async function makeJob(deviceModel: string, customerName: string): Promise<string> {
  const { api } = shop;
  const [jobId, netId, positionId, partId, quoteId] = Array.from({ length: 5 }, () => randomUUID());
  const said = { clockId: null, personId: null };
  const at = new Date().toISOString();
  const device = { deviceKind: "monitor", deviceMaker: "Brambix", deviceModel, complaint: "will not start" };
  await api.send("/jobs", { id: jobId, ...device, personId: null });
  const marking = { ...partValues, capacitanceFarads: 1e-3, ratedVolts: 16 };
  const changes = [
    boardInsert("net", netId as string, { ...netValues, name: "12 V", section: "output" as const, nominalVolts: 12 }),
    boardInsert("position", positionId as string, { ...positionValues, designator: "C7", netId }),
    boardInsert("fittedPart", partId as string, { ...marking, positionId }),
  ];
  await api.send(`/jobs/${jobId}/board-edits`, { id: randomUUID(), changes });
  const target = { targetKind: "part", targetId: positionId, fittedPartId: partId, circuitState: "out" };
  const reading = { ...readingValues, ...target, quantity: "esr", value: 4.2, measuredAt: at, ...said };
  await api.send(`/jobs/${jobId}/readings`, { ...reading, id: randomUUID() });
  const lines = [{ kind: "labour", words: null, quantity: 60, unitMinor: 100 }];
  await api.send(`/jobs/${jobId}/quotes`, {
    id: quoteId,
    lines,
    taxRatio: 0.19,
    validDays: 14,
    note: null,
    at,
    ...said,
  });
  const answer = { quoteId, word: "up_to", limitMinor: 6500, byWhom: customerName, way: "phone", at, ...said };
  await api.send(`/jobs/${jobId}/quote-answers`, { id: randomUUID(), ...answer });
  const { job } = await api.load<JobDetail>(`/jobs/${jobId}`);
  const { deviceKind, deviceMaker, deviceAgeYears, complaint, symptoms, symptomNote, priceLimitMinor, dueOn } = job;
  const values = {
    ...{
      deviceKind,
      deviceMaker,
      deviceModel,
      deviceAgeYears,
      complaint,
      symptoms,
      symptomNote,
      priceLimitMinor,
      dueOn,
    },
    ...{
      intakeDetails: job.intakeDetails,
      customerName,
      customerContact: null,
      ownersWords: null,
      deviceSerial: `S-${deviceModel}`,
    },
  };
  await api.send(`/jobs/${jobId}/intake`, { writeId: randomUUID(), version: job.version, values }, "PATCH");
  return jobId as string;
}

/** It goes back as it came: nothing is promised, and no proof is asked for. */
async function close(jobId: string): Promise<void> {
  const { api } = shop;
  const said = { clockId: null, personId: null };
  const at = new Date().toISOString();
  const outcome = { kind: "outcome", subjectId: null, word: "not_repaired", note: null, at, ...said };
  await api.send(`/jobs/${jobId}/acts`, { id: randomUUID(), ...outcome });
  const { version } = (await api.load<JobDetail>(`/jobs/${jobId}`)).job;
  const closing = { handedOverAt: at, warrantyMonths: 0, spentMinutes: 20, note: null, isReopened: false, ...said };
  await api.send(`/jobs/${jobId}/hand-over`, { id: randomUUID(), version, ...closing });
}

describe("what leaves the shop", () => {
  it("is a page for the customer and one for the record, work beyond the answer shown, and stays as it was", async () => {
    const { page, api } = shop;
    const jobId = await makeJob("Halden 31", "Ione Varga");
    await page.open(`/jobs/${jobId}/report`);
    await page.see("Your repair");
    await page.see("The repair is not finished: this is how it stands.");
    const customer = await pdfText("As PDF");
    expect(customer).toContain("1 electrolytic capacitor was worn, or had failed.");
    expect(customer).toContain("Agreed, up to €65.00.");
    expect(customer).not.toMatch(/4\.2|ESR|stored charge/);
    await page.switchTo("For the record");
    await page.see("Repair report");
    const record = await pdfText("As PDF");
    expect(record).toContain("4.2 Ω");
    // Labour with tax is 71.40: more than the limit that was set.
    expect(record).toContain("€6.40 more than was agreed");
    expect(record).toContain("page 1 of");
    await close(jobId);
    const [version] = await api.load<readonly ReportVersion[]>(`/jobs/${jobId}/reports`);
    await page.open(`/jobs/${jobId}/report`);
    await page.see("Not repaired: not to be used.");
    expect(await page.control("As PDF").then((one) => one.getAttribute("href"))).toContain(version?.id);
    expect(await pdfText("As PDF")).toContain("None: the unit was not repaired.");
  });

  it("carries a label that leads back to it", async () => {
    const { page, api } = shop;
    const jobId = await makeJob("Halden 32", "Ione Varga");
    const { number } = (await api.load<JobDetail>(`/jobs/${jobId}`)).job;
    const code = String(number).padStart(4, "0");
    await page.open(`/jobs/${jobId}/hand-over`);
    expect(await pdfText("Unit")).toContain(code);
    await page.open(`/go/${code}`);
    await page.see("Intake of Brambix Halden 32");
    await page.open("/go/X-77");
    await page.see("No job and no drawer here is called “X-77”.");
  });

  it("enters another shop as a bundle with the same verdicts, once", async () => {
    const { page } = shop;
    const jobId = await makeJob("Halden 33", "Ione Varga");
    await page.open(`/jobs/${jobId}/judge`);
    await page.seeNamed("C7, 1000 µF 16 V, 12 V, failed");
    await page.open(`/jobs/${jobId}/hand-over`);
    const href = await page.control("The whole job as a bundle").then((one) => one.getAttribute("href"));
    const file = join(folder, "job.zip");
    writeFileSync(file, Buffer.from(await (await fetch(href ?? "")).arrayBuffer()));
    const there = new Page(shop.browser.driver, other.address);
    await there.open("/");
    await there.see("The bench is empty.");
    await there.click("From another shop");
    const look = async (path: string) => {
      const input = await shop.browser.driver.findElement(By.css("input[aria-label='Bundle']"));
      await input.sendKeys(path);
    };
    writeFileSync(join(folder, "no.zip"), "no archive at all");
    await look(join(folder, "no.zip"));
    await there.see("It is no archive that can be read. Nothing was taken in.");
    await look(file);
    await there.see("new here");
    await there.see("without customers");
    await there.click("Take in 1 job");
    await there.see("Taken in.");
    await there.see("here already");
    await there.open(`/jobs/${jobId}/judge`);
    await there.seeNamed("C7, 1000 µF 16 V, 12 V, failed");
    const taken = await shopApi(other).load<JobDetail>(`/jobs/${jobId}`);
    expect(taken.job).toMatchObject({ number: 1, customerName: null, deviceModel: "Halden 33" });
    expect(taken.quoteAnswers).toMatchObject([{ byWhom: "[left out]", limitMinor: 6500 }]);
  });

  it("finds its former job when it comes back, by one press", async () => {
    const { page } = shop;
    const jobId = await makeJob("Halden 34", "Piet Klaas");
    await close(jobId);
    await page.open("/");
    await page.click("Handed over");
    await page.fill("Find a job", "S-Halden 34");
    await page.click("It came back");
    await page.see("It was here before");
    await page.see("C7 failed");
    await page.see("Nothing was promised with it.");
    await page.switchTo("the same fault");
    await page.until("have the reason stored", async () => {
      const { lines } = await shop.api.load<BenchPage>("/bench?state=open&search=halden%2034");
      const { job } = await shop.api.load<JobDetail>(`/jobs/${lines[0]?.id}`);
      return job.comebackOf === jobId && job.comebackKind === "same_fault" && job.customerName === "Piet Klaas";
    });
  });

  it("forgets a customer: no row, no report and nothing in the browser holds the name", async () => {
    const { page, browser, server } = shop;
    const jobId = await makeJob("Halden 35", "Marta Heading");
    await close(jobId);
    await page.open(`/jobs/${jobId}/report?for=record`);
    await page.see("Marta Heading");
    // Something was typed of it here and not stored.
    await browser.driver.executeScript(
      `localStorage.setItem("pale-cap draft ${jobId} call back", '"ring Marta Heading"')`,
    );
    await page.open(`/jobs/${jobId}/intake`);
    await page.click("Erase this customer…");
    await page.see("What was measured and done stays.");
    await page.click("Erase for good");
    await page.see("Customer erased");
    await page.open(`/jobs/${jobId}/report?for=record`);
    await page.see("Repair report");
    await page.see("C7");
    await page.seeNot("Heading");
    await page.open("/");
    await page.click("Handed over");
    await page.fill("Find a job", "Heading");
    await page.see("No job handed over fits.");
    const kept = await browser.driver.executeScript<string>("return JSON.stringify(localStorage)");
    expect(kept).not.toContain("Heading");
    expect(await rowsWith(server, 'marta|heading"?,|mrs heading')).toEqual([]);
  });
});

/** Rows of every table that hold a pattern, as a dump would. */
async function rowsWith(server: ServerUnderTest, pattern: string): Promise<readonly string[]> {
  const client = new pg.Client({ connectionString: server.databaseUrl });
  await client.connect();
  try {
    const tables = await client.query<{ name: string }>(
      "SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public'",
    );
    const found: string[] = [];
    for (const { name } of tables.rows) {
      const { rows } = await client.query<{ row: string }>(
        `SELECT t::text AS row FROM "${name}" t WHERE t::text ~* $1`,
        [pattern],
      );
      found.push(...rows.map((one) => `${name}: ${one.row.slice(0, 160)}`));
    }
    return found;
  } finally {
    await client.end();
  }
}
