import type { AccountRole } from "@pale-cap/contract";
import request, { type Agent } from "supertest";
import type { AppContext } from "../appContext";
import type { Limits } from "../http/limits";
import { openChanges } from "../live/changes";
import { hashSecret } from "../people/passwords";
import { openSessions } from "../people/sessions";
import { cloneTemplate, newId, openTestApp, type TestApp } from "./testApp";

export const testPassword = "winding window 9";
export const testPin = "2580";

/** Nobody is slowed down by what is not being tested. */
const wideLimits: Limits = {
  ...{ session: { windowMs: 1000, limit: 1e6 }, address: { windowMs: 1000, limit: 1e6 } },
  ...{ secrets: { windowMs: 1000, limit: 1e6 }, uploads: { windowMs: 1000, limit: 1e6 } },
};

export interface TestPerson {
  readonly accountId: string;
  readonly personId: string;
  readonly login: string;
}

export interface ShopTest extends TestApp {
  readonly people: { readonly [K in AccountRole]: TestPerson };
  /** A browser of its own, signed in as somebody of that role. */
  signedIn(role: AccountRole, benchId?: string | null): Promise<Agent>;
  makePerson(login: string, role: AccountRole): Promise<TestPerson>;
}

/** A shop with one account of each role, on a database of its own. */
export async function openShopTest(more: Partial<AppContext> & { readonly limits?: Limits } = {}): Promise<ShopTest> {
  const urls = await cloneTemplate();
  const sessions = await openSessions({ databaseUrl: urls.app, isSecure: false });
  const changes = openChanges(urls.owner);
  const test = await openTestApp({ sessions, changes, limits: wideLimits, ...more }, "shop", undefined, urls);
  const [passwordHash, pinHash] = await Promise.all([hashSecret(testPassword), hashSecret(testPin)]);
  const makePerson = async (login: string, role: AccountRole): Promise<TestPerson> => {
    const [accountId, personId] = [newId(), newId()];
    await test.inScope(async ({ rows, sql }) => {
      await rows.people.insert({ id: personId, name: `${login} of the shop` });
      await sql(
        `INSERT INTO accounts (id, person_id, login, role, password_hash, pin_hash, made_at)
         VALUES ($1, $2, $3, $4, $5, $6, now()) RETURNING id`,
        [accountId, personId, login, role, passwordHash, pinHash],
      );
    });
    return { accountId, personId, login };
  };
  const people = {
    lead: await makePerson("lead", "lead"),
    technician: await makePerson("technician", "technician"),
    trainee: await makePerson("trainee", "trainee"),
    counter: await makePerson("counter", "counter"),
  };
  return {
    ...test,
    people,
    makePerson,
    signedIn: async (role, benchId = null) => {
      const browser = request.agent(test.app);
      await browser
        .post("/api/session")
        .send({ login: people[role].login, password: testPassword, benchId })
        .expect(200);
      return browser;
    },
    close: async () => {
      await changes.close();
      await sessions.close();
      await test.close();
    },
  };
}
