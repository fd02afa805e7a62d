import { randomUUID } from "node:crypto";
import { boardInsert, netValues, partValues, positionValues } from "@pale-cap/core/testing";
import { Key } from "selenium-webdriver";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Browser, openOwnBrowser } from "./browser";
import { Page } from "./page";
import { openServer, type ServerUnderTest } from "./server";
import { asPage } from "./shopDoor";

/** A shop on two server processes: two people, each with a browser of their own at one of the two. */
let first: ServerUnderTest;
let second: ServerUnderTest;
let lead: Page;
let mira: Page;
const browsers: Browser[] = [];
let jobPath: string;

beforeAll(async () => {
  first = await openServer("none", undefined, { mode: "shop" });
  second = await openServer("none", undefined, { mode: "shop", beside: first });
  for (const { address } of [first, second]) {
    const browser = await openOwnBrowser();
    browsers.push(browser);
    const page = new Page(browser.driver, address);
    if (address === first.address) lead = page;
    else mira = page;
  }
});
afterAll(async () => {
  for (const browser of browsers) await browser.close();
  await second?.close();
  await first?.close();
});

const takePin = async (page: Page, name: string, pin: string) => {
  await page.click(name);
  await page.press(...pin);
  await page.click("Take over");
};

describe("a shop that begins", () => {
  it("makes the account of whoever leads it by the link on the console, once", async () => {
    await lead.open("/");
    await lead.see("Nobody has an account here yet");
    const link = /\/welcome#\S+/.exec(first.said())?.[0] as string;
    await lead.open(link);
    await lead.fill("Your name", "Maret Olm");
    await lead.fill("Name you sign in with", "maret");
    await lead.fill("Password", "short one");
    await lead.click("Make the account");
    await lead.see("needs at least 10 characters");
    await lead.fill("Password", "winding window 9");
    await lead.click("Make the account");
    await lead.seeNamed("Maret Olm, at no bench");
    await mira.open(link);
    await mira.see("This link was used, or its time is over");
  });

  it("lets somebody else in by a link that the lead gives them, as what the lead says", async () => {
    await lead.open("/people/accounts");
    await lead.fill("Name, as it stands on papers", "Mira Tolland");
    await lead.fill("Signs in as", "mira");
    await lead.choose("Role", "trainee");
    await lead.click("Make the account");
    await lead.see("For Mira Tolland, once");
    const link = /\/welcome#\S+/.exec(await lead.text())?.[0] as string;
    await mira.open(link);
    await mira.see("Welcome, Mira Tolland");
    await mira.fill("Password", "copper strip 44");
    await mira.click("Set it and come in");
    await mira.seeNamed("Mira Tolland, at no bench");
    // What is not hers is not offered, and refused where somebody asks all the same.
    await mira.open("/people");
    await mira.see("Password and PIN");
    await mira.seeNot("Accounts");
    expect(await asPage<{ code: string }>(mira, "/accounts", null)).toMatchObject({ code: "not_allowed" });
    await mira.open("/house-rules");
    await mira.see("House rules are changed by a technician or the lead.");
  });
});

