import type { BoardTypePapers, Problem } from "@pale-cap/contract";
import sharp from "sharp";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeJob, makePart, newId, openTestApp, type TestApp } from "../../testing/testApp";
import { cleanPaperName } from "./preparePaper";

let test: TestApp;
let typeId: string;
beforeAll(async () => {
  test = await openTestApp();
  const jobId = await makeJob(test.app);
  await makePart(test.app, jobId);
  typeId = newId();
  await request(test.app)
    .post(`/api/jobs/${jobId}/board-type`)
    .send({ id: typeId, boardTypeId: null, name: "Halden power board" })
    .expect(201);
});
afterAll(() => test.close());

const pdf = Buffer.from("%PDF-1.7 a made-up manual");
const attach = (bytes: Buffer, about: object = {}) =>
  request(test.app)
    .post(`/api/board-types/${typeId}/attachments`)
    .field("about", JSON.stringify({ id: newId(), kind: "service_manual", name: "Halden manual.pdf", ...about }))
    .attach("paper", bytes, "anything.exe");
const papers = async () =>
  (await request(test.app).get(`/api/board-types/${typeId}/papers`).expect(200)).body as BoardTypePapers;

describe("the papers of a board type", () => {
  it("are kept whole, come back as a download only, and once", async () => {
    const id = newId();
    await attach(pdf, { id }).expect(201);
    await attach(pdf, { id }).expect(200);
    const [paper] = (await papers()).attachments;
    expect(paper).toMatchObject({ name: "Halden manual.pdf", mediaType: "application/pdf", sizeBytes: pdf.length });
    const back = await request(test.app).get(`/api/attachments/${paper?.id}`).buffer().expect(200);
    expect(back.headers["content-disposition"]).toContain("attachment");
    expect(back.headers["x-content-type-options"]).toBe("nosniff");
    expect(Buffer.from(back.body).equals(pdf)).toBe(true);
    await request(test.app)
      .delete(`/api/attachments/${paper?.id}`)
      .send({ writeId: newId(), version: paper?.version })
      .expect(200);
    expect((await papers()).attachments).toEqual([]);
    await request(test.app).get(`/api/attachments/${paper?.id}`).expect(404);
  });
  it("are told by their bytes: a page in disguise is refused, and nothing is stored", async () => {
    const { body } = await attach(Buffer.from("<html><script>alert(1)</script>")).expect(422);
    expect((body as Problem).detail).toContain("PDF, PNG or JPEG");
    expect((await papers()).attachments).toEqual([]);
    await request(test.app).post(`/api/board-types/${newId()}/attachments`).field("about", "{").expect(400);
  });
});

describe("a paper that is a picture", () => {
  const place = { IFD0: { Copyright: "owner" }, IFD3: { GPSLatitudeRef: "N", GPSLatitude: "52/1 31/1 12/1" } };
  it.each(["jpeg", "png"] as const)("loses place and owner (%s), keeps its size, and opens", async (format) => {
    const picture = sharp({ create: { width: 900, height: 40, channels: 3, background: "#7a5c33" } }).withExif(place);
    const bytes = await picture[format]().toBuffer();
    expect((await sharp(bytes).metadata()).exif).toBeDefined();
    const { body } = await attach(bytes, { name: `board.${format}` }).expect(201);
    const { id } = (body as BoardTypePapers).attachments.find((one) => one.name === `board.${format}`) as {
      id: string;
    };
    const back = await request(test.app).get(`/api/attachments/${id}`).buffer().expect(200);
    const kept = await sharp(back.body as Buffer).metadata();
    expect([kept.exif, kept.width, kept.height, kept.format]).toEqual([undefined, 900, 40, format]);
  });
  it("is refused where it is cut off", async () => {
    const whole = await sharp({ create: { width: 90, height: 90, channels: 3, background: "#fff" } })
      .jpeg()
      .toBuffer();
    await attach(whole.subarray(0, 200)).expect(422);
  });
});

describe("the name of a paper", () => {
  it.each([
    ["setup.exe", "application/pdf", "setup.exe.pdf"],
    ["../../etc/manual.pdf", "application/pdf", "manual.pdf"],
    ["C:\\papers\\scan.JPG", "image/jpeg", "scan.JPG"],
    ["scan.jpeg", "image/png", "scan.jpeg.png"],
    ["fdp.\u202Eexe.pdf", "application/pdf", "fdp.exe.pdf"],
    ["a\u0007b\u200b.pdf", "application/pdf", "ab.pdf"],
    ["...", "application/pdf", "paper.pdf"],
    ['what:"<is>"|this?.pdf', "application/pdf", "what___is___this_.pdf"],
    [`${"x".repeat(300)}.pdf`, "application/pdf", `${"x".repeat(100)}.pdf`],
  ])("%j of a %s becomes %j", (name, mediaType, clean) => {
    expect(cleanPaperName(name, mediaType)).toBe(clean);
  });
  it("is cleaned as it is stored", async () => {
    const { body } = await attach(pdf, { name: "../setup.exe" }).expect(201);
    expect((body as BoardTypePapers).attachments.map((one) => one.name)).toContain("setup.exe.pdf");
  });
});

describe("how a board is run out of its set", () => {
  const pin = { pin: "3", name: "PS_ON", role: "enable", volts: 3.3, leastAmps: null };
  it("is kept pin by pin, from the version that was seen", async () => {
    const { version } = await papers();
    const benchNotes = {
      pins: [pin, { ...pin, pin: "5", name: "12 V", role: "output", volts: 12, leastAmps: 0.5 }],
      note: "Standby first.",
    };
    const put = (body: object) => request(test.app).put(`/api/board-types/${typeId}/papers`).send(body);
    await put({ writeId: newId(), version, benchNotes }).expect(200);
    expect((await papers()).benchNotes).toEqual(benchNotes);
    await put({ writeId: newId(), version, benchNotes }).expect(409);
    await put({
      writeId: newId(),
      version: version + 1,
      benchNotes: { ...benchNotes, pins: [{ ...pin, role: "magic" }] },
    }).expect(422);
  });
});
