import type { CodeTarget } from "@pale-cap/contract";
import jsQr from "jsqr";
import sharp from "sharp";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { codeSvg, labelsPdf } from "../../papers/labels";
import { pdfPageSize, readPdf } from "../../testing/readPdf";
import { makeJob, newId, openTestApp, type TestApp, testClock } from "../../testing/testApp";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const pdf = async (path: string) => (await request(test.app).get(path).responseType("blob").expect(200)).body as Buffer;
const decoded = async (text: string) => {
  const { data, info } = await sharp(Buffer.from(await codeSvg(text)))
    .resize(400)
    .flatten({ background: "#ffffff" })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const read = (jsQr as unknown as { default?: typeof jsQr }).default ?? jsQr;
  return read(new Uint8ClampedArray(data), info.width, info.height)?.data;
};
const rule = async (key: string, value: unknown) => {
  const rules = (await request(test.app).get("/api/house-rules")).body as { versions?: Record<string, number> };
  return request(test.app)
    .post("/api/house-rules/changes")
    .send({
      ...{ id: newId(), key, value, reason: null, version: rules.versions?.[key] ?? 0, personId: null },
      ...{ changedAt: "2026-11-23T12:00:00.000Z", clockId: testClock },
    });
};
const tag = (jobId: string) => request(test.app).get(`/api/jobs/${jobId}/labels?kind=tag`);

describe("labels", () => {
  it("say of a unit which job it is, on a sheet from a free place on or one by one", async () => {
    const jobId = await makeJob(test.app, { deviceMaker: "Brambix", deviceModel: "Halden 24" });
    const sheet = await pdf(`/api/jobs/${jobId}/labels?kind=unit&place=21`);
    expect(await pdfPageSize(sheet)).toEqual([595, 842]);
    const { text, pages } = await readPdf(sheet);
    expect([pages.length, text]).toEqual([1, expect.stringContaining("Brambix Halden 24")]);
    await request(test.app).get(`/api/jobs/${jobId}/labels?kind=unit&place=22`).expect(422);
    expect((await readPdf(await pdf(`/api/jobs/${jobId}/labels?kind=bag&words=C14%20C21`))).text).toContain("C14 C21");
    expect((await rule("shop.labels", "single")).status).toBe(201);
    expect(await pdfPageSize(await pdf(`/api/jobs/${jobId}/labels?kind=unit`))).toEqual([176, 82]);
  });

  it("go on over a full sheet, and each stands in its place", async () => {
    const label = { title: "x", lines: [], code: null, isWarning: false };
    const bytes = await labelsPdf([label, label, label], { stock: "sheet", firstPlace: 20, madeAt: new Date(0) });
    const { pages } = await readPdf(bytes);
    expect(pages.map((one) => one.replaceAll(" ", ""))).toEqual(["xx", "x"]);
  });

  it("hold a code that leads to the job, by the house's address or by its number alone", async () => {
    expect(await decoded("0001")).toBe("0001");
    expect((await rule("shop.address", "ftp://shop/{number}")).status).toBe(422);
    expect((await rule("shop.address", "http://shop.invalid/go/")).status).toBe(422);
    expect((await rule("shop.address", "http://shop.invalid:4780/go/{number}")).status).toBe(201);
    expect(await decoded("http://shop.invalid:4780/go/0001")).toBe("http://shop.invalid:4780/go/0001");
    const jobId = await makeJob(test.app);
    const number = await test.inScope(async ({ rows }) => (await rows.jobs.first({ id: jobId }))?.number);
    const target = async (code: string) =>
      (await request(test.app).get(`/api/codes?code=${code}`).expect(200)).body as CodeTarget;
    expect(await target(String(number).padStart(4, "0"))).toEqual({ jobId, isClosed: false, drawer: null });
    expect(await target("9999")).toEqual({ jobId: null, isClosed: false, drawer: null });
  });

  it("say of a drawer what lies in it, and lead back to it; an order leaves as a list with its sum", async () => {
    const [part, item, supplier, order] = [newId(), newId(), newId(), newId()];
    await test.inScope(async ({ rows }) => {
      await rows.catalogueParts.insert({
        ...{
          id: part,
          maker: "Kelpin",
          series: "Tern",
          orderCode: "KT-1000-16",
          capacitorClass: "lowz",
          printed: null,
        },
        ...{
          capacitanceFarads: 1e-3,
          ratedVolts: 16,
          temperatureClassCelsius: 105,
          diameterMetres: 0.01,
          esrOhms: 0.04,
        },
        ...{
          heightMetres: 0.02,
          pitchMetres: 0.005,
          rippleAmpsRms: 1.2,
          ratedLifeHours: 4000,
          priceMinor: 40,
          source: null,
        },
      });
    });
    const values = { drawer: "B 4", origin: "distributor", lot: "L77", dateCode: null, receivedOn: null };
    const heap = { id: item, cataloguePartId: part, marking: null, count: 20, personId: null };
    await request(test.app)
      .post("/api/stock")
      .send({ ...heap, values: { ...values, usedHours: null, note: null } })
      .expect(201);
    const { text } = await readPdf(await pdf(`/api/stock/${item}/label`));
    expect(text).toMatch(/B 4.*1000 μF 16 V 105 °C.*Kelpin Tern KT-1000-16.*lot L77/);
    expect((await request(test.app).get("/api/codes?code=b%204")).body).toEqual({
      jobId: null,
      isClosed: false,
      drawer: "B 4",
    });
    await request(test.app).get(`/api/stock/${newId()}/label`).expect(404);
    const about = { name: "Brackwater Parts", shippingMinor: 690, freeFromMinor: null, days: 2, isUsed: true };
    await request(test.app).post("/api/suppliers").send({ id: supplier, values: about }).expect(201);
    const lines = [{ id: newId(), cataloguePartId: part, count: 50, unitMinor: 7 }];
    await request(test.app)
      .post("/api/orders")
      .send({ id: order, supplierId: supplier, lines, note: "by Friday", personId: null })
      .expect(201);
    const list = await readPdf(await pdf(`/api/orders/${order}/file`));
    expect(list.text).toMatch(/Order to Brackwater Parts.*KT-1000-16 Kelpin.*50 €0.07 €3.50.*by Friday/);
    expect(list.text).toContain("page 1 of 1");
    await request(test.app).get(`/api/orders/${newId()}/file`).expect(404);
  });

  it("warn of what was logged, and of nothing that was not", async () => {
    const jobId = await makeJob(test.app);
    const before = await readPdf((await tag(jobId).responseType("blob").expect(200)).body as Buffer);
    expect(before.text).toContain("Charge not verified");
    expect(before.text).not.toMatch(/No earth|Not repaired|safe/i);
    const step = { kind: "earth_screws", count: 1, size: null, place: null, photoId: null };
    await request(test.app)
      .post(`/api/jobs/${jobId}/teardown-steps`)
      .send({ id: newId(), ...step, doneAt: "2026-11-23T11:00:00.000Z", personId: null })
      .expect(201);
    const { text } = await readPdf((await tag(jobId).responseType("blob").expect(200)).body as Buffer);
    expect(text).toContain("No earth yet");
    expect(text).toContain("Not to be plugged in.");
  });
});
