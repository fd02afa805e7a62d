import { mkdtemp, readFile, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { By } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, openBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";

let server: ServerUnderTest;
let browser: Browser;
let page: Page;
let folder: string;
let railPath: string;
let jobId: string;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), "pale-cap-"));
  server = await openServer("demo");
  browser = await openBrowser();
  page = new Page(browser.driver, server.address);
  const bench = (await get("/bench")) as { lines: readonly { id: string; deviceModel: string }[] };
  jobId = bench.lines.find((one) => one.deviceModel === "Halden 24")?.id ?? "";
  const net = (await job()).nets.find((one) => one.name === "16 V");
  railPath = `/jobs/${jobId}/ripple/${net?.id}`;
});
afterAll(async () => {
  await browser?.close();
  await server?.close();
  await rm(folder, { recursive: true, force: true });
});

interface Job {
  readonly nets: readonly { readonly id: string; readonly name: string }[];
  readonly captures: readonly { readonly name: string; readonly analysis: { readonly sampleCount: number } }[];
}
const get = async (path: string): Promise<unknown> => (await fetch(`${server.address}/api${path}`)).json();
const job = async () => (await get(`/jobs/${jobId}`)) as Job;

const hertz = 66_000;
const interval = 2e-7;

/** Forty milliseconds of a rail in millivolts: a sawtooth at the switching frequency and twice the mains below it. */
function samples(count: number): number[] {
  return Array.from({ length: count }, (_, n) => {
    const at = n * interval;
    return 180 * (0.5 - ((at * hertz) % 1)) + 25 * Math.sin(2 * Math.PI * 100 * at);
  });
}

async function importFile(name: string, text: string): Promise<void> {
  const path = join(folder, name);
  await writeFile(path, text);
  const input = await browser.driver.findElement(By.css('input[aria-label="Capture file"]'));
  await input.sendKeys(path);
}

describe("the ripple lens", () => {
  it("predicts a rail as new, as read and after replacement", async () => {
    await page.open(railPath);
    await page.see("Ripple of 16 V");
    await page.see("as new");
    await page.see("after replacement");
    await page.see("usually 45 kHz to 130 kHz");
  });

  it("imports a capture by its content and tells where its ripple comes from", async () => {
    const rows = samples(200_000).map(
      (value, n) => `${(n * interval * 1e3).toFixed(4)};${value.toFixed(3).replace(".", ",")}`,
    );
    const head = ["Made for a test", "Channels;1", "Time (ms);16 V rail (mV)"];
    await importFile("sawtooth.csv", [...head, ...rows.map((row) => row.replace(".", ","))].join("\r\n"));
    await page.see("Capture of 16 V: sawtooth.csv");
    await page.click("Take it");
    await page.see("switching, 66 kHz");
    await page.see("points to the output capacitors before or after the choke");
    await page.see("twice the mains, 100 Hz");
    await page.see("at the switching frequency: they explain");
    const [capture] = (await job()).captures.filter((one) => one.name.startsWith("sawtooth"));
    expect(capture?.analysis.sampleCount).toBe(200_000);
  });

  it("falls to the new parts' ripple when the bad one is replaced", async () => {
    await page.until("see the prediction fall", async () => {
      const text = await page.text();
      const volts = (label: string) => {
        const found = new RegExp(`${label} ([\\d.]+) (m?)V`).exec(text);
        return found ? Number(found[1]) * (found[2] ? 1e-3 : 1) : Number.NaN;
      };
      return volts("as read") > 1.2 * volts("after replacement") && volts("after replacement") > 0;
    });
    await page.see("Renewing C14 alone would lower it most");
  });

  it("shows the same as a table, and answers the load", async () => {
    await page.switchTo("Table");
    await page.see("not read out of circuit");
    await page.see("its readings");
    await page.switchTo("Two periods");
  });

  it("refuses what is no capture with a sentence, and stores nothing", async () => {
    const before = (await job()).captures.length;
    const good = samples(64).map((value, n) => `${n * interval},${value}`);
    await importFile("broken.csv", ["time (s),volts (mV)", ...good, "0.0000129,"].join("\n"));
    await page.click("Take it");
    await page.see("The file breaks off");
    await importFile("backwards.csv", ["time (s),volts (mV)", ...good, "0,1", "1,1"].join("\n"));
    await page.click("Take it");
    await page.see("Time does not go on");
    await importFile("words.csv", "this is a letter\nand no capture\n");
    await page.see("Nothing was stored.");
    await importFile("one.csv", "time (s),volts (V)\n0,1\n");
    await page.see("too few to say anything");
    expect((await job()).captures.length).toBe(before);
  });

  it("explains a converter that cannot be, and keeps what was there", async () => {
    await page.choose("Kind", "buck");
    await page.fill("Volts at its input", "12\uE007");
    await page.see("16 V cannot come out of a step-down converter fed with 12 V.");
    await page.choose("Kind", "flyback, discontinuous");
    await page.seeNot("cannot come out of");
  });

  it("is reached from Measure, Judge and Choose", async () => {
    for (const lens of ["judge", "choose"]) {
      await page.open(`/jobs/${jobId}/${lens}`);
      await page.click("Ripple of 5 V");
      await page.see("Ripple of 5 V");
      await page.see("points to the output capacitors");
    }
  });
});

it("writes samples back as they were stored", async () => {
  const { captures } = (await get(`/jobs/${jobId}`)) as { captures: readonly { id: string; name: string }[] };
  const id = captures.find((one) => one.name.startsWith("sawtooth"))?.id;
  const answer = await fetch(`${server.address}/api/captures/${id}/samples`);
  const stored = new Float32Array(await answer.arrayBuffer());
  expect(stored.length).toBe(200_000);
  expect(stored[1]).toBeCloseTo((samples(2)[1] ?? 0) / 1e3, 5);
  expect((await readFile(join(folder, "sawtooth.csv"), "utf8")).length).toBeGreaterThan(1e6);
});
