import { Button } from "@mantine/core";
import type { Position, StockedPart } from "@pale-cap/contract";
import { judgePosition, noOverrides, partInHand, type RankedReplacement, standingReadings } from "@pale-cap/core";
import {
  checkWords,
  lifeText,
  limitSourceLabels,
  moneyText,
  quantityFacts,
  sourceLabels,
  verdictLabels,
} from "@pale-cap/wording";
import { useMemo } from "react";
import { useNavigate } from "react-router";
import { newId } from "../../api/newId";
import { VerdictGlyph } from "../../drawing/VerdictGlyph";
import { useCatalogueQuery } from "../../job/catalogueApi";
import { useJob } from "../../job/JobContext";
import { useTarget } from "../../job/useTarget";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { useKeys } from "../../ui/useKeys";
import { useReplacementRanking } from "../../workers/useReplacementRanking";
import { BankTable } from "./BankTable";
import classes from "./choose.module.css";
import { FitView } from "./FitView";
import { NearMisses } from "./NearMisses";
import { OwnPartLine } from "./OwnPartLine";
import { Reasons } from "./Reasons";
import { RequirementNotes } from "./RequirementNotes";
import { RequirementTable } from "./RequirementTable";
import { useChoosePlan } from "./useChoosePlan";
import { useRequirementOf } from "./useRequirementOf";
import { useSurroundings } from "./useSurroundings";

/** As many of the ranking as have a key of their own, and three more. */
const shownCount = 12;
const keyedCount = 9;
/** As many places as the exact search fills. */
const mostTogether = 6;

/** The requirement of one place, with its limits editable, and the parts that meet it by expected life. */
export function PositionChoice(props: {
  readonly position: Position;
  /** Places that go out too: those of its own rail are chosen together, if wanted. */
  readonly wanted: readonly Position[];
}) {
  const { position, wanted } = props;
  const { detail, houseRules } = useJob();
  const { data: catalogue } = useCatalogueQuery();
  const { save, problem } = useChoosePlan(position.id);
  const plan = detail.plans.find((one) => one.positionId === position.id);
  const net = detail.nets.find((one) => one.id === position.netId) ?? null;
  const overrides = plan?.overrides ?? noOverrides;
  const around = useSurroundings(position);
  const requirementOf = useRequirementOf(around);
  const requirement = useMemo(() => requirementOf(position), [requirementOf, position]);
  const ranking = useReplacementRanking(requirement, net?.section ?? "other", catalogue);
  const rows = ranking?.survivors.slice(0, shownCount) ?? [];
  const take = (id: string | undefined) => {
    if (id !== undefined) void save(() => ({ cataloguePartId: id, partInHand: null, reasons: { part: null } }));
  };
  useKeys("Choose", [
    ...rows.slice(0, keyedCount).map((row, n) => ({
      key: String(n + 1),
      label: `take line ${n + 1}`,
      action: () => take(row.part.id),
    })),
    {
      key: "u",
      label: "undo the choice",
      action: () => void save(() => ({ cataloguePartId: null, partInHand: null })),
    },
  ]);
  const isEmpty = catalogue?.length === 0;
  const chosen =
    catalogue?.find((one) => one.id === plan?.cataloguePartId) ??
    detail.fittedParts.find((one) => one.id === plan?.partInHandId);
  const can =
    chosen?.diameterMetres != null && chosen.heightMetres != null
      ? { diameterMetres: chosen.diameterMetres, heightMetres: chosen.heightMetres }
      : null;
  const bank = useMemo(
    () =>
      wanted
        .filter((one) => one.netId !== null && one.netId === position.netId)
        .sort((a, b) => a.designator.localeCompare(b.designator, undefined, { numeric: true })),
    [wanted, position.netId],
  );

  return (
    <>
      <ProblemNote problem={problem} />
      <Chosen position={position} catalogue={catalogue ?? []} />
      {can && <FitView position={position} can={can} around={around} />}
      {requirement ? (
        <>
          <RequirementTable
            requirement={requirement}
            onOverride={(more) => void save((current) => ({ overrides: { ...current, ...more } }))}
          />
          <Reasons
            overrides={overrides}
            reasons={plan?.reasons ?? {}}
            name={`${detail.job.id} reason ${position.id}`}
            onReason={async (key, reason, onStored) => {
              if (await save(() => ({ reasons: { [key]: reason } }))) onStored();
            }}
          />
          <RequirementNotes requirement={requirement} net={net} around={around} />
        </>
      ) : (
        <p className={text.soft}>
          Value or voltage of the old part is not entered: nothing can be held against what goes in. Inspect has its
          line.
        </p>
      )}
      <OwnPartLine position={position} requirement={requirement} />
      {bank.length > 1 && bank.length <= mostTogether && catalogue && catalogue.length > 0 && (
        <BankTable places={bank} around={around} catalogue={catalogue} />
      )}
      {isEmpty && (
        <p className={text.soft}>
          The shop has no catalogue yet. Enter the part you have in the line above: drawer, bought or salvaged.
        </p>
      )}
      {requirement && !isEmpty && (
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
              Nothing in the catalogue meets every limit.
              {ranking.nearMisses.length > 0 && " What comes near stands below: each can be taken with a reason."}
            </p>
          )}
          {rows.length > 0 && (
            <PartTable
              rows={rows}
              chosenId={plan?.cataloguePartId ?? null}
              onChoose={take}
              currency={houseRules["shop.currency"]}
            />
          )}
        </Part>
      )}
      {ranking && (
        <NearMisses
          name={`${detail.job.id} near part ${position.id}`}
          ranking={ranking}
          onTake={(id, reason) => save(() => ({ cataloguePartId: id, partInHand: null, reasons: { part: reason } }))}
        />
      )}
    </>
  );
}

