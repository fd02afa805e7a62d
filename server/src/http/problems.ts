import { type FieldProblem, type Problem, type ProblemCode, problemMediaType, waitingCodes } from "@pale-cap/contract";
import type { NextFunction, Request, Response } from "express";
import { ForeignKeyConstraintError, UniqueConstraintError } from "sequelize";
import { isDatabaseAway } from "../database/database";

const titles: Readonly<Record<ProblemCode, readonly [number, string]>> = {
  invalid_body: [422, "Something in the entry cannot be stored"],
  malformed_json: [400, "The request is not valid JSON"],
  body_too_large: [413, "The request is too large"],
  not_found: [404, "There is nothing under this address"],
  id_reused: [409, "This id was used for a different entry"],
  stale_version: [409, "Somebody changed this in the meantime"],
  conflict: [409, "This does not go together with what is stored"],
  method_not_allowed: [405, "This address does not take that method"],
  unsupported_media_type: [415, "This kind of content is not taken here"],
  not_signed_in: [401, "Not signed in"],
  not_allowed: [403, "This is not allowed"],
  too_many: [429, "Too many requests at once"],
  unavailable: [503, "The database does not answer"],
  internal: [500, "The server could not do this"],
};

/** A failure with a place in the documented error shape. */
export class HttpProblem extends Error {
  constructor(
    readonly code: ProblemCode,
    readonly detail: string,
    readonly facts: { readonly errors?: readonly FieldProblem[]; readonly current?: unknown } = {},
  ) {
    super(detail);
  }

  /** Says something of the server or the person, not of what was sent. */
  get isForAll(): boolean {
    return waitingCodes.includes(this.code);
  }

  toProblem(): Problem {
    const [status, title] = titles[this.code];
    const { errors = [], current } = this.facts;
    const problem: Problem = { type: "about:blank", title, status, code: this.code, detail: this.detail, errors };
    return current === undefined ? problem : { ...problem, current };
  }
}

/** The one place where an error becomes a status. What is not known here is logged and told without its inside. */
export function problemHandler(error: unknown, request: Request, response: Response, next: NextFunction): void {
  if (response.headersSent) {
    next(error);
    return;
  }
  const problem = toHttpProblem(error);
  if (problem.code === "internal") request.log?.error({ err: error }, "request failed");
  const body = problem.toProblem();
  response.status(body.status).type(problemMediaType).send(JSON.stringify(body));
}

/** What breaking a unique index means to a person. */
const uniqueConstraints: Readonly<Record<string, FieldProblem & { readonly detail: string }>> = {
  positions_designator: {
    detail: "This designator is already on the board.",
    path: "designator",
    code: "already_on_board",
  },
  fitted_parts_current: {
    detail: "There is a part at this position already.",
    path: "positionId",
    code: "place_taken",
  },
};

/** Any failure as one with a place in the error shape. */
export function toHttpProblem(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof UniqueConstraintError) {
    const { constraint } = error.parent as { constraint?: string };
    const known = constraint ? uniqueConstraints[constraint] : undefined;
    if (!known) return new HttpProblem("conflict", "Something like this is stored already.");
    return new HttpProblem("conflict", known.detail, { errors: [{ path: known.path, code: known.code }] });
  }
  if (error instanceof ForeignKeyConstraintError) {
    return new HttpProblem("conflict", "This refers to something that is not stored.");
  }
  if (isDatabaseAway(error)) {
    return new HttpProblem("unavailable", "Nothing was stored. It is tried again as soon as the database is back.");
  }
  const { type, code, status } = (typeof error === "object" && error !== null ? error : {}) as {
    type?: string;
    code?: string;
    status?: number;
  };
  if (type === "entity.parse.failed") return new HttpProblem("malformed_json", "The body is not valid JSON.");
  if (type === "entity.too.large")
    return new HttpProblem("body_too_large", "The body is larger than this address takes.");
  if (type === "charset.unsupported" || type === "encoding.unsupported") {
    return new HttpProblem("unsupported_media_type", "The body must be UTF-8 JSON.");
  }
  // A body whose packing is broken, or that broke off on the way.
  if (code?.startsWith("Z_") || type === "request.aborted" || type === "request.size.invalid" || status === 400) {
    return new HttpProblem("malformed_json", "The body broke off or cannot be unpacked.");
  }
  if (error instanceof URIError) return new HttpProblem("not_found", "The address cannot be read.");
  return new HttpProblem("internal", "This was not stored. Try again; if it stays, look at the server's log.");
}
