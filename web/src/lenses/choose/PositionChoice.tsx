import { Button } from "@mantine/core";
import type { PlanEdit, Position, Problem } from "@pale-cap/contract";
import {
  foundPart,
  type Limit,
  noOverrides,
  type RankedReplacement,
  type Requirement,
  type RequirementOverrides,
  replacementRequirement,
  type Unit,
} from "@pale-cap/core";
import { checkWords, lifeText, limitSourceLabels, moneyText, rejectionWords } from "@pale-cap/wording";
import { useMemo, useState } from "react";
import { newId } from "../../api/newId";
import { useCatalogueQuery } from "../../job/catalogueApi";
import { useJob } from "../../job/JobContext";
import { useInTurn } from "../../job/useInTurn";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import { QuantityInput } from "../../ui/QuantityInput";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { useReplacementRanking } from "../../workers/useReplacementRanking";
import classes from "./choose.module.css";
import { useEditPlanMutation } from "./planApi";

/** The requirement of one place, with its limits editable, and the parts that meet it by expected life. */
export function PositionChoice({ position }: { readonly position: Position }) {
  const { detail, houseRules } = useJob();
  const { data: catalogue } = useCatalogueQuery();
  const [editPlan] = useEditPlanMutation();
  const [problem, setProblem] = useState<Problem>();
  const inTurn = useInTurn();
  const plan = detail.plans.find((one) => one.positionId === position.id);
  const part = foundPart(detail.fittedParts, position.id);
  const net = detail.nets.find((one) => one.id === position.netId) ?? null;
  const overrides = plan?.overrides ?? noOverrides;
  const requirement = useMemo(
    () =>
      part &&
      replacementRequirement(
        {
          position,
          part,
          net,
          voltageSchool: houseRules["choose.voltageSchool"],
          capacitanceSchool: houseRules["choose.capacitance"],
          purpose: detail.job.intakeDetails.purpose,
        },
        overrides,
      ),
    [position, part, net, houseRules, overrides, detail.job.intakeDetails.purpose],
  );
  const ranking = useReplacementRanking(requirement ?? null, net?.section ?? "other", catalogue);
  const chosen = catalogue?.find((one) => one.id === plan?.cataloguePartId);

  const save = (
    change: (overrides: RequirementOverrides) => Partial<Pick<PlanEdit, "cataloguePartId" | "overrides">>,
  ) =>
    void inTurn((latest) => {
      const stored = latest.plans.find((one) => one.positionId === position.id);
      const current = { ...noOverrides, ...stored?.overrides };
      const body: PlanEdit = {
        writeId: newId(),
        version: stored?.version ?? 0,
        cataloguePartId: stored?.cataloguePartId ?? null,
        overrides: current,
        ...change(current),
      };
      return editPlan({ jobId: latest.job.id, positionId: position.id, body }).then((answer) =>
        setProblem(asProblem(answer.error)),
      );
    }, setProblem);

  if (!requirement) {
    return (
      <p className={text.soft}>
        Value or voltage of the old part is not entered: Inspect first, then a requirement can be made.
      </p>
    );
  }
  return (
    <>
      <ProblemNote problem={problem} />
      <RequirementTable
        requirement={requirement}
        onOverride={(more) => save((current) => ({ overrides: { ...current, ...more } }))}
      />
      {chosen && (
        <div className={classes.chosen}>
          <span>
            Chosen:{" "}
            <b>
              {chosen.maker} {chosen.series}
            </b>{" "}
            <Quantity value={chosen.capacitanceFarads} unit="F" isMarking />{" "}
            <Quantity value={chosen.ratedVolts} unit="V" />
          </span>
          <Button size="xs" onClick={() => save(() => ({ cataloguePartId: null }))}>
            Undo the choice
          </Button>
        </div>
      )}
      <Part
        title={requirement.mission ? "By expected life over the promised day" : "By expected life"}
        aside={
          ranking && (
            <span className={text.soft}>
              {ranking.survivorCount} fit, {ranking.rejectedCount} do not
            </span>
          )
        }
      >
        {!ranking && <p className={text.soft}>Ranking the catalogue…</p>}
        {ranking?.survivors.length === 0 && (
          <p className={text.soft}>
            Nothing in the catalogue meets every limit. The near misses below say which limit to look at.
          </p>
        )}
        {ranking && ranking.survivors.length > 0 && (
          <PartTable
            rows={ranking.survivors.slice(0, 12)}
            chosenId={plan?.cataloguePartId ?? null}
            onChoose={(id) => save(() => ({ cataloguePartId: id }))}
            currency={houseRules["shop.currency"]}
          />
        )}
      </Part>
      {ranking && ranking.nearMisses.length > 0 && (
        <Part title="Would have ranked as high, but">
          <ul className={classes.misses}>
            {ranking.nearMisses.map((miss) => (
              <li key={miss.part.id}>
                <span>
                  <b>
                    {miss.part.maker} {miss.part.series}
                  </b>{" "}
                  <Quantity value={miss.part.capacitanceFarads} unit="F" isMarking />{" "}
                  <Quantity value={miss.part.ratedVolts} unit="V" /> {miss.part.diameterMetres * 1e3} ×{" "}
                  {miss.part.heightMetres * 1e3} mm, {lifeText(miss.cappedLifeHours)}
                </span>
                <span className={classes.reason}>{miss.rejections.map(rejectionWords).join("; ")}</span>
              </li>
            ))}
          </ul>
        </Part>
      )}
    </>
  );
}