/** What was chosen, and what it read: it can be read before it goes in. */
function Chosen({ position, catalogue }: { readonly position: Position; readonly catalogue: readonly StockedPart[] }) {
  const { detail, facts, rules } = useJob();
  const { save } = useChoosePlan(position.id);
  const [, select] = useTarget();
  const navigate = useNavigate();
  const plan = detail.plans.find((one) => one.positionId === position.id);
  const bought = catalogue.find((one) => one.id === plan?.cataloguePartId);
  const own = detail.fittedParts.find((one) => one.id === plan?.partInHandId);
  const shown = bought ?? own;
  if (!shown) return null;
  const isFitted = own !== undefined && own.fittedAt !== null;
  const readings = standingReadings(detail.readings).filter((one) => own && one.fittedPartId === own.id);
  const verdict =
    readings.length > 0 && !isFitted
      ? judgePosition(facts, position.id, rules.judgement, "in_hand")?.verdict
      : undefined;

  async function read() {
    const isThere = partInHand(detail.fittedParts, position.id) !== undefined;
    if (!isThere && !(await save(() => ({ partInHand: { id: newId(), ownPart: null } })))) return;
    select({ kind: "part", id: position.id, isNewPart: true });
    await navigate(`/jobs/${detail.job.id}/measure`);
  }

  return (
    <div className={classes.chosen}>
      <span>
        Chosen: <b>{bought ? `${bought.maker} ${bought.series}` : (own?.series ?? "own part")}</b>{" "}
        <Quantity value={shown.capacitanceFarads} unit="F" isMarking /> <Quantity value={shown.ratedVolts} unit="V" />
        {own?.source && `, ${sourceLabels[own.source]}`}
        {readings.map((one) => (
          <span key={one.id}>
            , {quantityFacts[one.quantity].label} <Quantity value={one.value} unit={quantityFacts[one.quantity].unit} />
          </span>
        ))}
        {verdict && (
          <>
            {" "}
            <VerdictGlyph verdict={verdict} size={16} /> {verdictLabels[verdict]}
          </>
        )}
      </span>
      {!isFitted && (
        <span className={classes.acts}>
          <Button size="xs" onClick={() => void read()}>
            Read it before it goes in
          </Button>
          <Button size="xs" onClick={() => void save(() => ({ cataloguePartId: null, partInHand: null }))}>
            Undo the choice
          </Button>
        </span>
      )}
    </div>
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
      <TableHead names={["", "Part", "C", "V", "Size", "ESR", "Ripple", "Life", "Price", ""]} />
      <tbody>
        {props.rows.map((row, n) => {
          const { part } = row;
          const isChosen = part.id === props.chosenId;
          return (
            <tr key={part.id} data-chosen={isChosen || undefined}>
              <td>{n < keyedCount && <kbd>{n + 1}</kbd>}</td>
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
              <td className={text.figure}>
                {lifeText(row.cappedLifeHours)}
                {row.otherLives.map((one) => (
                  <div key={one.source} className={classes.source}>
                    {limitSourceLabels[one.source]} {lifeText(one.cappedLifeHours)}
                  </div>
                ))}
              </td>
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
