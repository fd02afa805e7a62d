import express from "express";
import request from "supertest";
import { describe, expect, it } from "vitest";
import { object, string } from "yup";
import { problemHandler } from "./problems";
import { fileProblem, receiveUpload } from "./receiveUpload";

const about = object({ id: string().required() }).noUnknown();
const receive = receiveUpload({ noun: "paper", aboutField: "about", about, mostBytes: 2 * 1024 * 1024 });
const app = express()
  .post("/", async (incoming, response) => {
    const { about: said, bytes } = await receive(incoming, response);
    response.json({ said, text: bytes.toString() });
  })
  .use(problemHandler);
const send = () => request(app).post("/");
const refused = async (
  answer: PromiseLike<{ status: number; body: { code: string; detail: string; errors: unknown } }>,
) => {
  const { status, body } = await answer;
  return [status, body.code, body.detail, body.errors];
};
const file = Buffer.from("hello");

describe("an upload", () => {
  it("is one file and what is said about it", async () => {
    const answer = await send().field("about", '{"id":"a"}').attach("paper", file, "p.pdf").expect(200);
    expect(answer.body).toEqual({ said: { id: "a" }, text: "hello" });
  });
  it("is refused where it is no form", async () => {
    expect(await refused(send().send({ id: "a" }))).toEqual([
      ...[415, "unsupported_media_type", "A paper comes as multipart/form-data.", []],
    ]);
  });
  it("is refused without its file, or with one under another name", async () => {
    const missing = await refused(send().field("about", '{"id":"a"}'));
    expect(missing).toEqual([
      ...[422, "invalid_body", "No paper came with it. Nothing was stored.", [{ path: "paper", code: "not_taken" }]],
    ]);
    const other = await refused(send().field("about", '{"id":"a"}').attach("photo", file, "p.pdf"));
    expect(other).toEqual([
      ...[422, "invalid_body", "The upload broke off or is no form with one paper. Nothing was stored."],
      [{ path: "paper", code: "not_taken" }],
    ]);
  });
  it("is refused above its size, with the size in the sentence", async () => {
    const large = Buffer.alloc(2 * 1024 * 1024 + 1);
    const [status, code, detail] = await refused(send().field("about", '{"id":"a"}').attach("paper", large, "p.pdf"));
    expect([status, code, detail]).toEqual([
      413,
      "body_too_large",
      "The paper is larger than 2 MB. Nothing was stored.",
    ]);
    const just = Buffer.alloc(2 * 1024 * 1024);
    await send().field("about", '{"id":"a"}').attach("paper", just, "p.pdf").expect(200);
  });
  it("is refused where what is said is missing, no JSON, or not what is asked", async () => {
    const [status, code, detail] = await refused(send().field("about", "{").attach("paper", file, "p.pdf"));
    expect([status, code, detail]).toEqual([400, "malformed_json", "What is said about the paper is not valid JSON."]);
    expect((await refused(send().attach("paper", file, "p.pdf")))[1]).toBe("invalid_body");
    expect((await refused(send().field("about", "{}").attach("paper", file, "p.pdf")))[1]).toBe("invalid_body");
  });
  it("takes neither a flood of fields nor a flood in one", async () => {
    const many = ["a", "b", "c", "d"].reduce(
      (form, name) => form.field(name, "x"),
      send().field("about", '{"id":"a"}'),
    );
    expect((await refused(many.attach("paper", file, "p.pdf")))[0]).toBe(422);
    const long = send().field("about", `{"id":"${"x".repeat(9000)}"}`);
    expect((await refused(long.attach("paper", file, "p.pdf")))[0]).toBe(422);
    const two = send().field("about", '{"id":"a"}').attach("paper", file, "p.pdf").attach("paper", file, "q.pdf");
    expect((await refused(two))[0]).toBe(422);
  });
});

it("a refusal of the file stands at its field", () => {
  const { code, detail, facts } = fileProblem("photo", "said");
  expect([code, detail, facts.errors]).toEqual(["invalid_body", "said", [{ path: "photo", code: "not_taken" }]]);
});
