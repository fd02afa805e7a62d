import { describe, expect, it } from "vitest";
import type { JobAct } from "../facts/jobActs";
import { jobReminders } from "./reminders";

const now = Date.UTC(2026, 10, 23, 12);
const hour = 3_600_000;
const day = 24 * hour;
const act = (sequence: number, more: Partial<JobAct>): JobAct => ({
  ...{ kind: "call_back", subjectId: null, word: "promised", note: null, sequence, at: new Date(now).toISOString() },
  ...{ clockId: null, receivedAt: null, clockAheadSeconds: null, cameAfterClosing: false },
  ...more,
});
const ask = (more: Partial<Parameters<typeof jobReminders>[0]>) =>
  jobReminders({ acts: [], runEndsMilliseconds: [], dueMilliseconds: null, nowMilliseconds: now, ...more }).map(
    ({ kind, note, positionId, atMilliseconds }) =>
      [kind, note ?? positionId, (atMilliseconds - now) / hour].filter((one) => one !== null).join(" "),
  );

describe("reminders of a job", () => {
  it("tell a promised call until one was made, however late it is", () => {
    const promised = act(1, { note: "price of Q1", value: (now - 40 * day) / 1000 });
    expect(ask({ acts: [promised] })).toEqual(["call_back price of Q1 -960"]);
    const made = act(2, { word: "made", note: "agreed" });
    expect(ask({ acts: [promised, made] })).toEqual([]);
    // Stored after it, whatever their clocks say.
    const again = act(3, { note: "new date", value: (now + hour) / 1000 });
    expect(ask({ acts: [again, made, promised] })).toEqual(["call_back new date 1"]);
  });

  it("tell glue by its last coat, and for a day after it cured", () => {
    const glue = (sequence: number, seconds: number) =>
      act(sequence, { kind: "glue_set", word: null, subjectId: "C1", value: seconds });
    expect(ask({ acts: [glue(1, 3600), glue(2, 7200)] })).toEqual(["cured C1 2"]);
    const old = act(1, { kind: "glue_set", subjectId: "C1", value: 3600, at: new Date(now - 26 * hour).toISOString() });
    expect(ask({ acts: [old] })).toEqual([]);
  });

  it("tell runs and the promised day when they are near, the soonest first", () => {
    expect(
      ask({ runEndsMilliseconds: [now - 25 * hour, now - hour, now + 5 * hour], dueMilliseconds: now + hour }),
    ).toEqual(["burn_in -1", "due 1", "burn_in 5"]);
    expect(ask({ dueMilliseconds: now + 25 * hour })).toEqual([]);
    expect(ask({ dueMilliseconds: now - 9 * day })).toEqual(["due -216"]);
  });
});
