import { Button } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useRef } from "react";
import { useNavigate } from "react-router";
import { useBenchQuery } from "../../job/jobApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { useKeys } from "../../ui/useKeys";
import { cautions } from "../../wording/cautions";
import { BenchTable } from "./BenchTable";
import classes from "./bench.module.css";
import { NewJobForm } from "./NewJobForm";

/** What is on the benches now. */
export function BenchScreen() {
  const { data: lines, error } = useBenchQuery(undefined, { refetchOnMountOrArgChange: true, pollingInterval: 60_000 });
  const [isMaking, making] = useDisclosure(false);
  const table = useRef<HTMLTableElement>(null);
  const navigate = useNavigate();

  const open = lines?.filter((line) => !line.handedOverAt) ?? [];
  const closed = lines?.filter((line) => line.handedOverAt) ?? [];

  function move(by: number) {
    const links = [...(table.current?.querySelectorAll<HTMLAnchorElement>("a[data-job]") ?? [])];
    const index = links.indexOf(document.activeElement as HTMLAnchorElement);
    links[Math.min(Math.max(index + by, 0), links.length - 1)]?.focus();
  }
  useKeys("Bench", [
    { key: "n", label: "take in a unit", action: making.open },
    { key: "ArrowDown", label: "next job (Enter opens it)", action: () => move(1) },
    { key: "ArrowUp", label: "previous job", action: () => move(-1) },
  ]);

  return (
    <div className={classes.bench}>
      <div className={classes.head}>
        <h1>Bench</h1>
        <Button variant="filled" onClick={making.open}>
          Take in a unit <kbd className={classes.onButton}>n</kbd>
        </Button>
      </div>
      <ProblemNote problem={asProblem(error)} />
      {isMaking && <NewJobForm onMade={(id) => navigate(`/jobs/${id}/intake`)} onCancel={making.close} />}
      {open.length > 0 && <BenchTable lines={open} tableRef={table} />}
      {closed.length > 0 && (
        <details className={classes.closed}>
          <summary>Handed over ({closed.length})</summary>
          <BenchTable lines={closed} />
        </details>
      )}
      {lines?.length === 0 && !isMaking && (
        <div className={classes.empty}>
          <p>
            <strong>The bench is empty.</strong>
          </p>
          <p>
            Press <kbd>n</kbd> to take in the first unit. Device kind and a few words are enough; everything else may
            stay unknown.
          </p>
        </div>
      )}
      <p className={classes.standing}>{cautions.standing}</p>
    </div>
  );
}
