import { afterAll, beforeAll, expect, it } from "vitest";
import { openTestApp, type TestApp } from "../testing/testApp";
import { blobChunks, findBlob, readBlob, saveBlob } from "./blobStore";

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

it("gives bytes back as they came, whole or piece by piece, however many pieces they are", async () => {
  const bytes = Buffer.from(Array.from({ length: 600_000 }, (_, n) => (n * 7 + (n >> 10)) % 251));
  const sha256 = await test.inScope((scope) => saveBlob(scope, bytes, "image/webp"));
  const again = await test.inScope((scope) => saveBlob(scope, bytes, "image/png"));
  expect(again).toBe(sha256);
  const blob = await test.inScope((scope) => findBlob(scope, sha256));
  expect(blob).toMatchObject({ sha256, mediaType: "image/webp", sizeBytes: 600_000 });
  const whole = await test.inScope((scope) => readBlob(scope, sha256));
  expect(whole?.equals(bytes)).toBe(true);
  const pieces: Buffer[] = [];
  if (blob) for await (const piece of blobChunks(test.context.database, blob)) pieces.push(piece);
  expect(pieces).toHaveLength(3);
  expect(Buffer.concat(pieces).equals(bytes)).toBe(true);
  expect(await test.inScope((scope) => readBlob(scope, "0".repeat(64)))).toBeNull();
});
