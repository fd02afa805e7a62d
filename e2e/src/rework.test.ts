import { randomUUID } from "node:crypto";
import type { CataloguePage, JobDetail, PlanRow, StockItem } from "@pale-cap/contract";
import { noOverrides } from "@pale-cap/core";
import { boardInsert, netValues, partValues, positionValues } from "@pale-cap/core/testing";
import { Key } from "selenium-webdriver";
import { describe, expect, it } from "vitest";
import { cataloguePart, emptyShop } from "./shopApi";

const shop = emptyShop();

/** Eighteen capacitors, a transistor at its sink and a fuse; the capacitors are chosen. */
async function makeJob(): Promise<string> {
  const id = randomUUID();
  const device = { deviceKind: "monitor", deviceMaker: "Brambix", deviceModel: "Twenty", complaint: "dead" };
  await shop.api.send("/jobs", { id, ...device, personId: null });
  const netId = randomUUID();
  const cans = Array.from({ length: 18 }, (_, n) => ({ id: randomUUID(), designator: `C${n + 1}`, n }));
  const others = [
    { id: randomUUID(), designator: "Q1", kind: "transistor", heatSource: "the sink" },
    { id: randomUUID(), designator: "F1", kind: "fuse" },
  ];
  const changes = [
    boardInsert("net", netId, netValues),
    ...cans.flatMap(({ id: positionId, designator, n }) => [
      boardInsert("position", positionId, {
        ...positionValues,
        ...{ designator, netId, xMetres: 0.015 + 0.015 * (n % 6), yMetres: 0.02 + 0.02 * Math.floor(n / 6) },
        boardNegativeDegrees: 90,
      }),
      boardInsert("fittedPart", randomUUID(), { ...partValues, positionId, stripeDegrees: 90 }),
    ]),
    ...others.map(({ id: positionId, ...more }, n) =>
      boardInsert("position", positionId, {
        ...positionValues,
        ...{ xMetres: 0.02 + 0.03 * n, yMetres: 0.08, outlineWidthMetres: 0.01, outlineDepthMetres: 0.005 },
        ...more,
      }),
    ),
  ];
  await shop.api.send(`/jobs/${id}/board-edits`, { id: randomUUID(), changes });
  await shop.api.takeIn([cataloguePart("R-102")]);
  const { rows } = await shop.api.load<CataloguePage>("/catalogue?text=R-102&offset=0");
  for (const { id: positionId } of cans) {
    const body = { writeId: randomUUID(), version: 0, cataloguePartId: rows[0]?.id, overrides: noOverrides };
    await shop.api.send<PlanRow>(`/jobs/${id}/plans/${positionId}`, body, "PUT");
  }
  return id;
}

describe("a board of twenty parts", () => {
  it("is reworked with a lifted pad mended, every kind of part, and one in for now left open", async () => {
    const jobId = await makeJob();
    const detail = () => shop.api.load<JobDetail>(`/jobs/${jobId}`);
    await shop.page.open(`/jobs/${jobId}/rework`);
    await shop.page.see("Order of work: C1, C2");
    await shop.page.switchTo("Old part out, all of Kelpin Tern");
    await shop.page.until("have them out", async () => (await detail()).ticks.length === 18);

    // A pad comes off with one of them: it is open until its continuity is read.
    await shop.page.click("C1");
    await shop.page.click("pad lifted");
    await shop.page.see("pad lifted; not mended");
    await shop.page.choose("C1: bridged by", "wire");
    await shop.page.see("mended, continuity not read");
    await shop.page.fill("C1: continuity across it", "20m");
    await shop.page.press(Key.ENTER);
    await shop.page.see("continuity read, 20 mΩ");

    await shop.page.switchTo("New part in, all of Kelpin Tern");
    await shop.page.until(
      "have them in",
      async () => (await detail()).fittedParts.filter((one) => one.origin === "replacement").length === 18,
    );
    await shop.page.click("C2");
    await shop.page.switchTo("for now");

    // What came out of a third goes into a drawer, as salvaged.
    await shop.page.click("C3");
    await shop.page.switchTo("a drawer");
    await shop.page.fill("C3: into which drawer", "S1");
    await shop.page.click("Put it in");
    await shop.page.see("Lies in drawer S1, as salvaged.");
    const heaps = await shop.api.load<StockItem[]>("/stock");
    expect(heaps.filter((one) => one.origin === "salvaged").map((one) => [one.drawer, one.count])).toEqual([["S1", 1]]);

    // The fuse has no list and no can: the same type goes in, and it is a part like any other.
    await shop.page.open(`/jobs/${jobId}/rework`);
    await shop.page.click("F1");
    await shop.page.click("The same type");
    await shop.page.switchTo("F1: Old part out");
    await shop.page.switchTo("F1: New part in");
    await shop.page.until("have the fuse in", async () =>
      (await detail()).fittedParts.some((one) => one.series === "the same type" && one.fittedAt !== null),
    );

    await shop.page.open(`/jobs/${jobId}/hand-over`);
    await shop.page.see("C2 is in for now only.");
    await shop.page.seeNot("the board was hurt there");
    expect((await detail()).acts.map((one) => one.kind)).toEqual([
      ...["damage", "mended", "mend_read", "temporary_part", "old_part_to", "old_part_to"],
    ]);
    await shop.page.open(`/jobs/${jobId}/rework-list`);
    await shop.page.see("order of work");
  });
});
