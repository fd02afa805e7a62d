import { type AccountRole, accountRoles, rightsOf, signedRights } from "@pale-cap/contract";
import { hasAuditWords } from "@pale-cap/wording";
import request, { type Agent } from "supertest";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { declaredRoutes } from "../app";
import type { AppContext } from "../appContext";
import { auditedActs } from "../audit/audit";
import { openShopTest, type ShopTest } from "../testing/shopTest";
import { newId } from "../testing/testApp";
import type { Route } from "./route";

let test: ShopTest;
let routes: readonly Route[];
const browsers = new Map<AccountRole, Agent>();
beforeAll(async () => {
  test = await openShopTest();
  routes = declaredRoutes({} as AppContext);
  for (const role of accountRoles) browsers.set(role, await test.signedIn(role));
});
afterAll(() => test.close());

/** Every address once, with ids that nothing has: what is asked is only whether somebody may ask. */
const addressOf = ({ path }: Route) => path.replace(/:[a-zA-Z]+/g, () => newId());
/** Streams stay open; signing out would end the browser that asks. */
const isLeftOut = ({ method, path }: Route) =>
  path.endsWith("/stream") || (method === "delete" && path.startsWith("/api/session"));

/** What anybody may ask, signed in or not. */
const open = [
  "get /api/health",
  "get /api/ready",
  "get /api/session",
  "post /api/session",
  "delete /api/session",
  "post /api/session/person",
  "post /api/one-time-links",
  "post /api/one-time-links/use",
];

describe("every route", () => {
  it("is shut to nobody but what a sign-in needs and what tells nothing of the shop", async () => {
    expect(
      routes
        .filter((one) => one.right === "anybody")
        .map((one) => `${one.method} ${one.path}`)
        .sort(),
    ).toEqual([...open].sort());
    for (const route of routes.filter((one) => one.right !== "anybody")) {
      const answer = await request(test.app)[route.method](addressOf(route)).send({});
      expect([route.method, route.path, answer.status, answer.body.code]).toEqual([
        ...[route.method, route.path, 401, "not_signed_in"],
      ]);
    }
  });

  it.each(accountRoles)("lets the %s in exactly where the table of rights does", async (role) => {
    const browser = browsers.get(role) as Agent;
    for (const route of routes.filter((one) => one.right !== "anybody" && !isLeftOut(one))) {
      const { status, body } = await browser[route.method](addressOf(route)).send({});
      const isLetIn = status !== 403 && status !== 401;
      expect([route.method, route.path, isLetIn, isLetIn || body.code]).toEqual([
        ...[route.method, route.path, (rightsOf[role] as readonly string[]).includes(route.right)],
        (rightsOf[role] as readonly string[]).includes(route.right) || "not_allowed",
      ]);
    }
  });

  it("keeps from trainees what they are not to do, and from everybody but the lead what is a lead's", () => {
    for (const right of ["overrule", "accept", "change_rules", "hand_over", "erase"] as const) {
      expect([right, rightsOf.trainee.includes(right), rightsOf.technician.includes(right)]).toEqual([
        right,
        false,
        true,
      ]);
    }
    for (const right of ["manage_people", "see_audit", "open_shop", "lead_practice"] as const) {
      expect(accountRoles.filter((role) => rightsOf[role].includes(right))).toEqual(["lead"]);
    }
    expect(rightsOf.counter).not.toContain("measure");
    expect(signedRights).toContain("hand_over");
  });

  it("has words in the audit for what it writes", () => {
    const kinds = routes.filter((one) => !["read", "live", "facts"].includes(one.kind)).map((one) => one.kind);
    expect([...kinds, ...auditedActs].filter((kind) => !hasAuditWords(kind))).toEqual([]);
  });
});
