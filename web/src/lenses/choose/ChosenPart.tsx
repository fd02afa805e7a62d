import { Button } from "@mantine/core";
import type { Position } from "@pale-cap/contract";
import { judgePosition, partInHand, standingReadings } from "@pale-cap/core";
import { quantityFacts, sourceLabels, verdictLabels } from "@pale-cap/wording";
import { useNavigate } from "react-router";
import { newId } from "../../api/newId";
import { VerdictGlyph } from "../../drawing/VerdictGlyph";
import { useStockQuery } from "../../job/catalogueApi";
import { useJob } from "../../job/JobContext";
import { heapAsks } from "../../job/looseHeaps";
import { useChosenCatalogue } from "../../job/useChosenCatalogue";
import { useTarget } from "../../job/useTarget";
import { Quantity } from "../../ui/Quantity";
import classes from "./choose.module.css";
import { useChoosePlan } from "./useChoosePlan";

/** What was chosen, where it comes from, and what it read: it can be read before it goes in. */
export function ChosenPart({ position }: { readonly position: Position }) {
  const { detail, facts, rules } = useJob();
  const { save } = useChoosePlan(position.id);
  const catalogue = useChosenCatalogue();
  const [, select] = useTarget();
  const navigate = useNavigate();
  const plan = detail.plans.find((one) => one.positionId === position.id);
  const bought = catalogue?.find((one) => one.id === plan?.cataloguePartId);
  const own = detail.fittedParts.find((one) => one.id === plan?.partInHandId);
  const shown = bought ?? own;
  if (!shown && plan?.isLeftEmpty) {
    return (
      <div className={classes.chosen}>
        <span>It stays empty: what stands beside it carries its share.</span>
        <Button size="xs" onClick={() => void save(() => ({ isLeftEmpty: false }))}>
          Undo the choice
        </Button>
      </div>
    );
  }
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
        <Whence
          stockItemId={plan?.stockItemId ?? null}
          freeCount={bought && !isFitted ? bought.stockCount : null}
          onSetAside={() => void save(() => ({ isFromDrawer: true }))}
        />
      </span>
      {!isFitted && (
        <span className={classes.acts}>
          <Button size="xs" onClick={() => void read()}>
            Read it before it goes in
          </Button>
          <Button
            size="xs"
            onClick={() => void save(() => ({ cataloguePartId: null, partInHand: null, stockItemId: null }))}
          >
            Undo the choice
          </Button>
        </span>
      )}
    </div>
  );
}

/** Out of which drawer, or that it is to be got; and what a part that lay long asks for. */
function Whence(props: {
  readonly stockItemId: string | null;
  /** Free in the drawers; null: it is in already, or no catalogue knows it. */
  readonly freeCount: number | null;
  readonly onSetAside: () => void;
}) {
  const { stockItemId, freeCount } = props;
  const { houseRules, nowMilliseconds } = useJob();
  const { data: stock } = useStockQuery();
  if (stockItemId === null && freeCount === null) return null;
  if (stockItemId === null) {
    return (
      <div className={classes.source}>
        {freeCount === 0 ? "to be ordered: none is set aside" : "none is set aside yet; "}
        {freeCount !== 0 && (
          <Button size="compact-xs" onClick={props.onSetAside}>
            Set one of {freeCount} aside
          </Button>
        )}
      </div>
    );
  }
  const item = stock?.find((one) => one.id === stockItemId);
  if (!item) return null;
  const need = heapAsks(item, houseRules, nowMilliseconds);
  return (
    <div className={classes.source}>
      one set aside out of drawer {item.drawer ?? "without a name"}
      {need && <b className={classes.warning}>: {need}</b>}
    </div>
  );
}