describe("two people at two benches on one job", () => {
  it("see that the other is there", async () => {
    const jobId = randomUUID();
    jobPath = `/jobs/${jobId}`;
    const device = { deviceKind: "monitor", deviceMaker: "Brambix", deviceModel: "Halden 24", complaint: "dead" };
    await asPage(lead, "/jobs", { id: jobId, ...device, personId: null });
    const [netId, positionId] = [randomUUID(), randomUUID()];
    const changes = [
      boardInsert("net", netId, netValues),
      boardInsert("position", positionId, { ...positionValues, designator: "C1", netId }),
      boardInsert("fittedPart", randomUUID(), { ...partValues, positionId }),
    ];
    await asPage(lead, `${jobPath}/board-edits`, { id: randomUUID(), changes });
    await asPage(lead, "/benches", { id: randomUUID(), name: "By the door", hasSimulated: false });
    for (const [page, bench] of [
      [lead, "Bench 1"],
      [mira, "By the door"],
    ] as const) {
      await page.open("/people");
      await page.until(`work at ${bench}`, () =>
        page.driver.executeScript<boolean>(
          `const section = document.querySelector("section[aria-label='" + arguments[0] + "']");
           const button = section && [...section.querySelectorAll("button")].find((one) => one.textContent === "I work here");
           button?.click();
           return !!section?.textContent.includes("you are here");`,
          bench,
        ),
      );
      await page.open(`${jobPath}/measure`);
      await page.seeNamed("Reading, ");
    }
    await lead.seeNamed("Also on this job: Mira Tolland, By the door");
    await mira.seeNamed("Also on this job: Maret Olm, Bench 1");
    // It was opened at the first of the two: there it lies.
    const places = await asPage<{ name: string; jobs: { id: string }[] }[]>(lead, "/bench-places", null);
    expect(places.find((one) => one.name === "Bench 1")?.jobs.map((one) => one.id)).toEqual([jobId]);
  });

  it("see each other's readings and edits of the board without asking, whichever server took them", async () => {
    await lead.press("esr 305m", Key.ENTER);
    await Promise.all([lead.see("305 mΩ"), mira.see("305 mΩ")]);
    const detail = await asPage<{ positions: { id: string; version: number }[] }>(mira, jobPath, null);
    const { id, version } = detail.positions[0] as { id: string; version: number };
    const fields = { ...positionValues, designator: "C101" };
    const edit = { table: "position", operation: "update", id, version, values: fields };
    const netId = (detail as unknown as { nets: { id: string }[] }).nets[0]?.id;
    const answer = await asPage<{ positions?: object[] }>(mira, `${jobPath}/board-edits`, {
      id: randomUUID(),
      changes: [{ ...edit, values: { ...fields, netId } }],
    });
    expect(answer.positions).toBeDefined();
    await lead.see("C101");
  });

  it("go on when the server of one is killed, and its page hears again when it is back", async () => {
    await second.kill();
    await lead.press("esr 306m", Key.ENTER);
    await lead.see("306 mΩ");
    await second.start();
    await mira.see("306 mΩ");
    await lead.press("esr 307m", Key.ENTER);
    await mira.see("307 mΩ");
  });
});

describe("a bench that changes hands", () => {
  it("is taken over by PIN, left, and locked after wrong ones", async () => {
    await lead.open("/people/me");
    await lead.fill("Your password", "winding window 9");
    await lead.fill("PIN", "2580");
    await lead.click("Set the PIN");
    await lead.see("The PIN holds from now on.");
    await mira.open("/people/me");
    await mira.fill("Your password", "copper strip 44");
    await mira.fill("PIN", "4711");
    await mira.click("Set the PIN");
    await mira.see("The PIN holds from now on.");

    await mira.click("Mira Tolland, By the door");
    await mira.click("Somebody else takes over");
    await takePin(mira, "Maret Olm", "2580");
    await mira.seeNamed("Maret Olm, By the door");
    // By a PIN a lead is not let at the accounts.
    expect(await asPage<{ code: string }>(mira, "/accounts", null)).toMatchObject({ code: "not_allowed" });

    await mira.click("Maret Olm, By the door");
    await mira.click("Leave the bench");
    await mira.see("Nobody is at this bench");
    expect(await asPage<{ code: string }>(mira, "/bench", null)).toMatchObject({ code: "not_signed_in" });
    for (const [pin, words] of [
      ["0000", "The PIN is wrong."],
      ["0001", "The PIN is wrong."],
      ["0002", "Too many wrong tries: the PIN is locked for"],
    ] as const) {
      await takePin(mira, "Mira Tolland", pin);
      await mira.see(words);
    }
    // Neither the right one nor the other server helps.
    await takePin(mira, "Mira Tolland", "4711");
    await mira.see("Too many wrong tries: the PIN is locked for");
    await takePin(mira, "Maret Olm", "2580");
    await mira.seeNamed("Maret Olm, By the door");
  });

  it("stands in the audit of the lead", async () => {
    await lead.open("/people/audit");
    await lead.see("was refused at signing in");
    await lead.fill("Search", "bench_taken_over");
    await lead.see("took over the bench by PIN");
    await lead.seeNot("was refused at signing in");
  });
});
