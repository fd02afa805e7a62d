import { clockHeaders } from "@pale-cap/contract";
import express from "express";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { object, string } from "yup";
import type { AppContext } from "../appContext";
import { identifyEveryone } from "../people/sessions";
import { everyone, setWho } from "../people/who";
import { holdingJob } from "../records/holdingJob";
import { makeJob, newId, openTestApp, type TestApp } from "../testing/testApp";
import { problemHandler } from "./problems";
import { live, mount, read, requireRight, type WriteRoute, write } from "./route";
import { Turns } from "./turns";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const now = new Date("2026-11-23T12:00:00.000Z");
const poke = vi.fn();
const take = vi.spyOn(Turns.prototype, "take");
const schema = object({ id: string().uuid().required() });

/** An application with one route of its own on the test's database. */
function serving(routes: Parameters<typeof mount>[2]) {
  const app = express().use(express.json(), identifyEveryone);
  const { database, instruments } = test;
  const context = { database, instruments, turns: new Turns(), heavy: { poke }, now: () => now };
  mount(app, context as unknown as AppContext, routes);
  return app.use(problemHandler);
}
const written = vi.fn(async () => {});
const writing = (more: Partial<WriteRoute<{ id: string }, undefined, unknown>> = {}) =>
  write({
    ...{ method: "post", path: "/notes/:jobId", right: "measure", kind: "note", schema, write: written },
    ...{ answer: async () => ({ kept: true }), ...more },
  });

describe("a write", () => {
  it("is done once, answers 201 where it makes something, and wakes what is folded behind it", async () => {
    const app = serving([writing({ creates: true })]);
    const [path, body] = [`/notes/${await makeJob(test.app)}`, { id: newId() }];
    written.mockClear();
    poke.mockClear();
    const first = await request(app).post(path).send(body).expect(201);
    expect([first.body, first.headers[clockHeaders.serverNow]]).toEqual([{ kept: true }, String(now.getTime())]);
    await request(app).post(path).send(body).expect(200);
    expect([written.mock.calls.length, poke.mock.calls.length]).toEqual([1, 1]);
  });
  it("answers 200 where it changes something, 204 where there is nothing to say, and does what comes after", async () => {
    const path = `/notes/${await makeJob(test.app)}`;
    await request(serving([writing()]))
      .post(path)
      .send({ id: newId() })
      .expect(200);
    const after = vi.fn();
    const silent = writing({ answer: async () => undefined, after });
    const answer = await request(serving([silent]))
      .post(path)
      .send({ id: newId() })
      .expect(204);
    expect([answer.text, after.mock.calls.length]).toEqual(["", 1]);
  });
  it("waits in the line of its job, or of its own, or of its kind", async () => {
    const jobId = await makeJob(test.app);
    take.mockClear();
    await request(serving([writing()]))
      .post(`/notes/${jobId}`)
      .send({ id: newId() });
    const own = serving([writing({ lock: ({ body }) => `own ${body.id}` })]);
    const body = { id: newId() };
    await request(own).post(`/notes/${jobId}`).send(body);
    await request(serving([writing({ path: "/notes" })]))
      .post("/notes")
      .send({ id: newId() });
    expect(take.mock.calls.map(([line]) => line)).toEqual([`job ${jobId}`, `own ${body.id}`, "note"]);
  });
  it("of one address is not that of another, nor of another kind", async () => {
    const body = { id: newId() };
    const app = serving([writing()]);
    await request(app)
      .post(`/notes/${await makeJob(test.app)}`)
      .send(body)
      .expect(200);
    const elsewhere = await request(app)
      .post(`/notes/${await makeJob(test.app)}`)
      .send(body)
      .expect(409);
    expect(elsewhere.body.code).toBe("id_reused");
  });
  it("is refused on a closed job, and taken where it is of the kind that is", async () => {
    const jobId = await makeJob(test.app);
    await test.inScope((scope) => scope.rows.jobs.update({ handedOverAt: now }, { id: jobId }));
    written.mockClear();
    const answer = await request(serving([writing()]))
      .post(`/notes/${jobId}`)
      .send({ id: newId() })
      .expect(409);
    expect([answer.body.code, answer.body.detail]).toEqual(["conflict", expect.stringContaining("Hand over")]);
    expect(written).not.toHaveBeenCalled();
    const late = serving([writing({ isTakenWhenClosed: true })]);
    await request(late).post(`/notes/${jobId}`).send({ id: newId() }).expect(200);
  });
  it("of a job that is not there is refused, and of an address that is none", async () => {
    const app = serving([writing()]);
    const answer = await request(app).post(`/notes/${newId()}`).send({ id: newId() }).expect(404);
    expect([answer.body.code, answer.body.detail]).toEqual(["not_found", "There is no job with this id."]);
    await request(app).post("/notes/nowhere").send({ id: newId() }).expect(404);
  });
  it("marks its job for what is folded later", async () => {
    const jobId = await makeJob(test.app);
    const stale = async () => (await test.inScope((scope) => scope.rows.jobSummaries.first({ jobId })))?.isStale;
    test.heavy.poke();
    await test.heavy.settled();
    expect(await stale()).toBe(false);
    await request(serving([writing()]))
      .post(`/notes/${jobId}`)
      .send({ id: newId() })
      .expect(200);
    expect(await stale()).toBe(true);
  });
});

describe("a read, a live act and a right", () => {
  it("answers with what was read, or sends it its own way", async () => {
    const path = "/things";
    const plain = read({ path, right: "read", read: async () => ({ n: 3 }) });
    expect(
      (
        await request(serving([plain]))
          .get(path)
          .expect(200)
      ).body,
    ).toEqual({ n: 3 });
    const own = read({
      ...{ path, right: "read", read: async () => "text" },
      send: async (response, result) => void response.type("text/plain").send(result),
    });
    expect(
      (
        await request(serving([own]))
          .get(path)
          .expect(200)
      ).text,
    ).toBe("text");
  });
  it("is given the ids of its address and a body of its schema", async () => {
    const given = vi.fn();
    const act = live({
      ...{ method: "put", path: "/acts/:jobId", right: "measure", schema },
      live: (_request, response, input) => {
        given(input);
        response.status(204).end();
      },
    });
    const [jobId, body] = [newId(), { id: newId() }];
    await request(serving([act]))
      .put(`/acts/${jobId}`)
      .send(body)
      .expect(204);
    expect(given).toHaveBeenCalledWith({ body, params: { jobId }, bytes: null });
    await request(serving([act]))
      .put(`/acts/${jobId}`)
      .send({ id: 3 })
      .expect(422);
  });
  it("is refused where a role has it not", () => {
    const asked = {} as never;
    expect(() => requireRight(asked, "measure")).toThrow("Sign in first");
    setWho(asked, everyone);
    expect(() => requireRight(asked, "nobody has this" as never)).toThrow("Your role does not allow this");
    expect(requireRight(asked, "measure").role).toBe("everyone");
  });
  it("holds only a job of this world, or a practice one", async () => {
    const jobId = await makeJob(test.app);
    await test.inScope(async (scope) => {
      expect((await holdingJob(scope, jobId)).job?.id).toBe(jobId);
      await expect(holdingJob({ ...scope, realm: "demo" }, jobId)).rejects.toThrow("There is no job");
    });
  });
});
