import type { OrderBasis, OrderRow, StockItemDetail } from "@pale-cap/contract";
import { seededRandom } from "@pale-cap/core";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { generateCatalogue } from "../../database/demo/generateCatalogue";
import { newId, openTestApp, type TestApp } from "../../testing/testApp";

const [part] = generateCatalogue(seededRandom(3));
let test: TestApp;

beforeAll(async () => {
  test = await openTestApp();
  await test.inScope(({ rows }) => rows.catalogueParts.insert(part as object));
});
afterAll(() => test.close());

describe("an order", () => {
  const lineId = newId();
  const supplierId = newId();
  const orderId = newId();
  const supplier = { name: "Brackwater Parts", shippingMinor: 690, freeFromMinor: null, days: 2, isUsed: true };
  const receipt = (more: object) =>
    request(test.app)
      .post(`/api/orders/${orderId}/receipts`)
      .send({
        ...{ id: newId(), orderLineId: lineId, count: 5, drawer: "A1", lot: "L7", dateCode: "2640", pieces: [] },
        ...{ allowedBadRatio: 0.02, personId: null, ...more },
      });
  const measuredPiece = {
    ...{ massKilograms: null, diameterMetres: null, heightMetres: null, esrOhms: null },
    capacitanceFarads: part?.capacitanceFarads,
  };
  it("asks for what a supplier offers, with breaks that rise", async () => {
    await request(test.app).post("/api/suppliers").send({ id: supplierId, values: supplier }).expect(201);
    const offer = (breaks: number[][]) =>
      request(test.app)
        .put(`/api/suppliers/${supplierId}/offers`)
        .send({ writeId: newId(), cataloguePartId: part?.id, breaks, stock: null, days: null });
    await offer([
      [10, 5],
      [1, 6],
    ]).expect(422);
    await offer([
      [1, 6],
      [10, 5],
    ]).expect(200);
    await offer([[1, 7]]).expect(200);
    const suppliers = (await request(test.app).get("/api/suppliers")).body;
    expect(suppliers).toMatchObject([{ ...supplier, offers: [{ cataloguePartId: part?.id, breaks: [[1, 7]] }] }]);
  });
  it("is on its way until it came; each delivery is a heap of its own, checked", async () => {
    const line = { id: lineId, cataloguePartId: part?.id, count: 12, unitMinor: 7 };
    const body = { id: orderId, supplierId, lines: [line], note: null, personId: null };
    await request(test.app).post("/api/orders").send(body).expect(201);
    const hollow = { ...measuredPiece, esrOhms: 100 * (part?.esrOhms ?? 0) };
    await receipt({ pieces: Array.from({ length: 6 }, () => measuredPiece) }).expect(422);
    const first = (await receipt({ pieces: [measuredPiece] }).expect(201)).body as OrderRow[];
    expect(first[0]?.lines[0]).toMatchObject({ receivedCount: 5, checks: [{ measuredCount: 1, badCount: 0 }] });
    const second = (await receipt({ pieces: [hollow, hollow, hollow] }).expect(201)).body as OrderRow[];
    expect(second[0]?.lines[0]?.checks[1]).toMatchObject({ badCount: 3, decision: "reject" });
    await receipt({ orderLineId: newId() }).expect(404);
    const items = (await request(test.app).get("/api/stock")).body as StockItemDetail[];
    const lots = items.filter((one) => one.lot === "L7");
    expect(lots.map((one) => one.count)).toEqual([5, 5]);
    expect(new Set(lots.map((one) => one.setAsideReason))).toEqual(new Set(["the lot failed its sample", null]));
    const basis = (await request(test.app).get("/api/orders/needs")).body as OrderBasis;
    expect(basis.parts.find((one) => one.cataloguePartId === part?.id)?.onOrder).toBe(2);
    const edit = { writeId: newId(), version: 1, isClosed: true };
    await request(test.app).patch(`/api/orders/${orderId}`).send(edit).expect(200);
    const after = (await request(test.app).get("/api/orders/needs")).body as OrderBasis;
    expect(after.parts.find((one) => one.cataloguePartId === part?.id)?.onOrder ?? 0).toBe(0);
  });
  it("says what is not there, and stores nothing of it", async () => {
    const said = async (sent: request.Test, status: number) => (await sent.expect(status)).body.detail;
    const post = (path: string, body: object) => request(test.app).post(path).send(body);
    const lines = [{ id: newId(), cataloguePartId: part?.id, count: 1, unitMinor: 7 }];
    const nobody = { id: newId(), supplierId: newId(), lines, note: null, personId: null };
    const counted = await test.count("orders");
    expect(await said(post("/api/orders", nobody), 404)).toBe("There is no such supplier.");
    const strange = [{ ...lines[0], cataloguePartId: newId() }];
    expect(await said(post("/api/orders", { ...nobody, supplierId, lines: strange }), 409)).toMatch(
      /not in the catalogue/,
    );
    const offer = { writeId: newId(), cataloguePartId: part?.id, breaks: [[1, 6]], stock: null, days: null };
    expect(await said(request(test.app).put(`/api/suppliers/${newId()}/offers`).send(offer), 404)).toBe(
      "There is no such supplier.",
    );
    expect(await said(receipt({ orderLineId: newId() }), 404)).toBe("This line is not on the order.");
    expect(await said(receipt({ count: 0 }), 422)).toEqual(expect.any(String));
    const many = await receipt({ count: 1, pieces: [measuredPiece, measuredPiece] }).expect(422);
    expect(many.body).toMatchObject({
      detail: "More pieces were measured than came. Nothing was stored.",
      errors: [{ path: "pieces", code: "too_many_entries", values: { most: 1 } }],
    });
    expect(await said(request(test.app).get(`/api/orders/${newId()}/file`), 404)).toBe(
      "There is no order with this id among the last two hundred.",
    );
    expect(await test.count("orders")).toBe(counted);
  });
  it("lists suppliers by name and open orders first, each with its own lines in their order, and prints one", async () => {
    const other = newId();
    const values = { ...supplier, name: "Alder Supply", isUsed: false };
    await request(test.app).post("/api/suppliers").send({ id: other, values }).expect(201);
    const edit = { writeId: newId(), version: 1, values: { ...values, days: 5 } };
    await request(test.app).patch(`/api/suppliers/${other}`).send(edit).expect(200);
    const suppliers = (await request(test.app).get("/api/suppliers")).body as { name: string; offers: unknown[] }[];
    expect(suppliers).toMatchObject([
      { id: other, name: "Alder Supply", days: 5, isUsed: false, version: 2, offers: [] },
      { id: supplierId, name: "Brackwater Parts", offers: [{}] },
    ]);
    const id = newId();
    const lines = [9, 3, 6].map((count) => ({ id: newId(), cataloguePartId: part?.id, count, unitMinor: 8 }));
    const body = { id, supplierId: other, lines, note: "by post", personId: null };
    await request(test.app).post("/api/orders").send(body).expect(201);
    const orders = (await request(test.app).get("/api/orders")).body as OrderRow[];
    expect(orders.map((one) => [one.id, one.isClosed, one.supplierName, one.note])).toEqual([
      [id, false, "Alder Supply", "by post"],
      [orderId, true, "Brackwater Parts", null],
    ]);
    expect(orders[0]?.lines.map((one) => [one.id, one.count, one.receivedCount, one.part?.id])).toEqual(
      lines.map((one) => [one.id, one.count, 0, part?.id]),
    );
    const paper = await request(test.app).get(`/api/orders/${id}/file`).responseType("blob").expect(200);
    expect((paper.body as Buffer).subarray(0, 5).toString()).toBe("%PDF-");
  });
  it("dates a heap by the shop's own day, not by the one in Greenwich", async () => {
    const rule = { key: "shop.timeZone", value: "Pacific/Auckland", reason: null, version: 0, clockId: null };
    await request(test.app)
      .post("/api/house-rules/changes")
      .send({ ...rule, id: newId(), changedAt: "2026-11-23T12:00:00Z", personId: null })
      .expect(201);
    const late = new Date("2026-11-24T22:30:00Z");
    test.setNow(late);
    const [line, id] = [newId(), newId()];
    const lines = [{ id: line, cataloguePartId: part?.id, count: 2, unitMinor: 8 }];
    await request(test.app).post("/api/orders").send({ id, supplierId, lines, note: null, personId: null }).expect(201);
    const came = { id: newId(), orderLineId: line, count: 2, drawer: "A9", lot: "L9", dateCode: null, pieces: [] };
    await request(test.app)
      .post(`/api/orders/${id}/receipts`)
      .send({ ...came, allowedBadRatio: 0.02, personId: null })
      .expect(201);
    const items = (await request(test.app).get("/api/stock")).body as StockItemDetail[];
    expect(items.find((one) => one.lot === "L9")?.receivedOn).toBe("2026-11-25");
  });
});
