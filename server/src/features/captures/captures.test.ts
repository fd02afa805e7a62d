import { gzipSync } from "node:zlib";
import type { CaptureRow, JobDetail, Problem } from "@pale-cap/contract";
import { analyseCapture } from "@pale-cap/core";
import request from "supertest";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type MadePart, makeJob, makePart, newId, openTestApp, type TestApp } from "../../testing/testApp";

let test: TestApp;
let jobId: string;
let part: MadePart;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());
beforeEach(async () => {
  jobId = await makeJob(test.app);
  part = await makePart(test.app, jobId);
});

const samples = Float32Array.from({ length: 4000 }, (_, n) => 0.1 * (0.5 - ((n * 4e-7 * 65e3) % 1)));
const packed = (values: Float32Array) => gzipSync(Buffer.from(values.buffer));
const about = (more: object = {}) => ({
  id: newId(),
  netId: part.netId,
  name: "12 V, full load",
  loadAmps: 4,
  rig: { hasLongGroundLead: true, isAcCoupled: true, isIsolationTransformer: false, isBandwidthLimited: false },
  analysis: analyseCapture(samples, 4e-7, 50),
  coreVersion: "0.1.0",
  instrument: null,
  measuredAt: "2026-11-23T11:00:00.000Z",
  clockId: null,
  personId: null,
  ...more,
});
const send = (body: object, bytes = packed(samples), id = jobId) =>
  request(test.app)
    .post(`/api/jobs/${id}/captures`)
    .field("about", JSON.stringify(body))
    .attach("capture", bytes, "samples.gz");
const stored = async () => ((await request(test.app).get(`/api/jobs/${jobId}`)).body as JobDetail).captures;

describe("a capture", () => {
  it("is stored once under retry, with its rig and analysis, and gives its samples back to the bit", async () => {
    const body = about();
    await send(body).expect(201);
    await send(body).expect(200);
    const [capture, ...others] = await stored();
    expect(others).toEqual([]);
    expect(capture).toMatchObject({ rig: { hasLongGroundLead: true }, loadAmps: 4, netId: part.netId });
    expect((capture as CaptureRow).analysis.switching?.frequencyHertz).toBeCloseTo(65e3, -2);
    const answer = await request(test.app)
      .get(`/api/captures/${capture?.id}/samples`)
      .buffer()
      .parse((stream, done) => {
        const chunks: Buffer[] = [];
        stream.on("data", (chunk: Buffer) => chunks.push(chunk));
        stream.on("end", () => done(null, Buffer.concat(chunks)));
      });
    const bytes = answer.body as Buffer;
    expect(bytes.equals(Buffer.from(samples.buffer))).toBe(true);
  });
  it("is taken off without losing its row's name to another", async () => {
    const body = about();
    await send(body).expect(201);
    const path = `/api/jobs/${jobId}/captures/${body.id}`;
    await request(test.app).delete(path).send({ writeId: newId(), version: 7 }).expect(409);
    const removal = { writeId: newId(), version: 1 };
    await request(test.app).delete(path).send(removal).expect(204);
    await request(test.app).delete(path).send(removal).expect(204);
    expect(await stored()).toEqual([]);
    await request(test.app).get(`/api/captures/${body.id}/samples`).expect(404);
  });
  it("is refused with a sentence where it is not what is said of it, and changes nothing", async () => {
    const short = await send(about(), packed(samples.subarray(0, 100).slice())).expect(422);
    expect((short.body as Problem).detail).toContain("not as many samples");
    const longer = Float32Array.from([...samples, 0]);
    expect(((await send(about(), packed(longer)).expect(422)).body as Problem).detail).toContain("not as many samples");
    const holed = samples.slice();
    holed[7] = Number.NaN;
    expect(((await send(about(), packed(holed)).expect(422)).body as Problem).detail).toContain("Sample 8");
    await send(about(), Buffer.from("no gzip at all")).expect(422);
    await send(about({ netId: newId() })).expect(409);
    await send(about({ analysis: { ...about().analysis, sampleCount: 3 } })).expect(422);
    const otherJob = await makeJob(test.app);
    await send(about(), packed(samples), otherJob).expect(409);
    expect(await stored()).toEqual([]);
  });

  it("keeps which core analysed it, and takes a newer core's analysis of the same samples, from the version seen", async () => {
    await send(about()).expect(201);
    const [capture] = await stored();
    expect(capture?.coreVersion).toBe("0.1.0");
    const analysis = { ...about().analysis, quietPeakToPeakVolts: 0.0987 };
    const redo = (more: object = {}) =>
      request(test.app)
        .put(`/api/jobs/${jobId}/captures/${capture?.id}/analysis`)
        .send({ writeId: newId(), version: 1, coreVersion: "0.2.0", analysis, ...more });
    await redo({ analysis: { ...analysis, sampleCount: 3999 } }).expect(409);
    await redo({ coreVersion: "" }).expect(422);
    await redo().expect(200);
    await redo().expect(409);
    expect(await stored()).toMatchObject([
      { version: 2, coreVersion: "0.2.0", analysis: { quietPeakToPeakVolts: 0.0987, sampleCount: 4000 } },
    ]);
  });
});
