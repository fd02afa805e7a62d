import { type ProblemCode, problemCodes, waitingCodes } from "@pale-cap/contract";
import type { Request, Response } from "express";
import { ConnectionError, ForeignKeyConstraintError, UniqueConstraintError } from "sequelize";
import { describe, expect, it, vi } from "vitest";
import { HttpProblem, problemHandler, toHttpProblem } from "./problems";

const statuses: Readonly<Record<ProblemCode, number>> = {
  ...{ invalid_body: 422, malformed_json: 400, body_too_large: 413, not_found: 404, id_reused: 409 },
  ...{ stale_version: 409, conflict: 409, method_not_allowed: 405, unsupported_media_type: 415, not_signed_in: 401 },
  ...{ not_allowed: 403, too_many: 429, unavailable: 503, internal: 500 },
};
const breaking = (constraint: string) =>
  new UniqueConstraintError({ parent: Object.assign(new Error("unique"), { constraint, sql: "" }) });

describe("a problem", () => {
  it("has a status, a title of its own and what was said, and holds back only what nobody gave", () => {
    const titles = problemCodes.map((code) => new HttpProblem(code, "said").toProblem().title);
    expect(new Set(titles).size).toBe(problemCodes.length);
    expect(titles.every((title) => title.length > 10)).toBe(true);
    for (const code of problemCodes) {
      const problem = new HttpProblem(code, "said").toProblem();
      expect(problem).toEqual({
        ...{ type: "about:blank", title: problem.title, status: statuses[code], code, detail: "said", errors: [] },
      });
    }
    const errors = [{ path: "a", code: "needed" as const }];
    const current = { version: 3 };
    expect(new HttpProblem("stale_version", "", { errors, current }).toProblem()).toMatchObject({ errors, current });
  });
  it("is for all where it says something of the server or the person", () => {
    expect(problemCodes.filter((code) => new HttpProblem(code, "").isForAll).sort()).toEqual([...waitingCodes].sort());
  });
});

describe("any failure", () => {
  it("becomes one with a place in the error shape", () => {
    const codeOf = (error: unknown) => toHttpProblem(error).code;
    const own = new HttpProblem("too_many", "");
    expect(toHttpProblem(own)).toBe(own);
    expect(codeOf(new ForeignKeyConstraintError({}))).toBe("conflict");
    expect(codeOf(new ConnectionError(new Error("refused")))).toBe("unavailable");
    expect(codeOf({ type: "entity.parse.failed", status: 400 })).toBe("malformed_json");
    expect(codeOf({ type: "entity.too.large" })).toBe("body_too_large");
    expect(codeOf({ type: "charset.unsupported" })).toBe("unsupported_media_type");
    expect(codeOf({ type: "encoding.unsupported" })).toBe("unsupported_media_type");
    expect(codeOf({ code: "Z_DATA_ERROR" })).toBe("malformed_json");
    expect(codeOf({ type: "request.aborted" })).toBe("malformed_json");
    expect(codeOf({ type: "request.size.invalid" })).toBe("malformed_json");
    expect(codeOf({ status: 400 })).toBe("malformed_json");
    expect(codeOf(new URIError())).toBe("not_found");
    for (const unknown of [new Error("x"), null, undefined, "thrown", { code: "EZ_", type: "", status: 404 }]) {
      expect(codeOf(unknown)).toBe("internal");
    }
  });
  it("of a unique index says which field it is", () => {
    const told = ["positions_designator", "fitted_parts_current", "some_other", ""].map((name) => {
      const { code, detail, facts } = toHttpProblem(breaking(name));
      return [code, detail.length > 10, facts.errors?.map((one) => [one.path, one.code])];
    });
    expect(told).toEqual([
      ["conflict", true, [["designator", "already_on_board"]]],
      ["conflict", true, [["positionId", "place_taken"]]],
      ["conflict", true, undefined],
      ["conflict", true, undefined],
    ]);
  });
  it("is told in a sentence, whatever it was", () => {
    const errors = [new ForeignKeyConstraintError({}), new ConnectionError(new Error("")), new URIError(), null];
    const types = ["entity.parse.failed", "entity.too.large", "charset.unsupported", "request.aborted"];
    const told = [...errors, ...types.map((type) => ({ type }))].map((error) => toHttpProblem(error).detail);
    expect(told.every((detail) => /^[A-Z].*\.$/.test(detail))).toBe(true);
    expect(new Set(told).size).toBe(told.length);
  });
});

describe("the handler", () => {
  function handle(error: unknown, headersSent = false) {
    const sent: { status?: number; type?: string; body?: string } = {};
    const response = {
      headersSent,
      status: (status: number) => Object.assign(response, { sent: Object.assign(sent, { status }) }),
      type: (type: string) => Object.assign(response, { sent: Object.assign(sent, { type }) }),
      send: (body: string) => Object.assign(sent, { body }),
    };
    const log = { error: vi.fn() };
    const next = vi.fn();
    problemHandler(error, { log } as unknown as Request, response as unknown as Response, next);
    return { sent, log, next };
  }
  it("answers in the shape, and logs only what nobody foresaw", () => {
    const known = handle(new HttpProblem("conflict", "said"));
    expect(known.sent).toMatchObject({ status: 409, type: "application/problem+json" });
    expect(JSON.parse(known.sent.body ?? "")).toMatchObject({ code: "conflict", detail: "said" });
    expect([known.log.error.mock.calls.length, known.next.mock.calls.length]).toEqual([0, 0]);
    const failure = new Error("inside");
    const unknown = handle(failure);
    expect(unknown.log.error).toHaveBeenCalledWith({ err: failure }, "request failed");
    expect(unknown.sent.body).not.toContain("inside");
  });
  it("leaves an answer that has begun to the server", () => {
    const failure = new Error("late");
    const { sent, next } = handle(failure, true);
    expect([sent, next.mock.calls]).toEqual([{}, [[failure]]]);
  });
});
