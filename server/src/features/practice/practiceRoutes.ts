import { randomUUID } from "node:crypto";
import {
  type BenchEvent,
  type HandAnswer,
  instrumentKinds,
  type LabelPlate,
  type NewPractice,
  type NewPracticeAct,
  newPracticeSchema,
  noIntakeDetails,
  type OfferedPractice,
  type PracticeEnd,
  type PracticeListPage,
  type PracticePage,
  type PracticeSupplyCard,
  practiceActSchema,
  practiceEndSchema,
  practiceHintSchema,
  practiceListSchema,
  removalSchema,
  routes,
} from "@pale-cap/contract";
import { type Debrief, learnerState, nextSupply } from "@pale-cap/core";
import { kindLabels } from "@pale-cap/wording";
import type { AppContext } from "../../appContext";
import { noCaller, type Scope } from "../../database/scope";
import { HttpProblem } from "../../http/problems";
import { live, type Route, read, requireRight, write } from "../../http/route";
import { setUpInstruments } from "../../instruments/setUpInstruments";
import { loadLines, loadPractice, storeEvents } from "../../practice/loadPractice";
import type { BestWay, PracticeTruth } from "../../practice/practiceBenches";
import { practiceContent } from "../../practice/practiceContent";
import { drawPracticePhoto } from "../../practice/practicePhoto";
import { saveBlob } from "../../records/blobStore";
import { fillBoard } from "../../records/boardCopies";
import { loadJob } from "../../records/loadJobs";
import { markStale } from "../../summaries/markStale";

/** So many supplies may lie on simulated benches at once. */
const mostOpen = 60;

interface Laid {
  readonly set: number;
  readonly card: PracticeSupplyCard;
  readonly photo: Awaited<ReturnType<typeof drawPracticePhoto>>;
}

interface Carried {
  readonly answer: HandAnswer;
  readonly lasting: object;
}

interface Ended {
  readonly debrief: Debrief;
  readonly truth: PracticeTruth;
  readonly best: BestWay;
  readonly events: readonly BenchEvent[];
}

