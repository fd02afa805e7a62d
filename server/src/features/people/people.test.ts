import type { Account, AuditPage, SessionState } from "@pale-cap/contract";
import request, { type Agent } from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeLink } from "../../people/oneTimeLinks";
import { openShopTest, type ShopTest, type TestPerson, testPassword, testPin } from "../../testing/shopTest";
import { makeJob, makePart, newId, openTestApp, readingBody } from "../../testing/testApp";

let test: ShopTest;
beforeAll(async () => {
  test = await openShopTest();
});
afterAll(() => test.close());

const state = async (browser: Agent) => (await browser.get("/api/session").expect(200)).body as SessionState;
const signIn = (browser: Agent, login: string, password = testPassword) =>
  browser.post("/api/session").send({ login, password, benchId: null });
const byPin = (browser: Agent, { accountId }: TestPerson, pin: string) =>
  browser.post("/api/session/person").send({ accountId, pin });
/** Moves the clock of the application, which counts how long somebody is locked out. */
const later = (seconds: number) => test.setNow(new Date(test.now() + seconds * 1000));
const audited = async (browser: Agent, query = "") =>
  ((await browser.get(`/api/audit${query}`).expect(200)).body as AuditPage).lines;

describe("signing in", () => {
  it("is by name and password, in any letters of the name, and says who one is and what one may", async () => {
    const browser = request.agent(test.app);
    expect(await state(browser)).toMatchObject({ mode: "shop", who: null, isBenchOpen: false, isFirstStart: false });
    await browser.get("/api/bench").expect(401);
    const { headers } = await signIn(browser, "Technician").expect(200);
    const [cookie] = headers["set-cookie"] as unknown as string[];
    expect(cookie).toMatch(/HttpOnly/i);
    expect(cookie).toMatch(/SameSite=Strict/i);
    const { who } = await state(browser);
    expect(who).toMatchObject({ role: "technician", by: "password", personId: test.people.technician.personId });
    await browser.get("/api/bench").expect(200);
    await browser.delete("/api/session").expect(204);
    await browser.get("/api/bench").expect(401);
  });

  it("tells neither whether a name is known nor anything of it", async () => {
    const [unknown, wrong] = await Promise.all(
      ["nobody here", "counter"].map((login) => signIn(request.agent(test.app), login, "not this one").expect(401)),
    );
    expect(unknown?.body).toEqual(wrong?.body);
  });

  it("gives another session id than the one that the browser came with", async () => {
    const browser = request.agent(test.app);
    const cookieOf = async () => ((await signIn(browser, "lead")).headers["set-cookie"] as unknown as string[])[0];
    expect((await cookieOf())?.split(";")[0]).not.toBe((await cookieOf())?.split(";")[0]);
  });

  it("locks after five wrong passwords, twenty at once no less, longer each time, and opens to the right one", async () => {
    const { login } = await test.makePerson("guessed", "technician");
    const guess = () => signIn(request.agent(test.app), login, "wrong guess");
    const answers = await Promise.all(Array.from({ length: 20 }, guess));
    const compared = answers.filter((one) => one.status === 401).length;
    expect([compared, answers.filter((one) => one.status === 429).length]).toEqual([4, 16]);
    await signIn(request.agent(test.app), login).expect(429);
    later(31);
    expect((await guess().expect(429)).body.current.lockedSeconds).toBe(60);
    later(31);
    await signIn(request.agent(test.app), login).expect(429);
    later(30);
    await signIn(request.agent(test.app), login).expect(200);
    // Counted from the beginning again.
    await guess().expect(401);
  });

  it("is over everywhere at once where a lead ends it or shuts the account", async () => {
    const person = await test.makePerson("leaving", "technician");
    const [one, two] = [request.agent(test.app), request.agent(test.app)];
    const lead = await test.signedIn("lead");
    await signIn(one, "leaving").expect(200);
    await signIn(two, "leaving").expect(200);
    const account = ((await lead.get("/api/accounts")).body as Account[]).find((each) => each.id === person.accountId);
    expect(account?.sessionCount).toBe(2);
    await lead.post(`/api/accounts/${person.accountId}/sign-out`).send({ id: newId() }).expect(200);
    for (const browser of [one, two]) await browser.get("/api/bench").expect(401);
    await signIn(one, "leaving").expect(200);
    const { name, login, role, version } = account as Account;
    const edit = { writeId: newId(), version, name, login, role, isActive: false };
    await lead.patch(`/api/accounts/${person.accountId}`).send(edit).expect(200);
    await one.get("/api/bench").expect(401);
    await signIn(one, "leaving").expect(401);
  });
});

