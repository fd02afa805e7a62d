import type { JobDetail } from "@pale-cap/contract";
import { Key, type WebElement } from "selenium-webdriver";
import { describe, expect, it } from "vitest";
import { benchShop } from "./benchShop";
import { openBrowser } from "./browser";
import { Page } from "./page";
import { practiceJob } from "./practiceJob";

const shop = benchShop();

/** Reaches a control by the focus and sets it off with Enter: no pointer. */
const enter = async (name: string, on = shop.page) => {
  const control = await on.control(name);
  await control.sendKeys(Key.ENTER);
};
const complaintIs = (words: string) =>
  shop.page.until(`read "${words}"`, async () =>
    ((await (await shop.page.field("What it does wrong")).getAttribute("value")) ?? "").includes(words),
  );
const jobOnScreen = async (on = shop.page) => new URL(await on.driver.getCurrentUrl()).pathname.split("/")[2] as string;
const readingsOf = async (jobId: string) => (await shop.api.load<JobDetail>(`/jobs/${jobId}`)).readings;
const goTo = async (at: string) => (await shop.page.field("Go to a job, lens or part")).sendKeys(at, Key.ENTER);
/** The key of the hands works from anywhere, and while a number is typed. */
const openHands = async (on = shop.page) => {
  await on.see("that is yours to say");
  await on.chord(Key.ALT, "h");
  await on.see("At a part");
};
/** The last word on a part, by the keys of its row of five. */
async function say(at: string, step: number): Promise<void> {
  const chosen = () =>
    shop.browser.driver.executeScript<WebElement>(
      "return document.querySelector(arguments[0])",
      `[aria-label='${at} is'] input:checked`,
    );
  const stepNow = async () => Number(await (await chosen()).getAttribute("value"));
  while ((await stepNow()) !== step) {
    const way = (await stepNow()) < step ? Key.ARROW_RIGHT : Key.ARROW_LEFT;
    await (await chosen()).sendKeys(way);
  }
}

/** The bar goes to a part by its name, its probes follow, and what they read is logged. */
async function measure(at: string): Promise<void> {
  await goTo(at);
  await shop.page.until(`have the bar at ${at}`, async () => (await barText()).includes(at));
  await (await shop.page.field("Reading")).sendKeys("p");
  await shop.page.until(`have a live value of ${at}`, async () => /live|reads open/.test(await barText()));
  const jobId = await jobOnScreen();
  const before = (await readingsOf(jobId)).length;
  await (await shop.page.field("Reading")).sendKeys("/");
  await shop.page.until(`have ${at} kept`, async () => (await readingsOf(jobId)).length > before);
}
const barText = () =>
  shop.browser.driver.executeScript<string>(
    `const bar = document.querySelector("section[aria-label='Probe bar']");
     return (bar?.textContent ?? "") + (bar?.querySelector("input")?.getAttribute("aria-label") ?? "");`,
  );

