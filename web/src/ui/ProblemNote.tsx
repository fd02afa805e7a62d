import type { Problem } from "@pale-cap/contract";
import { fieldProblemWords } from "@pale-cap/wording";
import type { ReactNode } from "react";
import classes from "./ui.module.css";

/** What the server refused and why, with the fields that could not be shown at their place. */
export function ProblemNote(props: { readonly problem: Problem | undefined; readonly children?: ReactNode }) {
  const { problem } = props;
  if (!problem) return null;
  return (
    <div role="alert" className={classes.problem}>
      <strong>{problem.title}.</strong> {problem.detail}
      {problem.errors.length > 0 && (
        <ul>
          {problem.errors.slice(0, 6).map((error) => (
            <li key={error.path + error.code}>{fieldProblemWords(error)}</li>
          ))}
        </ul>
      )}
      {props.children}
    </div>
  );
}

/** RTK Query types an error as Problem or its own serialised one. */
export function asProblem(error: unknown): Problem | undefined {
  return typeof error === "object" && error !== null && "code" in error && "detail" in error
    ? (error as Problem)
    : undefined;
}
