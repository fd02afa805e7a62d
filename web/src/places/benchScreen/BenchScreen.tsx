import { Button, TextInput } from "@mantine/core";
import { useDebouncedValue, useDisclosure } from "@mantine/hooks";
import { cautions } from "@pale-cap/wording";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { useBenchPagesInfiniteQuery } from "../../job/jobListApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { useKeys } from "../../ui/useKeys";
import { BenchList } from "./BenchList";
import { BenchTable } from "./BenchTable";
import { BundlePanel } from "./BundlePanel";
import classes from "./bench.module.css";
import { NewJobForm } from "./NewJobForm";
import { Reminders } from "./Reminders";

const searchMilliseconds = 250;
/** How often is asked at rest, and while summaries are still being folded. */
const restMilliseconds = 60_000;
const foldMilliseconds = 1000;

/** What is on the benches now: every open job, and closed ones on demand, found by words. */
export function BenchScreen() {
  const [typed, setTyped] = useState("");
  const [search] = useDebouncedValue(typed.trim() === "" ? null : typed.trim(), searchMilliseconds);
  const [isSettled, setSettled] = useState(true);
  const open = useBenchPagesInfiniteQuery(
    { state: "open", search },
    { refetchOnMountOrArgChange: true, pollingInterval: isSettled ? restMilliseconds : foldMilliseconds },
  );
  const settled = open.data?.pages.every((page) => page.isSettled) ?? true;
  useEffect(() => setSettled(settled), [settled]);
  const [isMaking, making] = useDisclosure(false);
  const [isPractice, practice] = useDisclosure(false);
  const [isPracticeShown, shownPractice] = useDisclosure(false);
  const [areClosedShown, closed] = useDisclosure(false);
  const table = useRef<HTMLTableElement>(null);
  const find = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const [first] = open.data?.pages ?? [];
  const isEmpty = first?.total === 0 && search === null;

  function move(by: number) {
    const links = [...(table.current?.querySelectorAll<HTMLAnchorElement>("a[data-job]") ?? [])];
    const index = links.indexOf(document.activeElement as HTMLAnchorElement);
    links[Math.min(Math.max(index + by, 0), links.length - 1)]?.focus();
  }
  useKeys("Bench", [
    { key: "n", label: "take in a unit", action: making.open },
    { key: "/", label: "find a job by words", action: () => find.current?.focus() },
    { key: "ArrowDown", label: "next job (Enter opens it)", action: () => move(1) },
    { key: "ArrowUp", label: "previous job", action: () => move(-1) },
  ]);

  return (
    <div className={classes.bench}>
      <div className={classes.head}>
        <h1>Bench</h1>
        <TextInput
          ref={find}
          className={classes.find}
          aria-label="Find a job"
          placeholder="Device, fault, owner or number"
          value={typed}
          onChange={(event) => setTyped(event.currentTarget.value)}
          onKeyDown={(event) => event.key === "Escape" && setTyped("")}
          rightSection={<kbd className={classes.findKey}>/</kbd>}
        />
        <Button variant="filled" onClick={making.open}>
          Take in a unit <kbd className={classes.onButton}>n</kbd>
        </Button>
      </div>
      <ProblemNote problem={asProblem(open.error)} />
      {(isMaking || isPractice) && (
        <NewJobForm
          key={String(isPractice)}
          isPractice={isPractice}
          onMade={(id) => navigate(`/jobs/${id}/intake`)}
          onCancel={isPractice ? practice.close : making.close}
        />
      )}
      <Reminders />
      {(first?.late.length ?? 0) > 0 && (
        <section className={classes.late}>
          <h2>Came after closing</h2>
          <p className={text.soft}>
            These jobs were closed before all their entries arrived. What came late proves nothing until the job is
            opened.
          </p>
          <BenchTable lines={first?.late ?? []} />
        </section>
      )}
      {!isEmpty && <BenchList pages={open} noun="open" isSearched={search !== null} tableRef={table} />}
      {isEmpty && !isMaking && (
        <div className={classes.empty}>
          <p>
            <strong>The bench is empty.</strong>
          </p>
          <p>
            Press <kbd>n</kbd> to take in a unit. Device kind and a few words are enough; everything else may stay
            unknown.
          </p>
        </div>
      )}
      <details
        className={classes.closed}
        onToggle={(event) => (event.currentTarget.open ? closed.open() : closed.close())}
      >
        <summary>Handed over</summary>
        {areClosedShown && <ClosedJobs search={search} />}
      </details>
      <details
        className={classes.closed}
        onToggle={(event) => (event.currentTarget.open ? shownPractice.open() : shownPractice.close())}
      >
        <summary>Practice</summary>
        <p className={text.soft}>
          Nobody's units: the instruments of the simulated bench read there, and nothing of it counts for the shop.{" "}
          <Link to="/practice">Supplies with a fault to find</Link>
        </p>
        <Button
          size="compact-sm"
          onClick={() => {
            making.close();
            practice.open();
          }}
        >
          Open a practice job
        </Button>
        {isPracticeShown && <PracticeJobs search={search} />}
      </details>
      <details className={classes.closed}>
        <summary>From another shop</summary>
        <BundlePanel />
      </details>
      <p className={classes.standing}>{cautions.standing}</p>
    </div>
  );
}

function PracticeJobs({ search }: { readonly search: string | null }) {
  const jobs = useBenchPagesInfiniteQuery({ state: "practice", search }, { refetchOnMountOrArgChange: true });
  return (
    <>
      <ProblemNote problem={asProblem(jobs.error)} />
      <BenchList pages={jobs} noun="for practice" isSearched={search !== null} />
    </>
  );
}

function ClosedJobs({ search }: { readonly search: string | null }) {
  const closed = useBenchPagesInfiniteQuery({ state: "closed", search }, { refetchOnMountOrArgChange: true });
  return (
    <>
      <ProblemNote problem={asProblem(closed.error)} />
      <BenchList pages={closed} noun="handed over" isSearched={search !== null} />
    </>
  );
}