/** Practice: supplies that are nobody's, on benches of their own; what hands do to them, and what they come to. */
export function practiceRoutes(context: AppContext): readonly Route[] {
  const { database, practice, heavy, turns, now } = context;

  /** Where a job's supply lies, as its bench knows it; brought back where the bench was started anew. */
  async function standing(jobId: string): Promise<{ readonly set: number }> {
    const found = await database.read(now(), async (scope) => {
      const supply = await scope.rows.practiceSupplies.first({ jobId });
      const bench = supply?.benchId ? await scope.rows.benches.first({ id: supply.benchId }) : null;
      return supply && { supply, set: bench?.simulatedSet ?? null };
    });
    if (!found) throw new HttpProblem("not_found", "Nobody practises on this job.");
    if (found.set === null) throw new HttpProblem("conflict", "This supply was ended. Take another one.");
    await practice.stands(found.set, found.supply.supply, found.supply.lasting);
    return { set: found.set };
  }
  const probesOff = async (jobId: string) => {
    const meters = await database.read(now(), async ({ rows }) => {
      const bench = await rows.benches.first({ practiceJobId: jobId });
      const all = bench ? await rows.instruments.all({ benchId: bench.id }, [["name", "ASC"]]) : [];
      return all.filter((one) => one.kind === "multimeter" || one.kind === "lcr");
    });
    const off = { points: "", circuitState: null, function: null, frequencyHertz: null, settings: null };
    // One that does not answer has nothing on its probes that could be read.
    for (const { id } of meters) await context.instruments.act(id, off).catch(() => undefined);
  };
  const isKept = (id: string) => database.read(now(), (scope) => scope.rows.practiceActs.has({ id }));

  const begin = write<NewPractice, Laid | null>({
    method: "post",
    path: routes.practice,
    kind: "practice",
    right: "practise",
    creates: true,
    schema: newPracticeSchema,
    prepare: async ({ body }) => {
      const known = await database.read(now(), async ({ rows }) => ({
        isBegun: await rows.jobs.has({ id: body.id }),
        sets: (await rows.benches.all({}, [["simulatedSet", "ASC"]])).map((one) => one.simulatedSet),
        open: (await rows.practiceSupplies.all({}, [["begunAt", "ASC"]])).filter((one) => one.benchId !== null).length,
      }));
      if (known.isBegun) return null;
      if (known.open >= mostOpen) {
        throw new HttpProblem("conflict", `${mostOpen} practice supplies lie open: end one of them first.`);
      }
      const set = practice.take(known.sets);
      try {
        const card = await practice.lay(set, body.supply);
        return { set, card, photo: await drawPracticePhoto(card) };
      } catch (error) {
        practice.giveBack(set);
        throw error;
      }
    },
    write: async (scope, { body }, laid) => {
      if (!laid) throw new HttpProblem("conflict", "This supply is being begun already.");
      await storeBegun(scope, body, laid);
    },
    answer: (scope, { body }) => loadJob(scope, body.id),
    after: () => setUpInstruments(context),
  });

  const act = write<NewPracticeAct, Carried | null>({
    method: "post",
    path: routes.practiceActs,
    kind: "practice act",
    right: "practise",
    creates: true,
    schema: practiceActSchema,
    prepare: async ({ body, params }) => {
      if (await isKept(body.id)) return null;
      const { set } = await standing(params.jobId as string);
      // A new meter's probes touch nothing yet, whatever the old one's did.
      if (body.act.kind === "new_meter") await probesOff(params.jobId as string);
      const answer = await practice.do(set, body.act);
      return { answer, lasting: await practice.lasting(set) };
    },
    write: async (scope, { body, params }, carried) => {
      if (!carried) throw new HttpProblem("conflict", "This is being done already.");
      const jobId = params.jobId as string;
      const { told, minutes, events } = carried.answer;
      const row = { id: body.id, jobId, act: body.act, hintLevel: null, told, minutes, at: now() };
      await scope.rows.practiceActs.insert({ ...row, personId: body.personId });
      await storeEvents(scope, jobId, events);
      await scope.rows.practiceSupplies.update({ lasting: carried.lasting }, { jobId });
    },
    answer: async (scope, { params }) => loadPractice(scope, params.jobId as string),
  });

  const end = write<PracticeEnd, Ended | null>({
    method: "post",
    path: routes.practiceEnd,
    kind: "practice end",
    right: "practise",
    creates: true,
    schema: practiceEndSchema,
    prepare: async ({ body, params }) => {
      const jobId = params.jobId as string;
      if (await database.read(now(), (scope) => scope.rows.practiceResults.has({ jobId }))) return null;
      const { set } = await standing(jobId);
      const { events } = await practice.standing(set);
      await database.write(now(), noCaller, (scope) => storeEvents(scope, jobId, events));
      const [truth, best] = await Promise.all([practice.truth(set), practice.best(set)]);
      const question = { jobId, bad: truth.bad, answer: body.answer, bestMinutes: best.minutes };
      return { debrief: await heavy.debrief(question), truth, best, events };
    },
    write: async (scope, { body, params }, ended) => {
      if (!ended) throw new HttpProblem("conflict", "This supply was ended already.");
      const jobId = params.jobId as string;
      const { debrief: found, truth, best } = ended;
      const { score, skills } = found;
      await scope.rows.practiceResults.insert({
        ...{ jobId, skills, personId: body.personId, endedAt: now() },
        result: { debrief: found, answer: truth.answer, bad: truth.bad, best: best.acts },
        ...{ total: score.total, isPassed: score.isPassed, isFatal: score.isFatal },
        ...{ minutes: found.minutes, bestMinutes: found.bestMinutes },
      });
      await freeBench(scope, jobId);
    },
    answer: async (scope, { params }) => loadPractice(scope, params.jobId as string),
    after: () => setUpInstruments(context),
  });

  /** What acts on a bench happens once, however often a press is sent: one after the other, looked up first. */
  const inTurn = (route: Route, key: (request: Parameters<Route["handle"]>[1]) => string): Route => ({
    ...route,
    handle: (app, request, response) => turns.take(key(request), () => route.handle(app, request, response)),
  });
  const ofJob = (request: Parameters<Route["handle"]>[1]) => `practice ${String(request.params.jobId)}`;

  return [
    {
      ...inTurn(begin, (request) => `practice ${String((request.body as { id?: unknown } | undefined)?.id)}`),
    },
    inTurn(act, ofJob),
    inTurn(end, ofJob),
    write({
      method: "post",
      path: routes.practiceHints,
      kind: "practice hint",
      right: "practise",
      creates: true,
      schema: practiceHintSchema,
      write: async (scope, { body, params }) => {
        const jobId = params.jobId as string;
        await requireOpen(scope, jobId);
        const row = { id: body.id, jobId, act: null, hintLevel: body.level, told: [], minutes: 0, at: now() };
        await scope.rows.practiceActs.insert({ ...row, personId: body.personId });
      },
      answer: async (scope, { params }) => loadPractice(scope, params.jobId as string),
    }),
    live({
      method: "get",
      path: routes.jobPractice,
      right: "practise",
      live: async (_request, response, { params }) => {
        const jobId = params.jobId as string;
        const kept = await database.read(now(), (scope) => loadPractice(scope, jobId));
        if (!kept || kept.result) {
          response.json(kept && { ...kept, state: null });
          return;
        }
        const seen = await standing(jobId)
          .then(({ set }) => practice.standing(set))
          .catch((error: unknown) => {
            if (error instanceof HttpProblem) return null;
            throw error;
          });
        // What came of a reading is kept as soon as somebody looks.
        if (seen && seen.events.length > kept.events.length) {
          await turns.take(`practice ${jobId}`, () =>
            database.write(now(), noCaller, (scope) => storeEvents(scope, jobId, seen.events)),
          );
        }
        const events = seen && seen.events.length > kept.events.length ? seen.events : kept.events;
        response.json({ ...kept, events, state: seen?.state ?? null });
      },
    }),
    {
      method: "get",
      path: routes.practice,
      right: "practise",
      kind: "read",
      handle: async (_app, request, response) => {
        const who = requireRight(request, "practise");
        const { person } = request.query;
        const asked = typeof person === "string" && person !== "" ? person : null;
        // How others come along is the teacher's to see.
        const personId = who.rights.includes("lead_practice") ? asked : who.personId;
        const offered = await practice.offered().catch(() => null);
        response.json(await database.read(now(), (scope) => practicePage(scope, personId, offered)));
      },
    },
    write({
      method: "post",
      path: routes.practiceLists,
      kind: "practice list",
      right: "lead_practice",
      creates: true,
      schema: practiceListSchema,
      write: async (scope, { body }) => {
        const { id, name, passMark, supplies, personId } = body;
        await scope.rows.practiceLists.insert({
          ...{ id, name, passMark, personId, supplies: [...supplies], madeAt: now(), isRemoved: false },
        });
      },
      answer: (scope, { body }) => listPage(scope, body.id),
    }),
    write({
      method: "delete",
      path: routes.practiceList,
      kind: "practice list removal",
      right: "lead_practice",
      schema: removalSchema(),
      write: async (scope, { params }) => {
        await scope.rows.practiceLists.update({ isRemoved: true }, { id: params.listId as string });
      },
      answer: async () => undefined,
    }),
    read({
      path: routes.practiceList,
      right: "lead_practice",
      read: (scope, { params }) => listPage(scope, params.listId as string),
    }),
  ];

  async function storeBegun(scope: Scope, body: NewPractice, { set, card, photo }: Laid): Promise<void> {
    const { id: jobId, supply, listId, personId } = body;
    const { deviceKind, deviceModel, story, topology, difficulty, title } = card;
    await scope.rows.jobs.insert({
      ...{ id: jobId, realm: "practice", takesSimulated: true, createdAt: scope.now, symptoms: [], personId },
      ...{ deviceKind, deviceMaker: null, deviceModel, complaint: story },
      intakeDetails: { topology, labelPlate: labelOf(card) },
    });
    const boardId = randomUUID();
    const content = practiceContent(card.board);
    await scope.rows.boards.insert({ id: boardId, jobId, ...card.board.board, lidZones: [] });
    await fillBoard(scope, boardId, content);
    await scope.rows.photos.insert({
      ...{ id: randomUUID(), jobId, kind: "board_top", caption: null, marks: [], personId, takenAt: scope.now },
      imageSha256: await saveBlob(scope, photo.image, "image/jpeg"),
      thumbnailSha256: await saveBlob(scope, photo.thumbnail, "image/jpeg"),
      ...{ widthPixels: photo.widthPixels, heightPixels: photo.heightPixels, version: 1, isRemoved: false },
    });
    const benchId = randomUUID();
    await scope.rows.benches.insert({
      ...{ id: benchId, name: `Practice ${set}`, version: 1, simulatedSet: set, practiceJobId: jobId },
    });
    await scope.rows.instruments.insertAll(
      instrumentKinds.map((kind) => ({
        ...{
          id: randomUUID(),
          version: 1,
          kind,
          channel: 1,
          benchId,
          name: `${kindLabels[kind]}, practice ${set}`.slice(0, 40),
        },
        ...{ driver: "bench_lines" as const, transport: "simulated" as const, isEnabled: true, isRemoved: false },
        ...{ host: null, port: null, devicePath: null, baudRate: null },
      })),
    );
    await scope.rows.practiceSupplies.insert({
      ...{ jobId, supply, title, story, difficulty, listId, personId, benchId, begunAt: scope.now, lasting: null },
    });
    await markStale(scope, jobId);
    practice.giveBack(set);
  }
}

