import { fork } from "node:child_process";
import { randomUUID } from "node:crypto";
import { fileURLToPath } from "node:url";
import { gzipSync } from "node:zlib";
import pg from "pg";
import { openServer, type ServerUnderTest } from "../server";
import { summary, times } from "./timing";

const jobCount = 20_000;

/** Prints what it measures; nothing here passes or fails. */
export async function benchServer(say: (words: string) => void): Promise<void> {
  const server = await openServer("none");
  const { address } = server;
  await fillShop(server.databaseUrl);
  say(`A shop of ${jobCount} jobs, 300 of them open:`);
  for (const [name, query] of [
    ["bench, open jobs", ""],
    ["bench, closed jobs", "?state=closed"],
    ["bench, closed jobs, far down", "?state=closed&below=500"],
    ["bench, by two words", "?state=closed&search=brambix%20hum"],
  ] as const) {
    const taken = await times(30, () => fetch(`${address}/api/bench${query}`).then((answer) => answer.json()));
    say(`  ${name}: ${summary(taken)}`);
  }
  say("Health meanwhile:");
  const probed = async (name: string, work: () => Promise<string>) => {
    const stop = await startProber(address);
    const words = await work();
    const answers = await stop();
    const wrong = answers.filter(([, status]) => status !== 200).length;
    say(
      `  ${name} (${words}): ${summary(answers.map(([taken]) => taken))}${wrong > 0 ? `, ${wrong} not answered` : ""}`,
    );
  };
  await probed("at rest", async () => {
    await new Promise((resolve) => setTimeout(resolve, 2000));
    return "nothing else";
  });
  const jobId = await makeJob(address);
  await probed("bodies of 500 kB of rubbish", async () => {
    const bodies = [
      JSON.stringify({ id: randomUUID(), changes: Array.from({ length: 240_000 }, () => 1) }),
      JSON.stringify({
        id: randomUUID(),
        ...Object.fromEntries(Array.from({ length: 40_000 }, (_, n) => [`x${n}`, 1])),
      }),
      `${'{"a":'.repeat(60_000)}1${"}".repeat(60_000)}`,
      JSON.stringify({ id: randomUUID(), changes: Array.from({ length: 400 }, () => wrongChange("x".repeat(900))) }),
    ];
    const taken = await times(40, async (n) =>
      post(address, `/api/jobs/${jobId}/board-edits`, bodies[n % 4] as string),
    );
    return `each ${summary(taken)}`;
  });
  await probed("forty rule changes at once", () =>
    atOnce(40, (n) =>
      post(
        address,
        "/api/house-rules/changes",
        JSON.stringify({
          ...{ id: randomUUID(), key: "judge.school", value: n % 2 ? "ten" : "twenty", reason: null, version: 0 },
          ...{ changedAt: new Date().toISOString(), clockId: null, personId: null },
        }),
      ),
    ),
  );
  await probed("forty new jobs, then forty hand-overs at once", async () => {
    const ids = await Promise.all(Array.from({ length: 40 }, () => makeJob(address)));
    return atOnce(40, (n) =>
      post(
        address,
        `/api/jobs/${ids[n]}/hand-over`,
        JSON.stringify({
          ...{ id: randomUUID(), version: 1, handedOverAt: new Date().toISOString(), warrantyMonths: 6, note: null },
          ...{ spentMinutes: null, isReopened: false, clockId: null, personId: null },
        }),
      ),
    );
  });
  await probed("a thousand readings of one job at once", () =>
    atOnce(1000, () => post(address, `/api/jobs/${jobId}/readings`, JSON.stringify(readingOfUnit(jobId)))),
  );
  const netId = await makeNet(address, jobId);
  const samples = gzipSync(Buffer.from(Float32Array.from({ length: 5e6 }, (_, n) => Math.sin(n / 50)).buffer));
  await probed("six captures of five million samples at once", () =>
    atOnce(6, () => postCapture(address, jobId, netId, samples)),
  );
  const taken = await untilHeard(server, jobId);
  say(`A reading, until a page that listens to another process of the server is told: ${summary(taken)}`);
  await server.close();
}

