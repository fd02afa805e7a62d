import request from "supertest";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type MadePart, makeJob, makePart, newId, openTestApp, type TestApp, testClock } from "../testing/testApp";
import { auditedActs } from "./audit";

let test: TestApp;
let jobId: string;
let part: MadePart;
const personId = "00000000-0000-4000-8000-000000000007";
beforeAll(async () => {
  test = await openTestApp();
  await test.inScope(({ rows }) => rows.people.insert({ id: personId, name: "Ines" }));
});
afterAll(() => test.close());
beforeEach(async () => {
  jobId = await makeJob(test.app);
  part = await makePart(test.app, jobId);
});

const at = "2026-11-23T12:00:00Z";
const common = () => ({ id: newId(), clockId: testClock, personId });
const send = (path: string, body: object) =>
  request(test.app)
    .post(path)
    .send({ ...common(), ...body })
    .expect(201);

describe("the audit", () => {
  it.each([
    [
      "verdict_overruled",
      () =>
        send(`/api/jobs/${jobId}/overrules`, { fittedPartId: part.partId, verdict: "sound", reason: "swapped", at }),
      { details: { verdict: "sound" } },
    ],
    [
      "power_gate_overruled",
      () =>
        send(`/api/jobs/${jobId}/power-events`, {
          ...{ kind: "gate_overruled", note: "limited d.c. feed", resistanceOhms: null, hasShort: null, at },
        }),
      { details: {} },
    ],
    [
      "open_point_accepted",
      () => send(`/api/jobs/${jobId}/acceptances`, { key: "charge", reason: "no mains side", acceptedAt: at }),
      { subject: "charge", details: {} },
    ],
  ] as const)("writes down %s: who, what, why", async (act, work, told) => {
    await work();
    const rows = await test.inScope((scope) => scope.rows.auditEvents.all({ jobId }, [["at", "ASC"]]));
    expect(rows).toMatchObject([{ act, personId, role: "everyone", ...told }]);
    expect(auditedActs).toContain(act);
  });

  it("writes down what left in a file, once however often it is told", async () => {
    const body = { id: newId(), what: "positions_csv", personId };
    await request(test.app).post(`/api/jobs/${jobId}/exports`).send(body).expect(201);
    await request(test.app).post(`/api/jobs/${jobId}/exports`).send(body).expect(200);
    const rows = await test.inScope((scope) => scope.rows.auditEvents.all({ jobId }, [["at", "ASC"]]));
    expect(rows).toMatchObject([{ act: "exported", subject: "positions_csv" }]);
  });

  it("keeps silent over an ordinary look at power, and over what was refused", async () => {
    await send(`/api/jobs/${jobId}/power-events`, {
      ...{ kind: "fuse_blown", note: null, resistanceOhms: null, hasShort: null, at },
    });
    await request(test.app)
      .post(`/api/jobs/${jobId}/acceptances`)
      .send({ ...common(), key: "charge", reason: "", acceptedAt: at })
      .expect(422);
    expect(await test.inScope((scope) => scope.rows.auditEvents.all({ jobId }, [["at", "ASC"]]))).toEqual([]);
  });
});
