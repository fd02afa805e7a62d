import { NativeSelect } from "@mantine/core";
import type { PracticePage } from "@pale-cap/contract";
import { type PracticeSkill, practiceSkills, type SkillState } from "@pale-cap/core";
import { skillLabels } from "@pale-cap/wording";
import { useState } from "react";
import { Link } from "react-router";
import { useAppSelector } from "../../app/store/hooks";
import { CurveChart } from "../../drawing/CurveChart";
import { usePracticePageQuery } from "../../job/practiceApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { ShareBand } from "../../ui/ShareBand";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./practice.module.css";

/** How one person stands, skill by skill, and supply by supply in their order. */
export function ProgressTab() {
  const personId = useAppSelector((state) => state.workplace.personId);
  const { data, error } = usePracticePageQuery(personId, { refetchOnMountOrArgChange: true });
  const ended = [...(data?.lines ?? [])].filter((one) => one.total !== null).reverse();
  return (
    <>
      <ProblemNote problem={asProblem(error)} />
      {data && (
        <div className={classes.two}>
          <section className={classes.panel} aria-label="Skills">
            <h2>Skill by skill</h2>
            {personId === null && (
              <p className={text.softLine}>Of everybody: say who is at this bench, at the upper right, for your own.</p>
            )}
            <table className={`${text.table} ${text.ruled}`}>
              <TableHead names={["Skill", "Well", "Where it lies"]} />
              <tbody>
                {data.skills.map((one) => (
                  <tr key={one.skill}>
                    <td>{skillLabels[one.skill]}</td>
                    <td className={text.figure}>
                      {one.good} of {one.total}
                    </td>
                    <td>
                      <ShareBand share={one.total > 0 ? one : null} />
                      <span className={text.unseen}>
                        {one.total > 0
                          ? `between ${Math.round(100 * one.lowRatio)} and ${Math.round(100 * one.highRatio)} %`
                          : "nothing yet"}
                      </span>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            <Course page={data} />
            <p className={text.softLine}>
              The band holds the true share in nineteen of twenty cases. Few supplies leave it wide.
            </p>
          </section>
          <section className={classes.panel} aria-label="Supplies in their order">
            <h2>Supply by supply</h2>
            {ended.length === 0 ? (
              <p className={text.soft}>
                Nothing ended yet. <Link to="/practice">Take a supply</Link> and say a last word on it.
              </p>
            ) : (
              <CurveChart
                label="Points of each supply, in their order; 70 is the mark"
                x={{ name: "supply", unit: "" }}
                y={{ name: "points", unit: "" }}
                lines={[{ name: "points", points: ended.map((one, n) => [n + 1, one.total ?? 0]) }]}
                limits={[70]}
                isFromNought
              />
            )}
            <ul className={classes.plain}>
              {[...ended]
                .reverse()
                .slice(0, 12)
                .map((one) => (
                  <li key={one.jobId}>
                    <Link to={`/practice/${one.jobId}`}>{one.title}</Link>{" "}
                    <span className={text.figure}>{Math.round(one.total ?? 0)}</span>{" "}
                    <span className={text.soft}>
                      {one.isPassed ? "passed" : one.isFatal ? "not passed: safety" : "not passed"}
                    </span>
                  </li>
                ))}
            </ul>
          </section>
        </div>
      )}
    </>
  );
}

/** One skill over the supplies that asked for it: the share, and the band in which it lies. */
function Course({ page }: { readonly page: PracticePage }) {
  const [skill, setSkill] = useState<PracticeSkill>("draining");
  const states = page.course.flatMap((one) => one.filter((state) => state.skill === skill));
  // A supply that did not ask for it moves nothing.
  const moved = states.filter((one, n) => one.total > 0 && one.total !== states[n - 1]?.total);
  const line = (of: (state: SkillState) => number) =>
    moved.map((one, n): readonly [number, number] => [n + 1, Math.round(100 * of(one))]);
  return (
    <>
      <NativeSelect
        label="Over time"
        data={practiceSkills.map((value) => ({ value, label: skillLabels[value] }))}
        value={skill}
        onChange={(event) => setSkill(event.currentTarget.value as PracticeSkill)}
      />
      {moved.length < 2 ? (
        <p className={text.soft}>Two supplies that ask for it make a line.</p>
      ) : (
        <CurveChart
          label={`${skillLabels[skill]}: share done well, %, after each supply that asked for it`}
          x={{ name: "supply", unit: "" }}
          y={{ name: "%", unit: "" }}
          lines={[
            { name: "share", points: line((one) => one.meanRatio) },
            { name: "at least", points: line((one) => one.lowRatio) },
            { name: "at most", points: line((one) => one.highRatio) },
          ]}
          limits={[]}
          isDense
          isFromNought
        />
      )}
    </>
  );
}