/** From sending a reading to one process until whoever listens to another one hears of it. */
async function untilHeard(server: ServerUnderTest, jobId: string): Promise<readonly number[]> {
  const other = await openServer("none", undefined, { beside: server });
  const ending = new AbortController();
  const { body } = await fetch(`${other.address}/api/jobs/${jobId}/stream`, { signal: ending.signal });
  const reader = (body as ReadableStream<Uint8Array>).getReader();
  const told = async () => {
    for (let text = ""; !text.includes('"changed"'); )
      text += Buffer.from((await reader.read()).value ?? []).toString();
  };
  const taken: number[] = [];
  for (let n = 0; n < 30; n++) {
    const start = performance.now();
    const body = JSON.stringify(readingOfUnit(jobId));
    await Promise.all([told(), post(server.address, `/api/jobs/${jobId}/readings`, body)]);
    taken.push(performance.now() - start);
    // A second word of the same reading, where there is one, is not the next one's.
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  ending.abort();
  await other.close();
  return taken;
}

async function atOnce(count: number, work: (n: number) => Promise<number>): Promise<string> {
  const start = performance.now();
  const statuses = await Promise.all(Array.from({ length: count }, (_, n) => work(n)));
  const told = [...new Set(statuses)]
    .sort()
    .map((status) => `${statuses.filter((one) => one === status).length} x ${status}`);
  return `${told.join(", ")} in ${Math.round(performance.now() - start)} ms`;
}

async function post(address: string, path: string, body: string): Promise<number> {
  const headers = { "Content-Type": "application/json" };
  const answer = await fetch(`${address}${path}`, { method: "POST", headers, body });
  await answer.arrayBuffer();
  return answer.status;
}

type Probed = readonly (readonly [taken: number, status: number])[];

async function startProber(address: string): Promise<() => Promise<Probed>> {
  const child = fork(fileURLToPath(new URL("./prober.mjs", import.meta.url)), [address], { execArgv: [] });
  await new Promise((resolve) => child.once("message", resolve));
  return async () => {
    const answers = new Promise<Probed>((resolve) => child.once("message", (told) => resolve(told as Probed)));
    child.kill("SIGTERM");
    return answers;
  };
}

async function makeJob(address: string): Promise<string> {
  const id = randomUUID();
  const device = { deviceKind: "monitor", deviceMaker: null, deviceModel: null, complaint: null, personId: null };
  await post(address, "/api/jobs", JSON.stringify({ id, ...device }));
  return id;
}

const net = (id: string, name: string) => ({
  ...{ table: "net", operation: "insert", id, version: null },
  values: {
    ...{ name, section: "output", nominalVolts: 12, fullLoadAmps: null, toleranceRatio: null },
    ...{ rippleLimitVolts: null, network: null, converter: null },
  },
});
const wrongChange = (name: string) => ({ ...net("no id", name), version: "none" });

async function makeNet(address: string, jobId: string): Promise<string> {
  const id = randomUUID();
  await post(
    address,
    `/api/jobs/${jobId}/board-edits`,
    JSON.stringify({ id: randomUUID(), changes: [net(id, "12 V")] }),
  );
  return id;
}

function readingOfUnit(jobId: string) {
  return {
    ...{ id: randomUUID(), targetKind: "unit", targetId: jobId, fittedPartId: null, quantity: "power", value: 12 },
    ...{ coarseCode: null, terminals: null, uncertainty: null, circuitState: null, frequencyHertz: null },
    ...{ temperatureCelsius: null, isPowered: true, loadAmps: null, rawText: null, instrument: null },
    rig: {
      ...{ isIsolationTransformer: false, isSeriesLamp: false, isElectronicLimiter: false },
      ...{ areLeadsZeroed: true, measuredAt: null },
    },
    ...{ isWithdrawn: false, supersedesId: null, measuredAt: new Date().toISOString(), clockId: null, personId: null },
  };
}

async function postCapture(address: string, jobId: string, netId: string, samples: Buffer): Promise<number> {
  const volts = {
    meanVolts: 0,
    peakToPeakVolts: 2,
    limitedPeakToPeakVolts: null,
    rmsVolts: 0.7,
    quietPeakToPeakVolts: 2,
  };
  const form = new FormData();
  form.append(
    "about",
    JSON.stringify({
      ...{ id: randomUUID(), netId, name: "sine", loadAmps: null, instrument: null, clockId: null, personId: null },
      ...{ coreVersion: "bench", measuredAt: new Date().toISOString() },
      rig: { hasLongGroundLead: false, isAcCoupled: true, isIsolationTransformer: false, isBandwidthLimited: false },
      analysis: {
        ...{ sampleCount: 5e6, intervalSeconds: 1e-6, ...volts, spikePeakToPeakVolts: 0, spikesPerSecond: 0 },
        ...{ mains: null, doubleMains: null, switching: null, pulsing: null, driftVoltsPerSecond: 0, dominant: [] },
      },
    }),
  );
  form.append("capture", new Blob([new Uint8Array(samples)]), "samples.gz");
  const answer = await fetch(`${address}/api/jobs/${jobId}/captures`, { method: "POST", body: form });
  await answer.arrayBuffer();
  return answer.status;
}

/** Rows as many closed jobs and some open ones leave them. */
async function fillShop(applicationUrl: string): Promise<void> {
  const url = new URL(process.env.TEST_POSTGRES_ADDRESS as string);
  url.pathname = new URL(applicationUrl).pathname;
  const client = new pg.Client({ connectionString: url.href });
  await client.connect();
  await client.query(
    `INSERT INTO jobs (id, realm, number, device_kind, device_maker, device_model, complaint, created_at, handed_over_at)
     SELECT gen_random_uuid(), 'shop', n, 'monitor', (ARRAY['Brambix', 'Quorvane', 'Zwenth'])[1 + n % 3], 'Model ' || n,
       (ARRAY['dead', 'a loud hum', 'resets under load', 'dark after a minute'])[1 + n % 4],
       now() - make_interval(hours => ${jobCount} - n), CASE WHEN n % 67 = 0 THEN NULL ELSE now() END
     FROM generate_series(1, ${jobCount}) n`,
  );
  await client.query(
    `INSERT INTO boards (id, job_id, place, width_metres, depth_metres, lid_zones)
     SELECT gen_random_uuid(), id, 1, 0.15, 0.1, '[]' FROM jobs`,
  );
  await client.query(
    `INSERT INTO job_summaries (job_id, realm, number, is_closed, is_stale, folded_by, search_text)
     SELECT id, realm, number, handed_over_at IS NOT NULL, false, 'bench', lower(device_maker || ' ' || device_model || ' ' || complaint)
     FROM jobs`,
  );
  await client.query("SELECT setval(pg_get_serial_sequence('jobs', 'number'), (SELECT max(number) FROM jobs))");
  await client.query("VACUUM ANALYZE");
  await client.end();
}
