import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Scope } from "../database/scope";
import type { HttpProblem } from "../http/problems";
import { type MadePart, makeJob, makePart, newId, openTestApp, type TestApp } from "../testing/testApp";
import * as ownership from "./ownership";
import { requireSeen } from "./seen";
import { simulatedHere } from "./simulated";

let test: TestApp;
let jobId: string;
let otherId: string;
let part: MadePart;
beforeAll(async () => {
  test = await openTestApp();
  [jobId, otherId] = [await makeJob(test.app), await makeJob(test.app)];
  part = await makePart(test.app, jobId);
});
afterAll(() => test.close());

const refusal = (work: (scope: Scope) => Promise<unknown>) =>
  test.inScope(work).then(
    () => null,
    ({ code, detail, facts }: HttpProblem) => ({ code, detail, errors: facts.errors }),
  );

describe("what a row refers to", () => {
  const { requireNetOfJob, requirePartOfJob, requirePositionOfJob, requireTarget } = ownership;
  it.each([
    ["positionId", requirePositionOfJob, () => part.positionId],
    ["netId", requireNetOfJob, () => part.netId],
    ["fittedPartId", requirePartOfJob, () => part.partId],
  ] as const)("is of the same job, or refused by its field: %s", async (field, require, id) => {
    expect(await refusal((scope) => require(scope, jobId, id()))).toBeNull();
    for (const [asked, what] of [
      [otherId, id()],
      [jobId, newId()],
    ] as const) {
      expect(await refusal((scope) => require(scope, asked, what))).toMatchObject({
        code: "conflict",
        errors: [{ path: field, code: "not_on_job" }],
      });
    }
  });

  it("is what a reading is aimed at: the unit itself, a place or a rail of it, each by its own kind", async () => {
    const aimed = (targetKind: "unit" | "part" | "net", targetId: string) =>
      refusal((scope) => requireTarget(scope, jobId, { targetKind, targetId }));
    expect(await aimed("unit", jobId)).toBeNull();
    expect(await aimed("part", part.positionId)).toBeNull();
    expect(await aimed("net", part.netId)).toBeNull();
    expect(await aimed("unit", otherId)).toMatchObject({ code: "conflict", detail: "The unit is another job's." });
    const notOnJob = { code: "conflict", errors: [{ path: "targetId", code: "not_on_job" }] };
    expect(await aimed("part", part.netId)).toMatchObject(notOnJob);
    expect(await aimed("net", part.positionId)).toMatchObject(notOnJob);
  });

  it("may be a place that was taken off the board: what was confirmed before still comes", async () => {
    const gone = await makePart(test.app, jobId, "C9");
    await test.inScope(({ sql }) =>
      sql("UPDATE positions SET deleted_at = now() WHERE id = $1 RETURNING id", [gone.positionId]),
    );
    expect(await refusal((scope) => requirePositionOfJob(scope, jobId, gone.positionId))).toBeNull();
  });
});

describe("a value of a simulated instrument", () => {
  it("is known by what is said or by the instrument's name, and refused on a customer's unit and where there is no job", async () => {
    const [bench] = await test.inScope(({ rows }) =>
      rows.instruments.all({ transport: "simulated" }, [["name", "ASC"]]),
    );
    const name = bench?.name ?? "";
    const told = (value: { isSimulated?: boolean; instrument?: string | null }, takesSimulated: boolean | null) =>
      test.inScope(async (scope) => {
        const row = await scope.rows.jobs.first({ id: jobId });
        const job = takesSimulated === null || !row ? null : { ...row, takesSimulated };
        return simulatedHere({ ...scope, job }, value).catch(({ code }: HttpProblem) => code);
      });
    expect(await told({ instrument: name }, true)).toBe(true);
    expect(await told({ isSimulated: true, instrument: null }, true)).toBe(true);
    expect(await told({ instrument: "Hand meter" }, true)).toBe(false);
    expect(await told({}, true)).toBe(false);
    expect(await told({ isSimulated: false, instrument: "Hand meter" }, false)).toBe(false);
    expect(await told({ instrument: name }, false)).toBe("conflict");
    expect(await told({ isSimulated: true }, null)).toBe("conflict");
  });
});

describe("a learner's practice", () => {
  it("is seen by the learner and by who teaches, and is not there for anybody else; a shop's job is there for all", async () => {
    const [learner, other] = [newId(), newId()];
    await test.inScope(async ({ rows }) => {
      await rows.people.insertAll([
        { id: learner, name: "Ilse Tamm" },
        { id: other, name: "Bo Ferrin" },
      ]);
    });
    await test.inScope((scope) =>
      scope.rows.practiceSupplies.insert({
        ...{ jobId: otherId, supply: "dry_bulk", title: "Dry", story: "Dry", difficulty: 1, listId: null },
        ...{ personId: learner, benchId: null, begunAt: scope.now, lasting: null },
      }),
    );
    const sees = (personId: string | null, role: Scope["role"], id = otherId) =>
      refusal((scope) => requireSeen({ ...scope, personId, role }, id));
    expect(await sees(learner, "trainee")).toBeNull();
    expect(await sees(other, "lead")).toBeNull();
    expect(await sees(null, "everyone")).toBeNull();
    expect(await sees(other, "technician")).toMatchObject({ code: "not_found" });
    expect(await sees(other, "trainee")).toMatchObject({ code: "not_found" });
    expect(await sees(other, "trainee", jobId)).toBeNull();
  });
});
