import { spawn, spawnSync } from "node:child_process";
import { randomUUID } from "node:crypto";
import { chmodSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { request } from "node:https";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pg from "pg";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ensureFrontPrograms } from "./frontPrograms.mjs";
import { checkout } from "./paths.mjs";

/**
 * What docs/operation.md describes, as its examples stand: a proxy with TLS in front of two server processes, and a pooler in
 * transaction mode between them and the database.
 */
const folder = mkdtempSync(join(tmpdir(), "pale-cap-front-"));
const name = `test_front_${randomUUID().replaceAll("-", "")}`;
const host = "bench.example.net";
const children = [];
const servers = [];
let said = "";
let ports;

const freePort = () =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, "127.0.0.1", () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });
const until = async (what, condition, tries = 900) => {
  for (let n = 0; n < tries; n++) {
    if (await condition()) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`Waited in vain until ${what}: ${said.slice(-2000)}`);
};
const onPostgres = async (address, statement) => {
  const client = new pg.Client({ connectionString: address });
  await client.connect();
  try {
    return (await client.query(statement)).rows;
  } finally {
    await client.end();
  }
};
const example = (file, changes) => {
  let text = readFileSync(join(checkout, "docs/examples", file), "utf8");
  for (const [stands, put] of changes) {
    expect(text).toContain(stands);
    text = text.replaceAll(stands, put);
  }
  const written = join(folder, file);
  writeFileSync(written, text, { mode: 0o644 });
  return written;
};
function begin(program, args, options) {
  const child = spawn(program, args, { stdio: ["ignore", "pipe", "pipe"], ...options });
  for (const stream of [child.stdout, child.stderr]) {
    stream.on("data", (chunk) => {
      said += chunk;
    });
  }
  children.push(child);
  return child;
}

beforeAll(async () => {
  chmodSync(folder, 0o755);
  const { TEST_POSTGRES_ADDRESS: superuser, TEST_POSTGRES_OWNER: owner, TEST_POSTGRES_APP: app } = process.env;
  const { nginx, pgbouncer, env } = ensureFrontPrograms();
  ports = { front: await freePort(), pool: await freePort(), servers: [await freePort(), await freePort()] };
  await onPostgres(`${superuser}postgres`, `CREATE DATABASE ${name} OWNER pale_cap_owner`);

  const own = new URL(`${app}${name}`);
  writeFileSync(join(folder, "userlist.txt"), `"${own.username}" "${decodeURIComponent(own.password)}"\n`, {
    mode: 0o644,
  });
  const ini = example("pgbouncer.ini", [
    ["host=127.0.0.1 port=5432 dbname=pale_cap", `host=${own.hostname} port=${own.port || 5432} dbname=${name}`],
    ["listen_port = 6432", `listen_port = ${ports.pool}`],
    ["/etc/pgbouncer/userlist.txt", join(folder, "userlist.txt")],
    // Few enough that many requests have to share.
    ["default_pool_size = 8", "default_pool_size = 3"],
  ]);
  const asOther = process.getuid?.() === 0 ? ["-u", "postgres"] : [];
  begin(pgbouncer, ["-q", ...asOther, ini], { env });

  const [key, cert] = [join(folder, "key.pem"), join(folder, "cert.pem")];
  const subject = ["-subj", `/CN=${host}`, "-addext", `subjectAltName=DNS:${host}`];
  const made = spawnSync("openssl", [
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
    ...subject,
  ]);
  expect(made.status).toBe(0);
  const conf = example("nginx.conf", [
    ["/run/pale-cap-nginx.pid", join(folder, "nginx.pid")],
    ["/var/log/nginx/pale-cap-error.log", join(folder, "error.log")],
    ["127.0.0.1:4780", `127.0.0.1:${ports.servers[0]}`],
    ["127.0.0.1:4790", `127.0.0.1:${ports.servers[1]}`],
    ["listen 443 ssl", `listen 127.0.0.1:${ports.front} ssl`],
    ["/etc/pale-cap/cert.pem", cert],
    ["/etc/pale-cap/key.pem", key],
    [
      "http {",
      ["client_body", "proxy", "fastcgi", "uwsgi", "scgi"].reduce(
        (text, kind) => `${text}\n  ${kind}_temp_path ${folder}/${kind};`,
        "http {",
      ),
    ],
  ]);
  begin(nginx, ["-p", folder, "-c", conf, "-g", "daemon off;"], { env });

  const pooled = new URL(own);
  pooled.hostname = "127.0.0.1";
  pooled.port = String(ports.pool);
  pooled.pathname = "/pale_cap";
  const environment = {
    ...process.env,
    ...{
      DATABASE_URL: pooled.href,
      DATABASE_OWNER_URL: `${owner}${name}`,
      PALE_CAP_DEMO: "none",
      PALE_CAP_MODE: "shop",
    },
    ...{ PALE_CAP_HOSTS: `${host}:${ports.front}`, PALE_CAP_TRUSTED_PROXIES: "127.0.0.1", LOG_LEVEL: "info" },
  };
  for (const port of ports.servers) {
    const env = { ...environment, PORT: String(port), BENCH_PORT: "1" };
    servers.push(begin(process.execPath, ["server/dist/main.mjs"], { cwd: checkout, env }));
    // Each by itself: the proxy answers as soon as one of them does.
    const lives = () =>
      fetch(`http://127.0.0.1:${port}/api/health`).then(
        (answer) => answer.ok,
        () => false,
      );
    await until("it lives", lives);
  }
  await until("a link is shown", () => said.includes("/welcome#"));
}, 120_000);
afterAll(async () => {
  for (const child of children) {
    if (child.exitCode !== null || child.signalCode !== null) continue;
    const gone = new Promise((resolve) => child.once("exit", resolve));
    child.kill(servers.includes(child) ? "SIGTERM" : "SIGINT");
    await gone;
  }
  await onPostgres(`${process.env.TEST_POSTGRES_ADDRESS}postgres`, `DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  rmSync(folder, { recursive: true, force: true });
});

let cookie = "";
/** As a browser of the shop's network asks. */
function ask(method, path, body, more = {}) {
  return new Promise((resolve, reject) => {
    const text = body === undefined ? undefined : JSON.stringify(body);
    const sent = request(
      {
        ...{
          host: "127.0.0.1",
          port: ports.front,
          servername: host,
          rejectUnauthorized: false,
          method,
          path,
          agent: false,
        },
        headers: {
          ...{ Host: `${host}:${ports.front}`, Origin: `https://${host}:${ports.front}`, Cookie: cookie },
          ...(text ? { "Content-Type": "application/json", "Content-Length": Buffer.byteLength(text) } : {}),
          ...more,
        },
      },
      (answer) => {
        let said = "";
        answer.on("data", (chunk) => {
          said += chunk;
        });
        answer.on("end", () => {
          const isJson = /json/.test(answer.headers["content-type"] ?? "");
          resolve({ status: answer.statusCode, headers: answer.headers, body: isJson ? JSON.parse(said) : said });
        });
      },
    );
    sent.on("error", reject);
    sent.end(text);
  });
}