function RequirementTable(props: {
  readonly requirement: Requirement;
  readonly onOverride: (more: Partial<RequirementOverrides>) => void;
}) {
  const { requirement: need, onOverride } = props;
  const fixed = (label: string, values: readonly Limit[], unit: Unit, isMarking = false) => (
    <div>
      <div className={classes.label}>{label}</div>
      <div className={classes.value}>
        {values.map((limit, index) => (
          <span key={limit.value}>
            {index > 0 && " to "}
            <Quantity value={limit.value} unit={unit} isMarking={isMarking} />
          </span>
        ))}
      </div>
      <div className={classes.source}>{limitSourceLabels[values[0]?.source ?? "assumed"]}</div>
    </div>
  );
  const editable = (
    label: string,
    name: keyof RequirementOverrides,
    limit: Limit | null,
    unit: Unit,
    range: readonly [number, number],
  ) => (
    <div>
      <QuantityInput
        label={label}
        size="xs"
        digits={3}
        unit={unit}
        limits={range}
        value={limit?.value ?? null}
        placeholder="no limit"
        onCommit={(value) => onOverride({ [name]: value })}
      />
      <div className={classes.source}>{limit ? limitSourceLabels[limit.source] : "not known"}</div>
    </div>
  );
  return (
    <Part
      title="What the place needs"
      aside={<span className={text.soft}>{need.isLowEsrOnly ? "switching output: low-ESR parts only" : ""}</span>}
    >
      <div className={classes.needs}>
        {fixed("Capacitance", [need.capacitanceMinFarads, need.capacitanceMaxFarads], "F", true)}
        {fixed("Rated at least", [need.leastRatedVolts], "V")}
        {fixed("Class at least", [need.leastTemperatureClassCelsius], "°C")}
        {editable("⌀ at most", "diameterMaxMetres", need.diameterMaxMetres, "mm", [0.002, 0.2])}
        {editable("Height at most", "heightMaxMetres", need.heightMaxMetres, "mm", [0.002, 0.2])}
        {editable("Pitch", "pitchMetres", need.pitchMetres, "mm", [0.0005, 0.05])}
        {editable("ESR at most", "esrMaxOhms", need.esrMaxOhms, "Ω", [1e-4, 1000])}
        {editable("Ripple current", "rippleAmpsRms", need.rippleAmpsRms, "A", [0, 100])}
        {editable("Air around it", "ambientCelsius", need.ambientCelsius, "°C", [-40, 150])}
      </div>
    </Part>
  );
}

function PartTable(props: {
  readonly rows: readonly RankedReplacement[];
  readonly chosenId: string | null;
  readonly onChoose: (id: string) => void;
  readonly currency: string;
}) {
  return (
    <table className={`${text.table} ${text.ruled} ${classes.table}`}>
      <TableHead names={["Part", "C", "V", "Size", "ESR", "Ripple", "Life", "Price", ""]} />
      <tbody>
        {props.rows.map((row) => {
          const { part } = row;
          const isChosen = part.id === props.chosenId;
          return (
            <tr key={part.id} data-chosen={isChosen || undefined}>
              <td>
                <b>{part.maker}</b> {part.series}
                {row.warnings.length > 0 && (
                  <div className={classes.warning}>{row.warnings.map(checkWords).join(", ")}</div>
                )}
              </td>
              <td>
                <Quantity value={part.capacitanceFarads} unit="F" isMarking />
              </td>
              <td>
                <Quantity value={part.ratedVolts} unit="V" />
              </td>
              <td className={text.figure}>
                {part.diameterMetres * 1e3}×{part.heightMetres * 1e3}
              </td>
              <td>
                <Quantity value={part.esrOhms} unit="Ω" />
              </td>
              <td>
                <Quantity value={part.rippleAmpsRms} unit="A" />
              </td>
              <td className={text.figure}>{lifeText(row.cappedLifeHours)}</td>
              <td className={text.figure}>{moneyText(part.priceMinor, props.currency)}</td>
              <td>
                <Button
                  size="compact-sm"
                  variant={isChosen ? "filled" : "default"}
                  aria-pressed={isChosen}
                  onClick={() => props.onChoose(part.id)}
                >
                  {isChosen ? "chosen" : "Take"}
                </Button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
