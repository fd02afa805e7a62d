import { isRouteErrorResponse, Link, useRouteError } from "react-router";
import classes from "./frame.module.css";

/** An address that leads nowhere, or a screen that broke: said plainly, with the way back. */
export function RouteProblem() {
  const error = useRouteError();
  const isMissing = isRouteErrorResponse(error) && error.status === 404;
  return (
    <main className={classes.lost}>
      <h1>{isMissing ? "There is nothing under this address" : "This screen could not be shown"}</h1>
      <p>
        {isMissing ? "The link may be old." : "What was logged is stored. Reload the page, or go on from the bench."}
      </p>
      <Link to="/">To the bench</Link>
    </main>
  );
}

/** A lens that broke: the job's frame stays, and every other lens with it. */
export function LensProblem() {
  return (
    <section className={classes.lost}>
      <h1>This lens could not be shown</h1>
      <p>What was logged is stored. Every other lens works; take back what was entered last if this one stays away.</p>
    </section>
  );
}