describe("a learner", () => {
  it("solves a supply by keyboard, from its story to the debrief and the score", async () => {
    await shop.page.open("/practice");
    await shop.page.see("Router that restarts");
    await enter("Begin: Router that restarts");
    await shop.page.see("Intake of");
    await complaintIs("It restarts several times a day");
    await shop.page.see("Practice");
    const jobId = await jobOnScreen();
    await shop.page.chord(Key.ALT, "4");
    await shop.page.see("that is yours to say");
    await measure("C5");
    await measure("C8");
    await openHands();
    await shop.page.choose("Part under the hands", "C5");
    await enter("Look");
    await shop.page.see("C5: top domed.");
    await enter("My last word");
    await shop.page.see("Your last word");
    // What is held otherwise than the record has it: an arrow at the step that stands there.
    for (const at of ["C5", "C6"]) await say(at, 4);
    for (const at of ["C1", "C8", "C9"]) await say(at, 0);
    await enter("That is my last word");
    await shop.page.see("Both capacitors of the 5 V, C5 and C6, have dried.");
    await shop.page.see("of 100");
    await shop.page.see("passed");
    await shop.page.see("The application's way");
    const { result } = await shop.api.load<{ result: { debrief: { score: { total: number; isPassed: boolean } } } }>(
      `/jobs/${jobId}/practice`,
    );
    expect(result.debrief.score.isPassed).toBe(true);
    await shop.page.open("/practice");
    await shop.page.see(`${Math.round(result.debrief.score.total)}, passed`);
  });

  it("kills a meter on a charged bulk, is told what a hand would have got, and takes another", async () => {
    const { jobId, act, state } = await practiceJob(shop.api, "drain-first");
    await act("mains", { isOn: true, lampWatts: 60, isIsolated: true });
    await act("mains", { isOn: false });
    await shop.page.open(`/jobs/${jobId}/measure`);
    await shop.page.see("that is yours to say");
    await goTo("C3");
    await shop.page.until("have the bar at C3", async () => (await barText()).includes("C3"));
    await shop.page.choose("More quantities", "Ohms");
    await (await shop.page.field("Reading")).sendKeys("p");
    await shop.page.until("kill it", async () => (await state()).events.some((one) => one.code === "meter_killed"));
    await openHands();
    await shop.page.see("The meter is dead.");
    await shop.page.see("Volts come first, always.");
    await shop.page.see("can stop a heart");
    await enter("Take a new meter");
    await shop.page.until("have another", async () => (await state()).state?.isMeterDead === false);
    expect(await readingsOf(jobId)).toEqual([]);
    expect((await state()).acts.at(-1)?.minutes).toBe(15);
  });

  it("takes a hint in three steps, each at its price, and hears what the teacher would have read", async () => {
    const { jobId, readEsr, end } = await practiceJob(shop.api, "masked-bank");
    await readEsr("C18", 0.06, "in_circuit");
    await shop.page.open(`/jobs/${jobId}/measure`);
    await shop.page.see("that is yours to say");
    await openHands();
    await enter("Where to look (costs 2)");
    await shop.page.see("Look at ");
    await enter("Which test (costs 4)");
    await shop.page.see("Read ");
    await enter("Why (costs 6)");
    await shop.page.see("It is expected to tell");
    await enter("What would you have done?");
    await shop.page.see("Instead of your last reading");
    await end({ C12: 0.9 });
    await shop.page.open(`/practice/${jobId}`);
    await shop.page.see("−6 hint: why");
    await shop.page.see("−2 hint: where to look");
  });
});

describe("two learners at once", () => {
  it("do not see each other's supply", async () => {
    const [first, second] = [
      await practiceJob(shop.api, "rectifier-short"),
      await practiceJob(shop.api, "rectifier-short"),
    ];
    await shop.page.open(`/jobs/${first.jobId}/measure`);
    await openHands();
    await shop.page.choose("Part under the hands", "D8");
    await enter("Renew it");
    await shop.page.see("D8: done.");
    await enter("Switch on");
    await shop.page.see("The lamp flashes and");
    await enter("Listen");
    await shop.page.see("Nothing to hear.");
    const other = await openBrowser();
    const otherPage = new Page(other.driver, shop.server.address);
    try {
      await otherPage.open(`/jobs/${second.jobId}/measure`);
      await openHands(otherPage);
      await otherPage.see("sits in the board");
      await enter("Switch on", otherPage);
      await otherPage.see("The lamp");
      await enter("Listen", otherPage);
      await otherPage.see("It ticks");
      expect((await second.state()).acts.some((one) => one.act?.kind === "renew")).toBe(false);
      expect((await first.state()).state?.isMainsOn).toBe(true);
    } finally {
      await other.close();
    }
  });
});

describe("a lesson", () => {
  it("answers to its knob and to its question, and leads to its supply", async () => {
    await shop.page.open("/practice/lessons");
    await shop.page.click("A good voltage without load proves nothing");
    await shop.page.see("273 V");
    const knob = await shop.browser.driver.executeScript<WebElement>("return document.querySelector('[role=slider]')");
    await knob.sendKeys(Key.HOME);
    await shop.page.seeNot("273 V");
    await (await shop.page.field("Load it with what its label says")).sendKeys(Key.SPACE);
    await shop.page.see("Right.");
    await shop.page.click("Try it on a supply");
    await shop.page.see("Intake of");
    await complaintIs("19 V at the plug");
  });
});