/** What a stream says, until it is ended. */
function listen(path) {
  const heard = [];
  const sent = request(
    {
      ...{ host: "127.0.0.1", port: ports.front, servername: host, rejectUnauthorized: false, path, agent: false },
      headers: { Host: `${host}:${ports.front}`, Cookie: cookie, Accept: "text/event-stream" },
    },
    (answer) => answer.on("data", (chunk) => heard.push(String(chunk))),
  );
  sent.on("error", () => undefined);
  sent.end();
  return { heard, end: () => sent.destroy() };
}

const device = { deviceKind: "monitor", deviceMaker: "Brambix", deviceModel: null, complaint: "dead", personId: null };
const makeJob = async () => {
  const id = randomUUID();
  const { status, body } = await ask("POST", "/api/jobs", { id, ...device });
  expect([status, body.code]).toEqual([201, undefined]);
  return id;
};

describe("behind the example of a proxy, over the example of a pooler", () => {
  it("signs in over TLS, with a cookie that goes over nothing else", async () => {
    const token = /\/welcome#(\S+)/.exec(said)[1];
    const link = { token, name: "Maret Olm", login: "maret", newPassword: "winding window 9" };
    const { status, headers } = await ask("POST", "/api/one-time-links/use", link);
    expect(status).toBe(200);
    const [set] = headers["set-cookie"];
    expect(set).toMatch(/^__Host-pale-cap=.*; Path=\/;.*HttpOnly; Secure; SameSite=Strict/);
    expect(headers["strict-transport-security"]).toBeDefined();
    cookie = set.split(";")[0];
    // Either process knows who it is.
    for (let n = 0; n < 6; n++) expect((await ask("GET", "/api/bench")).status).toBe(200);
  });

  it("refuses other names and pages of other origins, plain ones of the same name too", async () => {
    expect((await ask("GET", "/api/bench", undefined, { Host: "evil.example" })).status).toBe(403);
    for (const origin of ["https://evil.example", `http://${host}:${ports.front}`, "null"]) {
      const { status } = await ask("POST", "/api/jobs", { id: randomUUID(), ...device }, { Origin: origin });
      expect([origin, status]).toEqual([origin, 403]);
    }
  });

  it("works over shared connections: many at once, and nothing of one request in another", async () => {
    const jobs = await Promise.all(Array.from({ length: 24 }, makeJob));
    const read = await Promise.all(jobs.map((id) => ask("GET", `/api/jobs/${id}`)));
    expect(read.map(({ body }) => body.job.id)).toEqual(jobs);
    expect(new Set(read.map(({ body }) => body.job.number)).size).toBe(24);
  });

  it("streams what the other process stored at once, unbuffered", async () => {
    const id = await makeJob();
    const streams = [listen(`/api/jobs/${id}/stream`), listen(`/api/jobs/${id}/stream`)];
    await until("both hear", () => streams.every(({ heard }) => heard.join("").includes("present")));
    const before = streams.map(({ heard }) => heard.join("").split('"changed"').length);
    await ask("POST", `/api/jobs/${id}/boards`, { id: randomUUID(), name: "Spare" });
    await until(
      "both heard it",
      () => streams.every(({ heard }, n) => heard.join("").split('"changed"').length > before[n]),
      50,
    );
    for (const stream of streams) stream.end();
  });

  it("goes on when one process is killed, and logs nobody's words", async () => {
    servers[0].kill("SIGKILL");
    for (let n = 0; n < 10; n++) expect((await ask("GET", "/api/people")).status).toBe(200);
    // Whoever works with instruments is sent to the process that is left.
    for (let n = 0; n < 4; n++) expect((await ask("GET", "/api/instruments")).status).toBe(200);
    await until(
      "writes go on",
      async () => (await ask("POST", "/api/jobs", { id: randomUUID(), ...device })).status === 201,
    );
    await ask("GET", "/api/casebook?search=Maret+Olm");
    for (const word of ["Maret+Olm", "winding window", "maret", cookie.split("=")[1]]) {
      expect(said.includes(word)).toBe(false);
    }
  });
});
