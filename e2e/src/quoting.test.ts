import { randomUUID } from "node:crypto";
import type { JobDetail } from "@pale-cap/contract";
import { describe, expect, it } from "vitest";
import { emptyShop } from "./shopApi";

const shop = emptyShop();

describe("a quote", () => {
  it("is kept version by version, answered up to a limit, and work beyond the answer is shown as such", async () => {
    const { page, api } = shop;
    const jobId = randomUUID();
    const device = { deviceKind: "monitor", deviceMaker: "Brambix", deviceModel: "Quoted", complaint: "dead" };
    await api.send("/jobs", { id: jobId, ...device, personId: null });
    await page.open(`/jobs/${jobId}/intake?page=sum`);
    // An hour, two capacitors at the usual price with markup, small parts, and tax on it all.
    await page.see("Labour, 60 min");
    await page.see("Nothing was quoted yet.");
    await page.click("Quote €");
    await page.see("Version 1 of");
    await page.see("Not answered yet: nothing is agreed.");
    await page.switchTo("up to");
    await page.fill("Limit the customer set", "90\t");
    await page.fill("Who answered", "Ms Orell");
    await page.click("Log the answer");
    await page.see("Agreed, up to €90.00. Ms Orell, by phone");
    await page.seeNot("ask again");
    await page.fill("Minutes", "90\t");
    await page.click("Save intake");
    await page.see("more than was agreed: ask again before going on.");
    await page.click("Quote anew");
    await page.see("The newer version is not answered: what was agreed before still holds, up to €90.00.");
    // What the page shows already may still be on its way.
    await page.until("have both versions stored", async () => {
      const { quotes } = await api.load<JobDetail>(`/jobs/${jobId}`);
      return quotes.length === 2;
    });
    const { quotes, quoteAnswers } = await api.load<JobDetail>(`/jobs/${jobId}`);
    expect(quotes.map((one) => one.lines[0]?.quantity)).toEqual([60, 90]);
    expect(quoteAnswers).toMatchObject([{ word: "up_to", limitMinor: 9000, byWhom: "Ms Orell", way: "phone" }]);
    await page.open(`/jobs/${jobId}/report?for=record`);
    await page.see("Quote and consent");
    await page.see("Version 2, ");
    await page.see("what was agreed before still holds, up to €90.00");
    await page.open(`/jobs/${jobId}/hand-over`);
    await page.see("ask again before going on.");
  });
});
