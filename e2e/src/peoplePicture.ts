import { randomUUID } from "node:crypto";
import type { Page } from "./page";
import type { ServerUnderTest } from "./server";
import { demoLines } from "./views";

const password = "winding window 9";
const benches = ["Bench 1", "By the window", "By the door"] as const;
const people = [
  ["Mira Tolland", "mira", "technician", 0],
  ["Joss Arden", "joss", "technician", 1],
  ["Pim Sorrel", "pim", "trainee", 2],
  ["Odette Farr", "odette", "counter", null],
] as const;

/** A shop with five people at three benches, jobs of the demo on each; the lead looks at it. */
export async function openPeople(server: ServerUnderTest, page: Page): Promise<void> {
  const lead = visitor(server.address);
  const token = /\/welcome#(\S+)/.exec(server.said())?.[1];
  await lead("POST", "/one-time-links/use", { token, name: "Maret Olm", login: "maret", newPassword: password });
  for (const name of benches.slice(1)) await lead("POST", "/benches", { id: randomUUID(), name, hasSimulated: true });
  const places = await lead<readonly { id: string; name: string }[]>("GET", "/bench-places");
  const idOf = (n: number) => places.find((one) => one.name === benches[n])?.id as string;
  for (const [name, login, role, bench] of people) {
    const id = randomUUID();
    await lead("POST", "/accounts", { id, personId: randomUUID(), name, login, role });
    const { path } = await lead<{ path: string }>("POST", `/accounts/${id}/link`, {});
    const own = visitor(server.address);
    await own("POST", "/one-time-links/use", {
      token: path.split("#")[1],
      name: null,
      login: null,
      newPassword: password,
    });
    if (bench !== null) await own("PUT", "/session/bench", { benchId: idOf(bench) });
  }
  const lines = (await demoLines(server.address, (path) => lead("GET", path))).filter((line) => !line.handedOverAt);
  for (const [n, line] of lines.slice(0, 6).entries()) {
    await lead("PUT", `/benches/${idOf(n % 3)}/jobs/${line.id}`, { writeId: randomUUID() });
  }
  await page.open("/");
  await page.fill("Name you sign in with", "maret");
  await page.fill("Password", password);
  await page.click("Sign in");
  await page.seeNamed("Maret Olm, at no bench");
  await page.open("/people");
  await page.see("Pim Sorrel");
}

/** Somebody's browser without a window: what it sends carries its cookie. */
function visitor(address: string) {
  let cookie = "";
  return async <T>(method: string, path: string, body?: object): Promise<T> => {
    const answer = await fetch(`${address}/api${path}`, {
      method,
      headers: { "Content-Type": "application/json", Cookie: cookie },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    cookie = answer.headers.get("set-cookie")?.split(";")[0] ?? cookie;
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
    return (await answer.json()) as T;
  };
}
