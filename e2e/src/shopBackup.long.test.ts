import { type ChildProcess, spawn, spawnSync } from "node:child_process";
import { randomUUID } from "node:crypto";
import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type Browser, openOwnBrowser } from "./browser";
import { freePort } from "./freePort";
import { Page } from "./page";
import { asPage, enterAsFirstLead, leadPassword } from "./shopDoor";

/** A shop as it is started on a machine of its own, with a cluster and backups of its own. */
const checkout = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
const folder = mkdtempSync(join(tmpdir(), "pale-cap-shop-"));
// PostgreSQL runs as a user of its own, who has to get in.
chmodSync(folder, 0o755);
let env: NodeJS.ProcessEnv;
let address: string;
let running: ChildProcess | undefined;
let said = "";
let browser: Browser;
let page: Page;

beforeAll(async () => {
  const port = await freePort();
  address = `http://127.0.0.1:${port}`;
  env = {
    ...process.env,
    ...{ PALE_CAP_DATA: folder, PALE_CAP_MODE: "shop", PALE_CAP_DEMO: "none", LOG_LEVEL: "warn" },
    ...{ PORT: String(port), BENCH_PORT: String(await freePort()) },
  };
  browser = await openOwnBrowser();
  page = new Page(browser.driver, address);
  await start();
});
afterAll(async () => {
  await browser?.close();
  await stop();
  rmSync(folder, { recursive: true, force: true });
});

async function start(): Promise<void> {
  said = "";
  const child = spawn(process.execPath, ["scripts/start.mjs"], {
    cwd: checkout,
    env,
    stdio: ["ignore", "pipe", "inherit"],
  });
  running = child;
  child.stdout.on("data", (chunk) => {
    said += chunk;
  });
  for (let tries = 0; !said.includes("Pale Cap is at"); tries++) {
    if (child.exitCode !== null || tries > 1200) throw new Error(`It did not start: ${said}`);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

async function stop(): Promise<void> {
  const child = running;
  running = undefined;
  if (!child || child.exitCode !== null) return;
  const gone = new Promise((resolve) => child.once("exit", resolve));
  child.kill("SIGTERM");
  await gone;
}

function script(name: string, ...args: string[]): string {
  const { status, stdout, stderr } = spawnSync(process.execPath, [`scripts/${name}.mjs`, ...args], {
    cwd: checkout,
    env,
    encoding: "utf8",
  });
  expect([name, status, stderr]).toEqual([name, 0, ""]);
  return stdout;
}

const signIn = async () => {
  await page.open("/");
  await page.fill("Name you sign in with", "maret");
  await page.fill("Password", leadPassword);
  await page.click("Sign in");
  await page.seeNamed("Maret Olm, at no bench");
};
const takeIn = (complaint: string) => {
  const device = { deviceKind: "monitor", deviceMaker: "Brambix", deviceModel: null, complaint };
  return asPage(page, "/jobs", { id: randomUUID(), ...device, personId: null });
};

it("a shop with accounts is brought back as it was when it was backed up, and nobody is signed in by that", async () => {
  await enterAsFirstLead(page, said);
  await takeIn("hums before the backup");
  expect(script("backup")).toContain("Backup taken");
  await takeIn("clicks after the backup");
  await page.open("/");
  await page.see("clicks after the backup");

  await stop();
  expect(script("restore")).toContain("all as written");
  await start();
  // Nobody gets the link of a shop that has its lead.
  expect(said).not.toContain("/welcome#");
  await page.open("/");
  await page.see("Name you sign in with");
  await signIn();
  await page.see("hums before the backup");
  await page.seeNot("clicks after the backup");
  await page.open("/people/audit");
  await page.see("took a unit in");

  // Whoever lost the password gets in again from the machine's own console, and nobody stays in by the old one.
  expect(script("people", "list")).toContain("maret  Maret Olm  lead");
  const link = /\/welcome#\S+/.exec(script("people", "link", "maret"))?.[0] as string;
  await page.open(link);
  await page.see("Welcome, Maret Olm");
  await page.fill("Password", "iron core 31 again");
  await page.click("Set it and come in");
  await page.seeNamed("Maret Olm, at no bench");
});
