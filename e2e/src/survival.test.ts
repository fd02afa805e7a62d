import { intakeSchema, routes } from "@pale-cap/contract";
import { Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, openBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";

let server: ServerUnderTest;
let browser: Browser;
let page: Page;
let jobPath: string;

interface StoredReading {
  readonly value: number | null;
  readonly rawText: string | null;
}

/** What the server has of readings typed in this test. */
async function stored(text: string): Promise<readonly StoredReading[]> {
  const answer = await fetch(`${server.address}/api${jobPath}`);
  const { readings } = (await answer.json()) as { readings: StoredReading[] };
  return readings.filter((reading) => reading.rawText === text);
}

beforeAll(async () => {
  server = await openServer("demo");
  const bench = (await (await fetch(`${server.address}/api/bench`)).json()) as {
    lines: readonly { id: string; deviceModel: string }[];
  };
  jobPath = `/jobs/${bench.lines.find((line) => line.deviceModel === "Halden 24")?.id}`;
  browser = await openBrowser();
  page = new Page(browser.driver, server.address);
});
afterAll(async () => {
  await browser?.close();
  await server?.close();
});

describe("a server that is killed in the middle", () => {
  it("has every confirmed entry after it starts again", async () => {
    await page.open(`${jobPath}/measure`);
    // ESR or, once the demo has stood for five minutes, DC volts first: a named quantity goes past it.
    await page.seeNamed("Reading, ");
    await page.press("esr 301m", Key.ENTER);
    await page.until("have the reading stored", async () => (await stored("esr 301m")).length === 1);
    await server.kill();
    await server.start();
    const readiness = await fetch(`${server.address}${routes.ready}`);
    expect(await readiness.json()).toMatchObject({ status: "ready", checks: { migrations: "ok" } });
    expect(await stored("esr 301m")).toHaveLength(1);
    await browser.driver.navigate().refresh();
    await page.see("301 mΩ");
  });

  it("gets what was measured while it was gone, each reading once and in order, even after the tab was closed", async () => {
    // ESR or, once the demo has stood for five minutes, DC volts first: a named quantity goes past it.
    await page.seeNamed("Reading, ");
    await server.kill();
    await page.press("esr 302m", "/");
    await page.see("is not stored yet: the server does not answer");
    // It counts from the moment it was confirmed, stored or not.
    await page.see("302 mΩ");
    await page.press("esr 303m", "/", "esr 304m", "/");
    await page.see("3 entries are not stored yet");
    await page.open("about:blank", "");
    await server.start();
    await page.open("/");
    await page.see("Halden 24");
    for (const text of ["esr 302m", "esr 303m", "esr 304m"]) {
      await page.until(`have ${text} stored`, async () => (await stored(text)).length > 0);
    }
    await page.open(`${jobPath}/measure`);
    await page.see("304 mΩ");
    await page.seeNot("not stored yet");
    for (const [text, value] of [
      ["esr 302m", 0.302],
      ["esr 303m", 0.303],
      ["esr 304m", 0.304],
    ] as const) {
      expect(await stored(text)).toMatchObject([{ value }]);
    }
  });

  it("gets a drained voltage too, and the charge watch has not waited for it", async () => {
    await page.chord(Key.ALT, "2");
    await page.see("Log voltage");
    await server.kill();
    await page.fill("Measured voltage", "123");
    await page.press(Key.ENTER);
    await page.seeNamed("Charge watch: Bulk C1 charged, 123");
    await page.see("A charge entry is not stored yet");
    await server.start();
    // It tries by itself as well: whichever comes first.
    await page.driver.executeScript(
      "[...document.querySelectorAll('button')].find((one) => one.textContent.trim() === 'Try now')?.click();",
    );
    await page.seeNot("not stored yet");
    const { chargeEvents } = (await (await fetch(`${server.address}/api${jobPath}`)).json()) as {
      chargeEvents: { volts: number | null }[];
    };
    expect(chargeEvents.filter((one) => one.volts === 123)).toHaveLength(1);
  });

  it("says that it is gone where somebody saves, and keeps what was typed", async () => {
    await page.chord(Key.ALT, "1");
    await page.see("Intake of Brambix Halden 24");
    await page.fill("Symptoms in free words", "typed while the server was gone");
    await server.kill();
    await page.click("Save intake");
    await page.see("The server does not answer");
    const field = await page.field("Symptoms in free words");
    expect(await field.getAttribute("value")).toBe("typed while the server was gone");
    await server.start();
    await page.click("Save intake");
    await page.seeNot("The server does not answer");
    await page.seeNot("not saved yet");
  });
});

describe("two people at one job", () => {
  it("are shown each other's edit instead of losing one", async () => {
    await browser.driver.navigate().refresh();
    await page.see("Intake of Brambix Halden 24");
    const job = (await (await fetch(`${server.address}/api${jobPath}`)).json()).job;
    const { version } = job;
    const values = Object.fromEntries(Object.keys(intakeSchema.fields).map((name) => [name, job[name]]));
    const body = {
      writeId: crypto.randomUUID(),
      version,
      values: { ...values, complaint: "Changed at the other bench." },
    };
    const answer = await fetch(`${server.address}/api${jobPath}/intake`, {
      method: "PATCH",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(body),
    });
    expect(answer.status).toBe(200);
    // What nobody touched here stands in the form as soon as it was stored there.
    const complaint = async () => (await (await page.field("What it does wrong")).getAttribute("value")) ?? "";
    await page.until("see the other bench's words", async () => (await complaint()).includes("other bench"));
    await page.fill("What it does wrong", "Hums, then dies.");
    await page.fill("Symptoms in free words", "changed here");
    const again = {
      ...{ writeId: crypto.randomUUID(), version: version + 1 },
      values: { ...values, complaint: "Clicks twice." },
    };
    await fetch(`${server.address}/api${jobPath}/intake`, {
      method: "PATCH",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(again),
    });
    await page.see("Somebody else changed this while you typed");
    await page.see("Clicks twice.");
    expect(await complaint()).toBe("Hums, then dies.");
    await page.click("Both");
    await page.click("Save intake");
    await page.seeNot("not saved yet");
    await page.until("have both texts stored", async () => {
      const stored = (await (await fetch(`${server.address}/api${jobPath}`)).json()).job;
      return stored.complaint === "Clicks twice.\nHums, then dies." && stored.symptomNote === "changed here";
    });
  });
});
