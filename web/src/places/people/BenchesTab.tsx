import { Button } from "@mantine/core";
import type { BenchPlace } from "@pale-cap/contract";
import { deviceName } from "@pale-cap/wording";
import { Link } from "react-router";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useBenchPlacesQuery, useChooseBenchMutation, useLayOnBenchMutation } from "../../job/sessionApi";
import { useMay, useWho } from "../../job/useMay";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import classes from "./people.module.css";

/** Every bench with who is at it, what lies on it and how many instruments stand there; asked again now and then. */
export function BenchesTab() {
  const { data, error } = useBenchPlacesQuery(undefined, { pollingInterval: 10_000 });
  const isShop = useAppSelector((state) => state.workplace.isShop);
  return (
    <>
      <ProblemNote problem={asProblem(error)} />
      {!isShop && (
        <p className={text.softLine}>
          This Pale Cap runs alone: whoever is at this machine may do everything, and nobody signs in. With{" "}
          <code>PALE_CAP_MODE=shop</code> it asks who is there.
        </p>
      )}
      <div className={classes.benches}>
        {data?.map((bench) => (
          <OneBench key={bench.id} bench={bench} isShop={isShop} />
        ))}
      </div>
      <p className={text.softLine}>
        <Link to="/instruments">Benches and instruments are set up under Instruments.</Link>
      </p>
    </>
  );
}

function OneBench({ bench, isShop }: { readonly bench: BenchPlace; readonly isShop: boolean }) {
  const who = useWho();
  const mayMeasure = useMay("measure");
  const [choose, chosen] = useChooseBenchMutation();
  const [lay, laid] = useLayOnBenchMutation();
  const isHere = who?.benchId === bench.id;
  return (
    <section className={classes.bench} aria-label={bench.name} data-here={isHere || undefined}>
      <header className={classes.benchHead}>
        <h2>{bench.name}</h2>
        {isHere && <span className={classes.mark}>you are here</span>}
        {isShop && !isHere && (
          <Button size="compact-sm" variant="default" onClick={() => void choose({ benchId: bench.id })}>
            I work here
          </Button>
        )}
      </header>
      <p className={classes.people}>
        {bench.people.length > 0 ? bench.people.map((one) => one.name).join(", ") : isShop ? "nobody signed in" : ""}
      </p>
      <ProblemNote problem={asProblem(chosen.error) ?? asProblem(laid.error)} />
      <ul className={classes.jobs}>
        {bench.jobs.map((job) => (
          <li key={job.id}>
            <Link to={`/jobs/${job.id}`}>
              <b className={text.figure}>{String(job.number).padStart(4, "0")}</b> {deviceName(job)}
            </Link>
            {mayMeasure && isShop && !isHere && who?.benchId && (
              <Button
                size="compact-xs"
                variant="subtle"
                aria-label={`Take job ${job.number} to your bench`}
                onClick={() => void lay({ jobId: job.id, benchId: who.benchId as string, writeId: newId() })}
              >
                To mine
              </Button>
            )}
            {mayMeasure && (
              <Button
                size="compact-xs"
                variant="subtle"
                color="gray"
                aria-label={`Take job ${job.number} off ${bench.name}`}
                onClick={() => void lay({ jobId: job.id, benchId: bench.id, writeId: newId(), isOff: true })}
              >
                Take off
              </Button>
            )}
          </li>
        ))}
      </ul>
      <p className={text.soft}>
        {bench.jobs.length === 0 ? "No open job lies here. " : ""}
        {bench.instrumentCount === 0
          ? "No instrument stands here."
          : `${bench.instrumentCount} ${bench.instrumentCount === 1 ? "instrument stands" : "instruments stand"} here${isShop ? " and obey this bench alone" : ""}.`}
      </p>
    </section>
  );
}