/** What its label says: the mains that it takes, and what each output gives. */
const labelOf = ({ mainsVoltsRms, board }: PracticeSupplyCard): LabelPlate => ({
  ...noIntakeDetails.labelPlate,
  ...{ inputVoltsLow: mainsVoltsRms, inputVoltsHigh: mainsVoltsRms },
  rails: board.nets.flatMap((net) =>
    net.fullLoadAmps === null ? [] : [{ name: net.name, volts: net.nominalVolts, amps: net.fullLoadAmps }],
  ),
});

async function requireOpen(scope: Scope, jobId: string): Promise<void> {
  const supply = await scope.rows.practiceSupplies.first({ jobId });
  if (!supply) throw new HttpProblem("not_found", "Nobody practises on this job.");
  if (supply.benchId === null) throw new HttpProblem("conflict", "This supply was ended. Take another one.");
}

/** The bench goes, and its place is free for the next; what its instruments read stays. */
async function freeBench(scope: Scope, jobId: string): Promise<void> {
  const supply = await scope.rows.practiceSupplies.first({ jobId });
  const benchId = supply?.benchId ?? null;
  await scope.rows.practiceSupplies.update({ benchId: null }, { jobId });
  if (benchId === null) return;
  await scope.sql("DELETE FROM instruments WHERE bench_id = $1 RETURNING id", [benchId]);
  await scope.sql("DELETE FROM benches WHERE id = $1 RETURNING id", [benchId]);
}

