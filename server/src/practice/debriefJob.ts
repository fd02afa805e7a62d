import { actName, jobFacts } from "@pale-cap/contract";
import { type Debrief, debrief, type PracticeAct } from "@pale-cap/core";
import type { Scope } from "../database/scope";
import { HttpProblem } from "../http/problems";
import { loadJob } from "../records/loadJobs";
import { loadJobRules } from "../records/rules";
import { loadActs } from "./loadPractice";

/** What the thread is asked: the truth as the bench told it, and the learner's last word. */
export interface PracticeQuestion {
  readonly jobId: string;
  readonly bad: Readonly<Record<string, boolean>>;
  readonly answer: readonly { readonly at: string; readonly badProbability: number }[];
  readonly bestMinutes: number;
}

/** A practice job told again from its end, by what stands in the database. */
export async function debriefJob(scope: Scope, question: PracticeQuestion): Promise<Debrief> {
  const { jobId, bad, answer, bestMinutes } = question;
  const supply = await scope.rows.practiceSupplies.first({ jobId });
  if (!supply) throw new HttpProblem("not_found", "Nobody practises on this job.");
  const list = supply.listId ? await scope.rows.practiceLists.first({ id: supply.listId }) : null;
  const detail = await loadJob(scope, jobId);
  const events = await scope.rows.practiceEvents.all({ jobId }, [["number", "ASC"]]);
  return debrief({
    ...{ facts: { ...jobFacts(detail), record: null }, rules: await loadJobRules(scope), bestMinutes },
    truth: new Map(Object.entries(bad)),
    answer: new Map(answer.map((one) => [one.at, one.badProbability])),
    acts: (await loadActs(scope, jobId)).map(toAct),
    events: events.map(({ code, atName }) => ({ code, at: atName })),
    ...(list ? { passMark: list.passMark } : {}),
  });
}

function toAct({ sequence, act, hintLevel, minutes }: Awaited<ReturnType<typeof loadActs>>[number]): PracticeAct {
  const part = act?.kind === "fit" ? act.part : null;
  return {
    ...{ sequence, kind: act ? actName(act) : "hint", at: act?.at ?? null, minutes, hintLevel },
    fitted: part
      ? { capacitanceFarads: part.microfarads / 1e6, ratedVolts: part.volts, isReversed: part.isReversed }
      : null,
  };
}
