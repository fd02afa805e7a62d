import { randomUUID } from "node:crypto";
import { boardInsert, netValues, partValues, positionValues } from "@pale-cap/core/testing";
import { Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, openOwnBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";
import { asPage, enterAsFirstLead } from "./shopDoor";

let server: ServerUnderTest;
let browser: Browser;
let page: Page;
const jobId = randomUUID();
const measure = `/jobs/${jobId}/measure`;
const owner = "Osric Vandeleer";

beforeAll(async () => {
  server = await openServer("none", undefined, { mode: "shop" });
  browser = await openOwnBrowser();
  page = new Page(browser.driver, server.address);
  await enterAsFirstLead(page, server.said());
});
afterAll(async () => {
  await browser?.close();
  await server?.close();
});

const inPage = <T>(script: string, ...more: unknown[]) => browser.driver.executeAsyncScript<T>(script, ...more);
const send = (path: string, body: object) => asPage(page, path, body);
/** Everything that this browser keeps of answers, as text. */
const copies = () =>
  inPage<string>(
    `const done = arguments[arguments.length - 1];
     (async () => {
     // Opening what is not there would make it, and without its shelf.
     const isThere = (await indexedDB.databases()).some((one) => one.name === "pale-cap-offline");
     if (!isThere) { done(""); return; }
     const opening = indexedDB.open("pale-cap-offline");
     opening.onsuccess = () => {
       const shelf = opening.result;
       if (!shelf.objectStoreNames.contains("copies")) { shelf.close(); done(""); return; }
       const all = shelf.transaction("copies").objectStore("copies").getAll();
       all.onsuccess = () => { shelf.close(); done(JSON.stringify(all.result)); };
     };
     })();`,
  );
const readings = async () => {
  const answer = await inPage<{ readings?: { rawText: string }[] }>(
    `fetch("/api/jobs/" + arguments[0]).then((one) => one.json()).then(arguments[1], () => arguments[1]({}))`,
    jobId,
  );
  return (answer.readings ?? []).map((one) => one.rawText).filter((text) => text?.startsWith("esr 41"));
};

describe("a page while the server is away", () => {
  it("opens anew with the job as it was, takes three readings and delivers each once when the server is back", async () => {
    const device = { deviceKind: "monitor", deviceMaker: "Brambix", deviceModel: "Halden 24", complaint: "dead" };
    await send("/jobs", { id: jobId, ...device, personId: null });
    const [netId, positionId] = [randomUUID(), randomUUID()];
    const changes = [
      boardInsert("net", netId, netValues),
      boardInsert("position", positionId, { ...positionValues, designator: "C1", netId }),
      boardInsert("fittedPart", randomUUID(), { ...partValues, positionId }),
    ];
    await send(`/jobs/${jobId}/board-edits`, { id: randomUUID(), changes });
    await page.open(`/jobs/${jobId}/intake`);
    await page.fill("Owner", owner);
    await page.click("Save intake");
    await page.seeNot("not saved yet");
    await page.open(measure);
    await page.seeNamed("Reading, ");
    await page.until("have the client's own files kept", () =>
      inPage<boolean>("navigator.serviceWorker.ready.then(() => arguments[0](true))"),
    );
    await page.press("esr 410m", Key.ENTER);
    await page.until("have the reading stored", async () => (await readings()).length === 1);
    await page.until("have a copy of the job with it", async () => (await copies()).includes("esr 410m"));

    await server.kill();
    await browser.driver.navigate().refresh();
    await page.seeNamed("Reading, ");
    await page.see("You see a copy of");
    await page.see("410 mΩ");
    for (const text of ["esr 411m", "esr 412m", "esr 413m"]) await page.press(text, "/");
    await page.see("3 entries are not stored yet: the server does not answer. They are kept on this computer");
    // An address that was not open yet has the shell, and says what it lacks.
    await page.open("/casebook");
    await page.see("Casebook");
    await page.open(measure);
    await page.see("413 mΩ");

    await server.start();
    await page.seeNot("not stored yet");
    await page.seeNot("You see a copy of");
    await page.until("have each stored once", async () => {
      const all = await readings();
      return all.length === 4 && new Set(all).size === 4;
    });
    expect(await readings()).toEqual(["esr 410m", "esr 411m", "esr 412m", "esr 413m"]);
  });

  it("keeps no customer, and nothing of the jobs once somebody signed out", async () => {
    await page.open(`/jobs/${jobId}/intake`);
    await page.until("see the owner", async () => (await (await page.field("Owner")).getAttribute("value")) === owner);
    await page.until("have copies", async () => (await copies()).includes("Halden 24"));
    expect(await copies()).not.toContain(owner);
    await page.click("Maret Olm, at no bench");
    await page.click("Sign out");
    await page.see("Name you sign in with");
    expect(await copies()).not.toContain("Halden 24");
    await server.kill();
    await browser.driver.navigate().refresh();
    await page.see("Name you sign in with");
    await page.seeNot("Halden 24");
    await server.start();
  });
});
