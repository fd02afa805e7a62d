import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { request } from "node:https";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { servingFrom } from "./serving";
import { type RunningServer, startServer } from "./startServer";
import { cloneTemplate, dropDatabase } from "./testing/testApp";

const folder = mkdtempSync(join(tmpdir(), "pale-cap-tls-"));
const [key, cert] = ["key.pem", "cert.pem"].map((name) => join(folder, name)) as [string, string];
let urls: Awaited<ReturnType<typeof cloneTemplate>>;
let running: RunningServer | null = null;

beforeAll(async () => {
  const made = spawnSync("openssl", [
    ...[
      "req",
      "-x509",
      "-newkey",
      "rsa:2048",
      "-nodes",
      "-days",
      "2",
      "-keyout",
      key,
      "-out",
      cert,
      "-subj",
      "/CN=localhost",
    ],
  ]);
  expect(made.status).toBe(0);
  urls = await cloneTemplate();
});
afterAll(async () => {
  await running?.close();
  await dropDatabase(urls);
  rmSync(folder, { recursive: true, force: true });
});

const tls = { PALE_CAP_MODE: "shop", PALE_CAP_TLS_CERT: cert, PALE_CAP_TLS_KEY: key };
const start = (serving: ReturnType<typeof servingFrom>, say: (words: string) => void = () => undefined) =>
  startServer({
    ...{ databaseUrl: urls.app, ownerUrl: urls.owner, port: 0, withDemo: false, benchPort: 1, backupFolder: null },
    ...{ serving, say },
  });

describe("a server that is started", () => {
  it("beyond this machine without accounts is not", async () => {
    // As it would be beyond it; what is tried here never leaves loopback.
    const beyond = { ...servingFrom(tls), isLoopback: false };
    await expect(start(beyond)).rejects.toThrow("This shop has no accounts yet");
  });
  it("with a certificate speaks TLS, shows the first link, and its port opens nothing in clear", async () => {
    let said = "";
    running = await start(servingFrom(tls), (words) => {
      said += words;
    });
    const { address } = running;
    expect([address.startsWith("https://127.0.0.1:"), said.includes(`${address}/welcome#`)]).toEqual([true, true]);
    const body = await new Promise<string>((resolve, reject) => {
      const asked = request(`${address}/api/session`, { rejectUnauthorized: false }, (answer) => {
        let text = "";
        answer.on("data", (chunk) => {
          text += chunk;
        });
        answer.on("end", () => resolve(text));
      });
      asked.on("error", reject).end();
    });
    expect(JSON.parse(body)).toMatchObject({ mode: "shop", who: null, isFirstStart: true });
    await expect(fetch(address.replace("https", "http"))).rejects.toThrow();
  });
});