describe("a PIN", () => {
  it("takes over a bench that a password opened, leaves less open than a password, and never opens one by itself", async () => {
    const { technician, lead } = test.people;
    await byPin(request.agent(test.app), technician, testPin).expect(401);
    const bench = await test.signedIn("trainee");
    await bench.get("/api/accounts").expect(403);
    await byPin(bench, lead, testPin).expect(200);
    expect((await state(bench)).who).toMatchObject({ role: "lead", by: "pin", personId: lead.personId });
    // What a lead may by a PIN ends before people are managed, other worlds opened, names erased.
    await bench.get("/api/audit").expect(200);
    await bench.get("/api/accounts").expect(403);
    await bench.delete("/api/session/person").expect(204);
    await bench.get("/api/bench").expect(401);
    expect(await state(bench)).toMatchObject({ who: null, isBenchOpen: true });
    await byPin(bench, technician, testPin).expect(200);
    await bench.get("/api/bench").expect(200);
  });

  it("locks after three wrong ones for longer each time, for this person alone", async () => {
    const guessed = await test.makePerson("pinned", "technician");
    const bench = await test.signedIn("technician");
    const codes = [];
    for (let n = 0; n < 4; n++) codes.push((await byPin(bench, guessed, "0000")).status);
    expect(codes).toEqual([403, 403, 429, 429]);
    await byPin(bench, guessed, testPin).expect(429);
    await byPin(bench, test.people.trainee, testPin).expect(200);
    later(31);
    expect((await byPin(bench, guessed, "0001")).body.current.lockedSeconds).toBe(60);
    later(61);
    await byPin(bench, guessed, testPin).expect(200);
  });

  it("is set by whoever knows the password, is no row of digits, and can be taken away", async () => {
    const person = await test.makePerson("setting", "technician");
    const browser = request.agent(test.app);
    await signIn(browser, "setting").expect(200);
    const set = (newPin: string | null, password = testPassword) =>
      browser.put("/api/session/pin").send({ password, newPin });
    for (const easy of ["1234", "9999", "8765", "12", "123456789", "12a4"]) await set(easy).expect(422);
    await set("4711", "not mine").expect(403);
    await set("4711").expect(200);
    await byPin(browser, person, "4711").expect(200);
    await set(null).expect(200);
    await byPin(browser, person, "4711").expect(403);
  });
});

