import { Loader } from "@mantine/core";
import type { ReactNode } from "react";
import { Link, useParams } from "react-router";
import { asProblem, ProblemNote } from "../ui/ProblemNote";
import text from "../ui/text.module.css";
import { useHouseRulesQuery } from "./houseRulesApi";
import { JobProvider } from "./JobContext";
import { useJobQuery } from "./jobApi";

/** A page beside the lenses about the job of its address, once that is there: for paper, or for one thing in full width. */
export function JobPage({ name, children }: { readonly name: string; readonly children: ReactNode }) {
  const { jobId = "" } = useParams();
  const job = useJobQuery(jobId);
  const rules = useHouseRulesQuery();
  if (job.error || rules.error) {
    return (
      <main className={text.page}>
        <ProblemNote problem={asProblem(job.error ?? rules.error)} />
        <Link to="/">To the bench</Link>
      </main>
    );
  }
  if (!job.data || !rules.data) return <Loader aria-label={`Loading the ${name}`} />;
  return (
    <JobProvider detail={job.data} houseRules={rules.data}>
      {children}
    </JobProvider>
  );
}
