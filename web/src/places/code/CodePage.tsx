import { Loader } from "@mantine/core";
import { Link, Navigate, useParams } from "react-router";
import { useCodeQuery } from "../../job/jobListApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";

/** Where a label's code leads: to the job of that number, or to the drawer of that name. */
export function CodePage() {
  const { code = "" } = useParams();
  const { data, error } = useCodeQuery(code);
  if (error) return <ProblemNote problem={asProblem(error)} />;
  if (!data) return <Loader aria-label="Looking for it" />;
  if (data.jobId !== null)
    return <Navigate to={`/jobs/${data.jobId}/${data.isClosed ? "hand-over" : "intake"}`} replace />;
  if (data.drawer !== null) return <Navigate to={`/parts?find=${encodeURIComponent(data.drawer)}`} replace />;
  return (
    <main className={text.page}>
      <p>No job and no drawer here is called “{code}”.</p>
      <Link to="/">To the bench</Link>
    </main>
  );
}
