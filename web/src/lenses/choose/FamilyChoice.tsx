import { Button } from "@mantine/core";
import type { JobDetail, PlanEdit, Position, Problem } from "@pale-cap/contract";
import { noOverrides, standingReadings } from "@pale-cap/core";
import { useState } from "react";
import { Link } from "react-router";
import { newId } from "../../api/newId";
import { useAppDispatch } from "../../app/store/hooks";
import { useCataloguePartsQuery } from "../../job/catalogueApi";
import { useFamilyQuery } from "../../job/familyApi";
import { useJob } from "../../job/JobContext";
import { jobApi, useJobQuery } from "../../job/jobApi";
import { useEditPlanMutation } from "../../job/planApi";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import classes from "./choose.module.css";

/** Other open units of the kind: the same choice for their place of the same name, as far as the drawers reach. */
export function FamilyChoice({ position }: { readonly position: Position }) {
  const { detail } = useJob();
  const plan = detail.plans.find((one) => one.positionId === position.id);
  const { data: family } = useFamilyQuery(detail.job.id, { skip: !plan?.cataloguePartId });
  const partId = plan?.cataloguePartId;
  const { data: parts } = useCataloguePartsQuery(partId ? [partId] : [], { skip: !partId });
  const others = family?.units.filter((one) => one.id !== detail.job.id && one.handedOverAt === null) ?? [];
  const part = parts?.[0];
  if (!part || others.length === 0) return null;
  return (
    <Part
      title="The same on its brothers"
      aside={<span className={text.soft}>{part.stockCount} more in the drawers</span>}
    >
      <ul className={classes.brothers}>
        {others.map((unit) => (
          <Brother
            key={unit.id}
            jobId={unit.id}
            number={unit.number}
            designator={position.designator}
            partId={part.id}
            freeCount={part.stockCount}
          />
        ))}
      </ul>
    </Part>
  );
}

interface BrotherProps {
  readonly jobId: string;
  readonly number: number;
  readonly designator: string;
  readonly partId: string;
  readonly freeCount: number;
}

function Brother({ jobId, number, designator, partId, freeCount }: BrotherProps) {
  const { data: detail } = useJobQuery(jobId);
  const [editPlan, { isLoading }] = useEditPlanMutation();
  const [problem, setProblem] = useState<Problem>();
  const dispatch = useAppDispatch();
  const position = detail?.positions.find((one) => one.designator === designator);
  const plan = detail?.plans.find((one) => one.positionId === position?.id);
  const railVolts = detail && position ? highestVolts(detail, position) : null;

  async function choose() {
    // As it stands by now, not as it was when this page was drawn.
    const latest = await dispatch(
      jobApi.endpoints.job.initiate(jobId, { forceRefetch: true, subscribe: false }),
    ).unwrap();
    if (!position) return;
    const stored = latest.plans.find((one) => one.positionId === position.id);
    const body: PlanEdit = {
      ...{ writeId: newId(), version: stored?.version ?? 0, cataloguePartId: partId, partInHand: null },
      overrides: { ...noOverrides, ...stored?.overrides },
      ...(freeCount > 0 ? { isFromDrawer: true } : { stockItemId: null }),
    };
    const answer = await editPlan({ jobId, positionId: position.id, body });
    setProblem(asProblem(answer.error));
  }

  return (
    <li>
      <Link to={`/jobs/${jobId}/choose`}>{String(number).padStart(4, "0")}</Link>{" "}
      {!position ? (
        `has no ${designator}`
      ) : plan?.cataloguePartId === partId ? (
        plan.stockItemId ? (
          "has one set aside"
        ) : (
          "has it, to be ordered"
        )
      ) : (
        <>
          <Button size="compact-sm" loading={isLoading} onClick={() => void choose()}>
            {freeCount > 0 ? `${designator} too, out of the drawer` : `${designator} too, to be ordered`}
          </Button>
          {plan?.cataloguePartId && <span className={classes.source}> another part is chosen there</span>}
        </>
      )}
      {freeCount === 0 && railVolts !== null && plan?.stockItemId == null && (
        <span className={classes.source}>
          {" "}
          its rail read <Quantity value={railVolts} unit="V" /> at most: a lower marking may do there
        </span>
      )}
      <ProblemNote problem={problem} />
    </li>
  );
}

/** The highest volts that were logged on the place's rail. */
function highestVolts(detail: JobDetail, position: Position): number | null {
  const volts = standingReadings(detail.readings).flatMap((one) =>
    one.targetId === position.netId && one.quantity === "dc_voltage" && one.value !== null ? [one.value] : [],
  );
  return volts.length === 0 ? null : Math.max(...volts);
}
