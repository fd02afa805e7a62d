import type { PracticeState } from "@pale-cap/contract";
import { Link, useParams } from "react-router";
import { JobPage } from "../../job/JobPage";
import { usePracticeQuery } from "../../job/practiceApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { Debrief } from "./Debrief";
import { LastWord } from "./LastWord";
import classes from "./practice.module.css";

/** The end of a practice supply: the last word on its parts, and from then on the truth. */
export function DebriefScreen() {
  const { jobId = "" } = useParams();
  const { data, error } = usePracticeQuery(jobId);
  if (data === undefined) return <ProblemNote problem={asProblem(error)} />;
  if (data === null) {
    return (
      <p className={text.page}>
        This job has no practice supply. <Link to="/practice">To the practice supplies</Link>
      </p>
    );
  }
  return (
    <JobPage name="practice supply">
      <Page practice={data} />
    </JobPage>
  );
}

function Page({ practice }: { readonly practice: PracticeState }) {
  const { result } = practice;
  return (
    <div className={`${text.page} ${classes.wide}`}>
      <header className={classes.head}>
        <h1>
          {practice.title} <span className={classes.mark}>Practice</span>
        </h1>
        <p className={text.softLine}>
          {practice.story} {!result && <Link to={`/jobs/${practice.jobId}/measure`}>Back to the bench</Link>}
        </p>
      </header>
      {result ? <Debrief practice={practice} result={result} /> : <LastWord practice={practice} />}
    </div>
  );
}
