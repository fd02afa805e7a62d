import { execFileSync } from "node:child_process";
import { randomUUID } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { boardInsert } from "@pale-cap/core/testing";
import { By, Key } from "selenium-webdriver";
import { type Browser, devTools, openBrowser } from "../browser";

const pause = (milliseconds: number) => new Promise<void>((resolve) => setTimeout(resolve, milliseconds));
/** A typed number that is neither kept nor stored by then was never acknowledged to anybody. */
const patienceMilliseconds = 12_000;

/** Texts of the facts that this browser keeps, or null where its storage does not open. */
const keptScript = `
  const done = arguments[arguments.length - 1];
  try {
    const opening = indexedDB.open("pale-cap-outbox");
    opening.onerror = () => done(null);
    opening.onsuccess = () => {
      const shelf = opening.result;
      if (!shelf.objectStoreNames.contains("facts")) { shelf.close(); done([]); return; }
      const all = shelf.transaction("facts").objectStore("facts").getAll();
      all.onsuccess = () => { shelf.close(); done(all.result.map((fact) => fact.body.rawText)); };
      all.onerror = () => { shelf.close(); done(null); };
    };
  } catch { done(null); }`;

/** A technician at a page: types numbers, and counts those that the page has kept or the server has stored. */
export class BrowserWriter {
  readonly acknowledged: string[] = [];
  isStorageShut = false;
  private browser: Browser | null = null;
  private count = 0;
  private isOpenShut = false;
  private isRepairing = false;

  private constructor(
    private readonly address: string,
    private readonly path: string,
    private readonly profile: string,
    private readonly isStored: (text: string) => Promise<boolean>,
  ) {}

  static async open(address: string, isStored: (text: string) => Promise<boolean>): Promise<BrowserWriter> {
    const path = await makeBoard(address);
    const writer = new BrowserWriter(address, path, mkdtempSync(join(tmpdir(), "pale-cap-torture-")), isStored);
    await writer.reopen();
    return writer;
  }

  async writeUntil(end: number): Promise<void> {
    while (Date.now() < end) {
      try {
        if (!this.browser || this.isOpenShut !== this.isStorageShut) await this.reopen();
        await this.typeOne();
      } catch {
        // Killed in the middle, or the page is not there: it is opened again.
        await this.reopen();
      }
    }
  }

  private async typeOne(): Promise<void> {
    const driver = this.driver();
    // Named and with its prefix: the bar asks nothing back, and each is told apart.
    const text = `esr ${(100 + this.count++ / 100).toFixed(2)}m`;
    const input = await driver.findElement(By.css("section[aria-label='Probe bar'] input[aria-label^='Reading']"));
    await input.sendKeys(Key.chord(Key.CONTROL, "a"), text, "/");
    const deadline = Date.now() + patienceMilliseconds;
    while (Date.now() < deadline) {
      const kept = await driver.executeAsyncScript<string[] | null>(keptScript);
      if (kept?.includes(text) || (await this.isStored(text))) {
        this.acknowledged.push(text);
        return;
      }
      await pause(60);
    }
  }

  /** Every process of the browser, at once. */
  async kill(): Promise<boolean> {
    if (!this.browser || this.isRepairing) return false;
    this.browser = null;
    killProfile(this.profile);
    return true;
  }

  /** Stays on the page until nothing waits in it any more. */
  async rest(milliseconds: number): Promise<void> {
    const deadline = Date.now() + milliseconds;
    await this.reopen();
    while (Date.now() < deadline) {
      const waiting = await this.waitingTexts().catch(() => null);
      if (waiting?.length === 0) return;
      await pause(500);
    }
  }

  async waitingTexts(): Promise<readonly string[]> {
    return (await this.driver().executeAsyncScript<string[] | null>(keptScript)) ?? [];
  }

  async close(): Promise<void> {
    await this.browser?.close().catch(() => undefined);
    killProfile(this.profile);
    rmSync(this.profile, { recursive: true, force: true });
  }

  private driver() {
    if (!this.browser) throw new Error("The browser is not open.");
    return this.browser.driver;
  }

  private async reopen(): Promise<void> {
    this.isRepairing = true;
    try {
      for (;;) {
        try {
          killProfile(this.profile);
          // A killed browser leaves these behind and would not start over them.
          for (const name of ["SingletonLock", "SingletonCookie", "SingletonSocket"]) {
            rmSync(join(this.profile, name), { force: true });
          }
          this.browser = await openBrowser(undefined, this.profile);
          this.isOpenShut = this.isStorageShut;
          if (this.isOpenShut) await shutStorage(this.browser);
          await this.browser.driver.get(`${this.address}${this.path}/measure`);
          await this.browser.driver.wait(
            async () =>
              (await this.driver().findElements(By.css("section[aria-label='Probe bar'] input[aria-label^='Reading']")))
                .length > 0,
            15_000,
          );
          return;
        } catch {
          await pause(700);
        }
      }
    } finally {
      this.isRepairing = false;
    }
  }
}

/** From the next page on no database of this browser opens: a private window, a full disk, a damaged profile. */
async function shutStorage({ driver }: Browser): Promise<void> {
  const tools = devTools(driver);
  const source = 'IDBFactory.prototype.open = () => { throw new DOMException("shut", "UnknownError"); };';
  await tools.sendDevToolsCommand("Page.addScriptToEvaluateOnNewDocument", { source });
}

function killProfile(profile: string): void {
  try {
    execFileSync("pkill", ["-KILL", "-f", `user-data-dir=${profile}`], { stdio: "ignore" });
  } catch {
    // None was running.
  }
}

/** One capacitor on a rail: something to put the probes on. */
async function makeBoard(address: string): Promise<string> {
  const [jobId, netId, positionId, partId] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()];
  const post = async (path: string, body: object) => {
    const answer = await fetch(`${address}${path}`, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
  };
  const device = { deviceKind: "monitor", deviceMaker: null, deviceModel: null, complaint: null, personId: null };
  await post("/api/jobs", { id: jobId, ...device });
  await post(`/api/jobs/${jobId}/board-edits`, {
    id: randomUUID(),
    changes: [
      boardInsert("net", netId, {
        ...{ name: "12 V", section: "output", nominalVolts: 12, fullLoadAmps: null, toleranceRatio: null },
        ...{ rippleLimitVolts: null, network: null, converter: null },
      }),
      boardInsert("position", positionId, {
        ...{ designator: "C1", kind: "electrolytic", netId, xMetres: 0.02, yMetres: 0.02, outlineWidthMetres: null },
        ...{ outlineDepthMetres: null, outlineHeightMetres: null, markedOhms: null, pitchMetres: null },
        ...{ polarityMark: null, boardNegativeDegrees: null, fixing: null, heatSource: null },
      }),
      boardInsert("fittedPart", partId, {
        ...{
          positionId,
          capacitanceFarads: 1e-3,
          ratedVolts: 16,
          temperatureClassCelsius: 105,
          capacitorClass: "lowz",
        },
        ...{ diameterMetres: 0.01, heightMetres: 0.02, stripeDegrees: null, datasheetEsrOhms: null },
        ...{ toleranceRatio: null, series: null },
      }),
    ],
  });
  return `/jobs/${jobId}`;
}
