import { randomUUID } from "node:crypto";
import { boardInsert, netValues, partValues, positionValues, readingValues } from "@pale-cap/core/testing";
import { type Browser, openBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";

/**
 * How long a hand waits: with sixty parts and a thousand readings on a job, the time from a click or key to the picture
 * that shows it, for selecting a part, logging a reading and changing the lens. Median and 95th percentile, in
 * milliseconds; nothing here passes or fails.
 */
const partCount = 60;
const readingCount = 1000;
const rounds = 40;
const netCount = 12;

/** Does something in the page and gives the milliseconds until the frame after it was painted. */
const untilPainted = `
  const done = arguments[arguments.length - 1];
  const start = performance.now();
  act();
  requestAnimationFrame(() => setTimeout(() => done(performance.now() - start), 0));`;

const ladder = `[...document.querySelectorAll("nav[aria-label=Lenses] a")].find((one) => one.textContent.includes(arguments[0])).click();`;

const server = await openServer("none");
const browser = await openBrowser();
try {
  const jobId = await fillJob(server);
  await measure(browser, server, jobId);
} finally {
  await browser.close();
  await server.close();
}

async function post(target: ServerUnderTest, path: string, body: object): Promise<void> {
  const answer = await fetch(`${target.address}${path}`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
}

/** Twelve rails of five capacitors, and readings spread over them: some in circuit, some out, ESR and C. */
async function fillJob(target: ServerUnderTest): Promise<string> {
  const jobId = randomUUID();
  const device = {
    deviceKind: "other",
    deviceMaker: "Brambix",
    deviceModel: "Speed board",
    complaint: "many readings",
  };
  await post(target, "/api/jobs", { id: jobId, ...device, personId: null });
  const nets = Array.from({ length: netCount }, () => randomUUID());
  const parts = Array.from({ length: partCount }, () => ({ positionId: randomUUID(), partId: randomUUID() }));
  const changes = [
    ...nets.map((id, index) =>
      boardInsert("net", id, {
        ...netValues,
        name: `${index + 3} V`,
        section: index === 0 ? "bulk" : "output",
        nominalVolts: index + 3,
        fullLoadAmps: null,
      }),
    ),
    ...parts.flatMap(({ positionId, partId }, index) => [
      boardInsert("position", positionId, {
        ...positionValues,
        designator: `C${index + 1}`,
        netId: nets[index % netCount],
        xMetres: 0.012 + (index % 10) * 0.016,
        yMetres: 0.012 + Math.floor(index / 10) * 0.018,
        polarityMark: null,
      }),
      boardInsert("fittedPart", partId, {
        ...partValues,
        positionId,
        ratedVolts: 25,
      }),
    ]),
  ];
  await post(target, `/api/jobs/${jobId}/board-edits`, { id: randomUUID(), changes });
  const start = Date.now() - readingCount * 1000;
  for (let n = 0; n < readingCount; n++) {
    const part = parts[n % partCount] as (typeof parts)[number];
    const isEsr = n % 3 !== 0;
    await post(target, `/api/jobs/${jobId}/readings`, {
      ...readingValues,
      id: randomUUID(),
      targetId: part.positionId,
      fittedPartId: part.partId,
      quantity: isEsr ? "esr" : "capacitance",
      value: isEsr ? 0.03 + (n % 50) / 1000 : 0.00085 + (n % 30) * 1e-5,
      circuitState: n % 4 === 0 ? "in_circuit" : "lead_lifted",
      frequencyHertz: isEsr ? 100e3 : 120,
      measuredAt: new Date(start + n * 1000).toISOString(),
    });
  }
  return jobId;
}

async function measure({ driver }: Browser, target: ServerUnderTest, jobId: string): Promise<void> {
  const page = new Page(driver, target.address);
  const timed = (act: string, argument: string) =>
    driver.executeAsyncScript<number>(
      `const act = () => { const name = arguments[0]; ${act} };${untilPainted}`,
      argument,
    );
  const repeat = async (label: string, once: (round: number) => Promise<number>) => {
    const times: number[] = [];
    for (let round = 0; round < rounds; round++) {
      times.push(await once(round));
      await driver.sleep(60);
    }
    print(label, times.slice(2));
  };

  await page.open(`/jobs/${jobId}/measure`);
  await page.seeNamed("Reading,");
  console.log(`${partCount} parts, ${readingCount} readings, ${rounds - 2} rounds`);
  await repeat("select a part", (round) =>
    timed(
      `const part = [...document.querySelectorAll("[role=button]")].find((one) => one.getAttribute("aria-label")?.startsWith(name));
       part.dispatchEvent(new MouseEvent("click", { bubbles: true }));`,
      `C${1 + ((round * 7) % partCount)},`,
    ),
  );
  // Volts first, once for each rail, so that what is timed is an ESR reading.
  await repeat("log a reading", (round) =>
    timed(
      `const input = document.querySelector("section[aria-label='Probe bar'] input[class*=digits]");
       Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(input, name);
       input.dispatchEvent(new Event("input", { bubbles: true }));
       input.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true }));`,
      round < netCount ? "0.1" : String(30 + round),
    ),
  );
  const lenses = ["Judge", "Measure", "Choose", "Inspect", "Make safe", "Measure"];
  for (const lens of lenses) {
    await driver.executeScript(ladder, lens);
    await driver.sleep(700);
  }
  await repeat("change the lens", (round) =>
    timed(ladder.replace("arguments[0]", "name"), lenses[round % lenses.length] as string),
  );
}

function print(label: string, times: readonly number[]): void {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) =>
    (sorted[Math.min(Math.floor(share * sorted.length), sorted.length - 1)] ?? 0).toFixed(0);
  console.log(`${label.padEnd(16)} median ${at(0.5).padStart(4)} ms   95 % ${at(0.95).padStart(4)} ms`);
}
