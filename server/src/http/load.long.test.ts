import type { Server } from "node:http";
import type { AddressInfo } from "node:net";
import { type JobDetail, ruleVersion, type ToldRuleChange } from "@pale-cap/contract";
import { netValues } from "@pale-cap/core/testing";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeJob, makePart, newId, openTestApp, readingBody, type TestApp, testClock } from "../testing/testApp";

let test: TestApp;
let server: Server;
let address: string;
beforeAll(async () => {
  test = await openTestApp();
  server = test.app.listen(0, "127.0.0.1");
  await new Promise((resolve) => server.once("listening", resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
  server.close();
  await test.close();
});

const post = async (path: string, body: object) => {
  const answer = await fetch(`${address}${path}`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(body),
  });
  return answer.status;
};
const many = 40;
const times = <T>(work: (n: number) => Promise<T>) => Promise.all(Array.from({ length: many }, (_, n) => work(n)));

/** Statuses of forty at once, while somebody asks for health all the time. */
async function underLoad(work: (n: number) => Promise<number>) {
  let isOver = false;
  let healthy = 0;
  const asking = (async () => {
    while (!isOver) {
      const answer = await fetch(`${address}/api/ready`);
      expect(answer.status).toBe(200);
      healthy += 1;
    }
  })();
  const statuses = await times(work);
  isOver = true;
  await asking;
  return { statuses, healthy };
}

describe("forty writes at once", () => {
  it("of one rule: one wins, the others are told, nobody fails", async () => {
    const history = (await (await fetch(`${address}/api/house-rules/changes`)).json()) as ToldRuleChange[];
    const version = ruleVersion(history, "shop.orderDays");
    const common = { key: "shop.orderDays", reason: null, changedAt: "2026-11-23T12:00:00Z", version };
    const { statuses, healthy } = await underLoad((n) =>
      post("/api/house-rules/changes", { ...common, id: newId(), value: n + 1, clockId: testClock, personId: null }),
    );
    expect(statuses.filter((one) => one === 201)).toHaveLength(1);
    expect(statuses.filter((one) => one === 409)).toHaveLength(many - 1);
    expect(healthy).toBeGreaterThan(0);
  });

  it("of one job's readings: all are stored, in the order of their turns", async () => {
    const jobId = await makeJob(test.app);
    const part = await makePart(test.app, jobId);
    const { statuses } = await underLoad(() => post(`/api/jobs/${jobId}/readings`, readingBody(part)));
    expect(new Set(statuses)).toEqual(new Set([201]));
    const detail = (await (await fetch(`${address}/api/jobs/${jobId}`)).json()) as JobDetail;
    expect(detail.readings).toHaveLength(many);
  });

  it("of hand-overs, units and new jobs on jobs of their own: none fails", async () => {
    const jobs = await times(() => makeJob(test.app));
    const closing = { handedOverAt: "2026-11-23T12:00:00Z", warrantyMonths: 6, spentMinutes: null, note: null };
    const closed = await underLoad((n) =>
      post(`/api/jobs/${jobs[n]}/hand-over`, {
        ...{ ...closing, id: newId(), version: 1, isReopened: false, clockId: testClock, personId: null },
      }),
    );
    expect(new Set(closed.statuses)).toEqual(new Set([200]));
    const units = await underLoad((n) =>
      post(`/api/jobs/${jobs[n % 4]}/family/units`, {
        ...{ id: newId(), familyName: "many", units: [{ id: newId(), serial: null }] },
      }),
    );
    expect(new Set(units.statuses)).toEqual(new Set([201]));
  });

  it("that touch the same rows in opposite order: none fails", async () => {
    const jobId = await makeJob(test.app);
    const [one, two] = [newId(), newId()];
    const insert = (id: string, name: string) => ({
      ...{ table: "net", operation: "insert", id, version: null, values: { ...netValues, name } },
    });
    const edit = (changes: readonly object[]) => post(`/api/jobs/${jobId}/board-edits`, { id: newId(), changes });
    expect(await edit([insert(one, "5 V"), insert(two, "12 V")])).toBe(200);
    const update = (id: string, n: number) => ({
      ...{ table: "net", operation: "update", id, version: 1, values: { ...netValues, name: `n${n}` } },
    });
    const { statuses } = await underLoad((n) =>
      edit(n % 2 ? [update(one, n), update(two, n)] : [update(two, n), update(one, n)]),
    );
    expect(statuses.filter((status) => status === 200)).toHaveLength(1);
    expect(statuses.filter((status) => status === 409)).toHaveLength(many - 1);
  });
});
