import { mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { photoLimits } from "@pale-cap/contract";
import sharp from "sharp";
import request from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeJob, newId, openTestApp, type TestApp } from "../../testing/testApp";

let test: TestApp;
let jobId: string;
beforeAll(async () => {
  test = await openTestApp();
  jobId = await makeJob(test.app);
});
afterAll(() => test.close());

const canvas = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: "#7a5c33" } });

/** A picture that carries a place and lies on its side, as a telephone writes it. */
const withPlace = () =>
  canvas(3000, 1500)
    .withExif({ IFD0: { Copyright: "owner" }, IFD3: { GPSLatitudeRef: "N", GPSLatitude: "52/1 31/1 12/1" } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer();

const about = (more: object = {}) => ({
  id: newId(),
  kind: "label",
  caption: null,
  takenAt: "2026-11-23T11:00:00Z",
  personId: null,
  ...more,
});
const send = (bytes: Buffer, photo: object = about(), name = "photo.jpg") =>
  request(test.app)
    .post(`/api/jobs/${jobId}/photos`)
    .field("photo", JSON.stringify(photo))
    .attach("picture", bytes, name);
const counts = async () => ({
  photos: await test.count("photos"),
  blobs: await test.count("blobs"),
});

describe("a photo", () => {
  it("is stored upright, smaller and without its place, whole over its chunks", async () => {
    const original = await withPlace();
    expect((await sharp(original).metadata()).exif).toBeDefined();
    const { body } = await send(original).expect(201);
    // On its side: 3000 x 1500 stands up, and 2400 is the longest side that is kept.
    expect(body).toMatchObject({ widthPixels: 1200, heightPixels: 2400, version: 1, marks: [], isRemoved: false });
    const image = await request(test.app).get(`/api/photos/${body.id}/image`).expect(200);
    expect(image.headers["content-type"]).toBe("image/jpeg");
    const stored = await sharp(image.body as Buffer).metadata();
    expect([stored.width, stored.height, stored.exif, stored.orientation]).toEqual([1200, 2400, undefined, undefined]);
    const thumbnail = await request(test.app).get(`/api/photos/${body.id}/thumbnail`).expect(200);
    expect((await sharp(thumbnail.body as Buffer).metadata()).height).toBe(320);
  });

  it("comes through larger than one chunk", async () => {
    const noise = Buffer.alloc(900 * 900 * 3);
    for (let n = 0; n < noise.length; n++) noise[n] = (n * 2654435761) >>> 24;
    const png = await sharp(noise, { raw: { width: 900, height: 900, channels: 3 } })
      .png({ compressionLevel: 0 })
      .toBuffer();
    const { body } = await send(png, about(), "photo.png").expect(201);
    const { body: image } = await request(test.app).get(`/api/photos/${body.id}/image`).expect(200);
    const back = await sharp(image as Buffer)
      .raw()
      .toBuffer();
    expect(back.equals(noise)).toBe(true);
  });

  it("is stored once for a retry, and its id not lent to another picture", async () => {
    const photo = about();
    const bytes = await canvas(40, 30).webp().toBuffer();
    await send(bytes, photo).expect(201);
    const before = await counts();
    await send(bytes, photo).expect(200);
    const other = await send(await canvas(41, 30).webp().toBuffer(), photo).expect(409);
    expect(other.body.code).toBe("id_reused");
    expect(await counts()).toEqual(before);
  });

  it("keeps its marks, goes off the job and comes back, and refuses a stale hand", async () => {
    const { body } = await send(await canvas(40, 30).png().toBuffer()).expect(201);
    const mark = { id: newId(), kind: "arrow", x: 0.1, y: 0.2, toX: 0.5, toY: 0.5, text: null };
    const edit = (version: number, values: object) =>
      request(test.app)
        .patch(`/api/jobs/${jobId}/photos/${body.id}`)
        .send({
          writeId: newId(),
          version,
          values: { kind: "label", caption: null, marks: [mark], isRemoved: false, ...values },
        });
    expect((await edit(1, {}).expect(200)).body.marks).toEqual([mark]);
    expect((await edit(2, { isRemoved: true }).expect(200)).body.isRemoved).toBe(true);
    expect((await edit(3, {}).expect(200)).body.isRemoved).toBe(false);
    expect((await edit(1, {}).expect(409)).body.code).toBe("stale_version");
    const outside = await edit(4, { marks: [{ ...mark, x: 1.2 }] }).expect(422);
    expect(outside.body.errors[0].path).toBe("values.marks[0].x");
  });
});

describe("what is not a picture", () => {
  // A folder for temporary files that nothing else on the machine writes to.
  const usual = process.env.TMPDIR;
  const folder = mkdtempSync(join(tmpdir(), "pale-cap-uploads-"));
  beforeAll(() => {
    process.env.TMPDIR = folder;
  });
  afterAll(() => {
    if (usual === undefined) delete process.env.TMPDIR;
    else process.env.TMPDIR = usual;
    rmSync(folder, { recursive: true });
  });

  it.each([
    ["nothing at all", async () => Buffer.alloc(0), 422, /not a picture|No picture/],
    ["a text that calls itself a photo", async () => Buffer.from("not a picture at all"), 422, /not a picture/],
    [
      "a drawing with scripts",
      async () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
      422,
      /JPEG, PNG and WebP/,
    ],
    ["a kind that is not taken", () => canvas(20, 20).gif().toBuffer(), 422, /gif is not taken/],
    [
      "a photo cut off in the middle",
      async () => (await withPlace()).subarray(0, 9000),
      422,
      /damaged|cannot be read|not a picture/,
    ],
    ["a file that is too large", async () => Buffer.alloc(photoLimits.uploadBytes + 1), 413, /larger than 15 MB/],
    [
      "a picture that unpacks to too many pixels",
      () => canvas(9000, 9000).png().toBuffer(),
      422,
      /megapixels|not a picture/,
    ],
  ] as const)("refuses %s, says why, and leaves nothing", async (_name, make, status, words) => {
    const before = await counts();
    const answer = await send(await make()).expect(status);
    expect(answer.body.detail).toMatch(words);
    expect(await counts()).toEqual(before);
    expect(tmpdir()).toBe(folder);
    expect(readdirSync(folder)).toEqual([]);
  });

  it("refuses a form without a picture, and a picture without its form", async () => {
    const form = await request(test.app).post(`/api/jobs/${jobId}/photos`).field("photo", JSON.stringify(about()));
    expect([form.status, form.body.errors[0].path]).toEqual([422, "picture"]);
    const bare = await request(test.app).post(`/api/jobs/${jobId}/photos`).send(about());
    expect([bare.status, bare.body.code]).toEqual([415, "unsupported_media_type"]);
    const nameless = await request(test.app)
      .post(`/api/jobs/${jobId}/photos`)
      .attach("picture", await canvas(9, 9).png().toBuffer(), "a.png");
    expect([nameless.status, nameless.body.code]).toEqual([422, "invalid_body"]);
  });
});