async function practicePage(
  scope: Scope,
  personId: string | null,
  offered: readonly OfferedPractice[] | null,
): Promise<PracticePage> {
  const lines = await loadLines(scope, personId);
  const results = await scope.rows.practiceResults.all(personId === null ? {} : { personId }, [["endedAt", "ASC"]]);
  const trials = results.map((one) => one.skills);
  const course = trials.map((_, n) => learnerState(trials.slice(0, n + 1)));
  const skills = course.at(-1) ?? learnerState([]);
  const done = lines.filter((one) => one.endedAt !== null).map((one) => one.supply);
  return {
    ...{ offered, lines, skills, course, next: offered ? (nextSupply(offered, skills, done)?.name ?? null) : null },
    lists: (await scope.rows.practiceLists.all({ isRemoved: false }, [["madeAt", "ASC"]])).map(toList),
  };
}

const toList = ({
  id,
  name,
  passMark,
  supplies,
}: {
  id: string;
  name: string;
  passMark: number;
  supplies: string[];
}) => ({
  ...{ id, name, passMark, supplies },
});

async function listPage(scope: Scope, listId: string): Promise<PracticeListPage> {
  const list = await scope.rows.practiceLists.first({ id: listId, isRemoved: false });
  if (!list) throw new HttpProblem("not_found", "There is no such list.");
  const own = (await loadLines(scope, null)).filter((one) => one.listId === listId);
  const people = [...new Set(own.map((one) => one.personId))].map((personId) => {
    const theirs = own.filter((one) => one.personId === personId);
    const passed = [...new Set(theirs.filter((one) => one.isPassed === true).map((one) => one.supply))];
    const tried = [...new Set(theirs.map((one) => one.supply))];
    return { personId, passed, tried, isPassed: list.supplies.every((name) => passed.includes(name)) };
  });
  return { list: toList(list), people };
}