describe("passwords and links", () => {
  it("are changed by who knows the old one, and end every other session", async () => {
    await test.makePerson("changing", "technician");
    const [here, there] = [request.agent(test.app), request.agent(test.app)];
    for (const browser of [here, there]) await signIn(browser, "changing").expect(200);
    const change = (newPassword: string, password = testPassword) =>
      here.put("/api/session/password").send({ password, newPassword });
    await change("short").expect(422);
    await change("aaaaaaaaaaaa").expect(422);
    await change("another good one", "not the old one").expect(403);
    await change("another good one").expect(200);
    await here.get("/api/bench").expect(200);
    await there.get("/api/bench").expect(401);
    await signIn(there, "changing").expect(401);
    await signIn(there, "changing", "another good one").expect(200);
  });

  it("sets a password once by a link, before its time is over, and ends what was open", async () => {
    const lead = await test.signedIn("lead");
    const id = newId();
    const body = { id, personId: newId(), name: "Ilva Brendt", login: "Ilva", role: "trainee" };
    await lead.post("/api/accounts").send(body).expect(201);
    await lead
      .post("/api/accounts")
      .send({ ...body, id: newId(), personId: newId() })
      .expect(409);
    const link = async () =>
      ((await lead.post(`/api/accounts/${id}/link`).send({}).expect(201)).body.path as string).split("#")[1];
    const [late, token] = [await link(), await link()];
    const browser = request.agent(test.app);
    const use = (used: string | undefined, more: object = {}) =>
      browser
        .post("/api/one-time-links/use")
        .send({ token: used, name: null, login: null, newPassword: "for the first time", ...more });
    const look = (await browser.post("/api/one-time-links").send({ token }).expect(200)).body;
    expect(look).toEqual({ purpose: "set_password", name: "Ilva Brendt", login: "ilva" });
    await use("nonsense").expect(409);
    const both = await Promise.all([use(token), use(token)]);
    expect(both.map((one) => one.status).sort()).toEqual([200, 409]);
    // Every other link for the same person went with it.
    await use(late).expect(409);
    expect((await state(browser)).who).toMatchObject({ role: "trainee", name: "Ilva Brendt" });
    const old = await link();
    later(73 * 3600);
    await use(old).expect(409);
  });

  it("makes the first lead once, and nobody else", async () => {
    const token = await test.inScope(async (scope) => (await makeLink(scope, "first_lead", null)).path.split("#")[1]);
    const body = { token, name: "Second", login: "second", newPassword: "for the first time" };
    await request(test.app).post("/api/one-time-links/use").send(body).expect(409);
    const empty = await openShopTest();
    await empty.inScope((scope) => scope.sql("DELETE FROM accounts RETURNING id"));
    const [one, two] = await empty.inScope(async (scope) =>
      [await makeLink(scope, "first_lead", null), await makeLink(scope, "first_lead", null)].map(
        (link) => link.path.split("#")[1],
      ),
    );
    const use = (used: string | undefined, more: object = {}) =>
      request(empty.app)
        .post("/api/one-time-links/use")
        .send({ token: used, name: "Maret Olm", login: "maret", newPassword: "for the first time", ...more });
    expect((await use(one, { name: null })).body.errors).toEqual([{ path: "name", code: "needed" }]);
    const answers = await Promise.all([use(one), use(two, { login: "other" })]);
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409]);
    expect(answers.find((answer) => answer.status === 200)?.body.who.role).toBe("lead");
    await empty.close();
  });

  it("keeps a lead", async () => {
    const lead = await test.signedIn("lead");
    const mine = ((await lead.get("/api/accounts")).body as Account[]).find((one) => one.login === "lead") as Account;
    const edit = (more: object) =>
      lead.patch(`/api/accounts/${mine.id}`).send({
        ...{
          writeId: newId(),
          version: mine.version,
          name: mine.name,
          login: "lead",
          role: "lead",
          isActive: true,
          ...more,
        },
      });
    await edit({ role: "technician" }).expect(409);
    await edit({ isActive: false }).expect(409);
    await edit({ version: 99 }).expect(409);
  });

  it("leaves no secret in the database, not even its sum in what was accepted", async () => {
    const [dump] = await test.inScope(({ sql }) =>
      sql<{ text: string }>(
        "SELECT (SELECT json_agg(a)::text FROM accounts a) || (SELECT json_agg(e)::text FROM audit_events e) || (SELECT json_agg(w)::text FROM accepted_writes w) AS text",
      ),
    );
    expect(dump?.text).not.toContain(testPassword);
    expect(dump?.text).not.toContain(testPin);
    expect(dump?.text).toContain("$argon2id$v=19$m=19456,t=2,p=1$");
    expect(await test.count("accepted_writes WHERE kind LIKE 'session%'")).toBe(0);
  });
});

