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
    const piece = {
      massKilograms: null,
      diameterMetres: null,
      heightMetres: null,
      esrOhms: null,
      capacitanceFarads: part?.capacitanceFarads,
    };
    const hollow = { ...piece, esrOhms: 100 * (part?.esrOhms ?? 0) };
    await receipt({ pieces: Array.from({ length: 6 }, () => piece) }).expect(422);
    const first = (await receipt({ pieces: [piece] }).expect(201)).body as OrderRow[];
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
});