describe("who did it", () => {
  it("is whoever is signed in, whatever a body says; what was measured may name another, what is signed for may not", async () => {
    const { technician, trainee } = test.people;
    const browser = await test.signedIn("technician");
    const jobId = await makeJob(browser, { personId: trainee.personId });
    const part = await makePart(browser, jobId);
    const log = (personId: string | null) =>
      browser.post(`/api/jobs/${jobId}/readings`).send(readingBody(part, { personId }));
    expect((await log(null).expect(201)).body.personId).toBe(technician.personId);
    expect((await log(trainee.personId).expect(201)).body.personId).toBe(trainee.personId);
    const accept = (personId: string | null) => ({
      ...{ id: newId(), key: "charge", reason: "drained on the bench", acceptedAt: "2026-11-23T11:50:00.000Z" },
      ...{ clockId: newId(), personId },
    });
    await browser.post(`/api/jobs/${jobId}/acceptances`).send(accept(trainee.personId)).expect(403);
    // In a batch the others pass, and this one waits.
    const facts = [
      { kind: "acceptance", body: accept(trainee.personId) },
      { kind: "reading", body: readingBody(part, { personId: trainee.personId }) },
    ];
    const answers = (await browser.post(`/api/jobs/${jobId}/facts`).send({ facts }).expect(200)).body;
    expect([answers[0].problem?.code, answers[1].rows?.personId]).toEqual(["not_allowed", trainee.personId]);
    expect((await browser.post(`/api/jobs/${jobId}/acceptances`).send(accept(null)).expect(201)).body.personId).toBe(
      technician.personId,
    );
  });

  it("lets no trainee overrule the gate before the mains, as a fact alone or among others", async () => {
    const browser = await test.signedIn("trainee");
    const jobId = await makeJob(browser);
    const gate = () => ({
      ...{ id: newId(), kind: "gate_overruled", note: "limited d.c. feed", resistanceOhms: null, hasShort: null },
      ...{ at: "2026-11-23T11:50:00.000Z", clockId: newId(), personId: null },
    });
    await browser.post(`/api/jobs/${jobId}/power-events`).send(gate()).expect(403);
    const [answer] = (await browser.post(`/api/jobs/${jobId}/facts`).send({ facts: [{ kind: "power", body: gate() }] }))
      .body;
    expect(answer.problem?.code).toBe("not_allowed");
    expect(await test.count(`power_events WHERE job_id = '${jobId}'`)).toBe(0);
    const technician = await test.signedIn("technician");
    await technician.post(`/api/jobs/${jobId}/power-events`).send(gate()).expect(201);
  });

  it("stands in the audit, searchable and as a file, and the application can change none of it", async () => {
    const { technician } = test.people;
    const browser = await test.signedIn("technician");
    const jobId = await makeJob(browser, { complaint: "hums" });
    await browser.get("/api/audit").expect(403);
    const lead = await test.signedIn("lead");
    const mine = await audited(lead, `?person=${technician.personId}&search=took+a+unit`);
    expect(mine).toEqual([]);
    const jobs = await audited(lead, `?person=${technician.personId}&search=job`);
    expect(jobs[0]).toMatchObject({ act: "job", personId: technician.personId, role: "technician" });
    expect(jobs.some((line) => line.jobId === jobId || line.act === "job")).toBe(true);
    expect((await audited(lead, "?search=sign_in_refused")).length).toBeGreaterThan(3);
    expect(await audited(lead, "?search=reading")).toEqual([]);
    expect((await audited(lead, "?search=reading&facts=1")).length).toBeGreaterThan(0);
    expect(await audited(lead, "?until=2020-01-01")).toEqual([]);
    // Page after page holds each line once.
    const all: string[] = [];
    for (let before: string | null = ""; before !== null; ) {
      const page = (
        await lead.get(`/api/audit?facts=1${before ? `&before=${encodeURIComponent(before)}` : ""}`).expect(200)
      ).body as AuditPage;
      all.push(...page.lines.map((line) => line.id));
      before = page.nextBefore;
    }
    expect([new Set(all).size, all.length]).toEqual([all.length, all.length]);
    const csv = await lead.get("/api/audit.csv").expect(200);
    expect(csv.text.split("\r\n").length).toBeGreaterThan(10);
    expect(csv.text).toContain("signed in");
    for (const statement of [
      "UPDATE audit_events SET act = 'x'",
      "DELETE FROM audit_events",
      "DELETE FROM accepted_writes",
    ]) {
      await expect(test.inScope(({ sql }) => sql(statement))).rejects.toThrow(/permission denied/);
    }
  });

  it("keeps a learner's practice, with its photos, from other learners", async () => {
    const { trainee, technician } = test.people;
    const jobId = newId();
    const photoId = newId();
    await test.inScope(async ({ rows }) => {
      const device = { deviceKind: "monitor", deviceMaker: null, deviceModel: null, complaint: null };
      await rows.jobs.insert({
        id: jobId,
        realm: "practice",
        takesSimulated: true,
        createdAt: new Date(),
        symptoms: [],
        ...device,
        intakeDetails: {},
      });
      await rows.practiceSupplies.insert({
        ...{
          jobId,
          supply: "x",
          title: "x",
          story: "x",
          difficulty: 1,
          listId: null,
          personId: trainee.personId,
          benchId: null,
        },
        ...{ begunAt: new Date(), lasting: null },
      });
    });
    const [own, other, lead] = [
      await test.signedIn("trainee"),
      await test.signedIn("technician"),
      await test.signedIn("lead"),
    ];
    expect(technician.personId).not.toBe(trainee.personId);
    await own.get(`/api/jobs/${jobId}`).expect(200);
    await lead.get(`/api/jobs/${jobId}`).expect(200);
    await other.get(`/api/jobs/${jobId}`).expect(404);
    await other.get(`/api/jobs/${jobId}/changes?after=0`).expect(404);
    // Neither does a hand that is not theirs touch the supply: refused before anything is done.
    const hand = { id: newId(), act: { kind: "look" }, personId: null };
    const [theirs, strange] = [
      await own.post(`/api/jobs/${jobId}/practice/acts`).send(hand),
      await other.post(`/api/jobs/${jobId}/practice/acts`).send(hand),
    ];
    expect([theirs.body.detail, strange.body.detail]).toEqual([
      "This supply was ended. Take another one.",
      "There is no job with this id.",
    ]);
    const sharp = (await import("sharp")).default;
    const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: "#445566" } })
      .png()
      .toBuffer();
    const about = { id: photoId, kind: "label", caption: null, takenAt: "2026-11-23T11:50:00.000Z", personId: null };
    const add = (browser: Agent) =>
      browser
        .post(`/api/jobs/${jobId}/photos`)
        .field("photo", JSON.stringify(about))
        .attach("picture", picture, "photo.png");
    await add(other).expect(404);
    await add(own).expect(201);
    await own.get(`/api/photos/${photoId}/image`).expect(200);
    for (const kind of ["image", "thumbnail"]) await other.get(`/api/photos/${photoId}/${kind}`).expect(404);
  });
});

describe("alone", () => {
  it("nobody signs in, everybody may everything, and the page says who it is", async () => {
    const alone = await openTestApp();
    const { body } = await request(alone.app).get("/api/session").expect(200);
    expect(body).toMatchObject({
      mode: "alone",
      isBenchOpen: false,
      isFirstStart: false,
      who: { role: "everyone", personId: null },
    });
    await request(alone.app).post("/api/session").send({ login: "x", password: "y", benchId: null }).expect(409);
    await alone.close();
  });
});
