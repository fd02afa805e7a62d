import { Button } from "@mantine/core";
import type { FittedPartRow, Position } from "@pale-cap/contract";
import { foundPart, noOverrides, oldPartLifeHours, partReach } from "@pale-cap/core";
import { firstReasonWords, heapDoubtWords, orderLabels } from "@pale-cap/wording";
import { useMemo, useState } from "react";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useJob } from "../../job/JobContext";
import { useChosenCatalogue } from "../../job/useChosenCatalogue";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { useKeys } from "../../ui/useKeys";
import { useReplacementRanking } from "../../workers/useReplacementRanking";
import { BankTable } from "./BankTable";
import { ChosenPart } from "./ChosenPart";
import classes from "./choose.module.css";
import { FamilyChoice } from "./FamilyChoice";
import { FitView } from "./FitView";
import { LifeAgainstPrice } from "./LifeAgainstPrice";
import { NearMisses } from "./NearMisses";
import { OwnPartLine } from "./OwnPartLine";
import { orderWords } from "./orderWords";
import { keyedCount, PartTable } from "./PartTable";
import { PlaceRecord } from "./PlaceRecord";
import { Reasons } from "./Reasons";
import { RequirementNotes } from "./RequirementNotes";
import { RequirementTable } from "./RequirementTable";
import { SideBySide } from "./SideBySide";
import { useCandidates } from "./useCandidates";
import { useChoosePlan } from "./useChoosePlan";
import { useRequirementOf } from "./useRequirementOf";
import { useSurroundings } from "./useSurroundings";

/** As many of the ranking as have a key of their own, and three more; the rest on demand. */
const shownCount = 12;
/** As many places as the exact search fills. */
const mostTogether = 6;
/** Beside the old part. */
const mostCompared = 3;
const hoursOfMonth = 730.5;

/** The requirement of one place, with its limits editable, and the parts that meet it in the order of the house. */
export function PositionChoice(props: {
  readonly position: Position;
  /** Places that go out too: those of its own rail are chosen together, if wanted. */
  readonly wanted: readonly Position[];
}) {
  const { position, wanted } = props;
  const { detail, houseRules } = useJob();
  const catalogue = useChosenCatalogue();
  const { save, problem } = useChoosePlan(position.id);
  const [isAllShown, setAllShown] = useState(false);
  const [pickedIds, setPickedIds] = useState<readonly string[]>([]);
  const plan = detail.plans.find((one) => one.positionId === position.id);
  const net = detail.nets.find((one) => one.id === position.netId) ?? null;
  const overrides = plan?.overrides ?? noOverrides;
  const around = useSurroundings(position);
  const requirementOf = useRequirementOf(around);
  const requirement = useMemo(() => requirementOf(position), [requirementOf, position]);
  const section = net?.section ?? "other";
  const reach = useMemo(() => requirement && partReach(requirement), [requirement]);
  const candidates = useCandidates(reach, section);
  const ranking = useReplacementRanking(
    requirement && { requirement, section, order: orderOf(houseRules) },
    candidates.parts,
  );
  const rows = ranking?.survivors.slice(0, isAllShown ? undefined : shownCount) ?? [];
  const picked = ranking?.survivors.filter((one) => pickedIds.includes(one.part.id)) ?? [];
  const pick = (id: string) =>
    setPickedIds((now) => (now.includes(id) ? now.filter((one) => one !== id) : [...now, id].slice(-mostCompared)));
  const take = async (id: string | undefined, reason: string | null = null): Promise<boolean> => {
    const part = candidates.parts?.find((one) => one.id === id);
    if (!part) return false;
    const heap = candidates.heapOf.get(part.id);
    const reasons = { part: reason };
    if (heap) {
      const { capacitanceFarads, ratedVolts, temperatureClassCelsius, capacitorClass } = heap.marking;
      const { diameterMetres, heightMetres, series } = heap.marking;
      const marking = { capacitanceFarads, ratedVolts, temperatureClassCelsius, capacitorClass };
      const source = heap.origin === "salvaged" ? "salvaged" : "drawer";
      const partInHand = {
        id: newId(),
        ownPart: { ...marking, diameterMetres, heightMetres, series, isNonPolar: false, source } as const,
      };
      return save(() => ({ cataloguePartId: null, partInHand, stockItemId: heap.id, reasons }));
    }
    const drawer = part.stockCount > 0 ? { isFromDrawer: true } : { stockItemId: null };
    return save(() => ({ cataloguePartId: part.id, partInHand: null, reasons, ...drawer }));
  };
  useKeys("Choose", [
    ...rows.slice(0, keyedCount).map((row, n) => ({
      key: String(n + 1),
      label: `take line ${n + 1}`,
      action: () => void take(row.part.id),
    })),
    {
      key: "u",
      label: "undo the choice",
      action: () => void save(() => ({ cataloguePartId: null, partInHand: null, stockItemId: null })),
    },
  ]);
  const isEmpty = candidates.totalCount === 0 && candidates.parts?.length === 0;
  const chosen =
    catalogue?.find((one) => one.id === plan?.cataloguePartId) ??
    detail.fittedParts.find((one) => one.id === plan?.partInHandId);
  const can =
    chosen?.diameterMetres != null && chosen.heightMetres != null
      ? { diameterMetres: chosen.diameterMetres, heightMetres: chosen.heightMetres }
      : null;
  const old = foundPart(detail.fittedParts, position.id) as FittedPartRow | undefined;
  const oldHours = useMemo(() => (requirement && old ? oldPartLifeHours(requirement, old) : null), [requirement, old]);
  const bank = useMemo(
    () =>
      wanted
        .filter((one) => one.netId !== null && one.netId === position.netId && foundPart(detail.fittedParts, one.id))
        .sort((a, b) => a.designator.localeCompare(b.designator, undefined, { numeric: true })),
    [wanted, position.netId, detail.fittedParts],
  );

  return (
    <>
      <ProblemNote problem={problem} />
      <ChosenPart position={position} />
      <FamilyChoice position={position} />
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
            onReason={(key, reason) => void save(() => ({ reasons: { [key]: reason } }))}
          />
          <RequirementNotes requirement={requirement} net={net} around={around} />
          <PlaceRecord position={position} />
        </>
      ) : (
        <p className={text.soft}>
          {old
            ? "Value or voltage of the old part is not entered: nothing can be held against what goes in. Inspect has its line."
            : "Nothing was found at this place. A second can is chosen with the place beside which it hangs."}
        </p>
      )}
      <OwnPartLine position={position} requirement={requirement} />
      {bank.length > 0 && bank.length <= mostTogether && !isEmpty && <BankTable places={bank} around={around} />}
      {isEmpty && (
        <p className={text.soft}>
          The shop has no catalogue yet. Enter the part you have in the line above: drawer, bought or salvaged.
        </p>
      )}
      {requirement && !isEmpty && (
        <Part
          title={`What fits: ${orderLabels[houseRules["choose.order"]]}`}
          aside={
            ranking && (
              <span className={text.soft}>
                {ranking.survivorCount} fit of {candidates.totalCount} in the catalogue
                {candidates.heapOf.size > 0 && ` and ${candidates.heapOf.size} loose in drawers`}
              </span>
            )
          }
        >
          {!ranking && <p className={text.soft}>Ranking what is within reach…</p>}
          {ranking?.survivors.length === 0 && (
            <p className={text.soft}>
              Nothing in the catalogue meets every limit.
              {ranking.nearMisses.length > 0 && " What comes near stands below: each can be taken with a reason."}
            </p>
          )}
          {ranking?.firstReason && (
            <p className={text.softLine}>
              {firstReasonWords(ranking.firstReason)}
              {requirement.mission && " Lives are over the promised day."}
              {candidates.isCut &&
                " The catalogue holds more within reach than were looked at: the longest lived, the cheapest and what lies in drawers were."}
            </p>
          )}
          {rows.length > 0 && (
            <PartTable
              rows={rows}
              chosenId={plan?.cataloguePartId ?? plan?.stockItemId ?? null}
              heapOf={candidates.heapOf}
              drawersOf={candidates.drawersOf}
              orderWords={orderWords(houseRules, detail.job.dueOn, pageClock.now())}
              pickedIds={pickedIds}
              onPick={pick}
              onChoose={(id) => void take(id)}
              currency={houseRules["shop.currency"]}
            />
          )}
          {ranking && ranking.survivors.length > shownCount && (
            <Button size="compact-sm" onClick={() => setAllShown(!isAllShown)}>
              {isAllShown ? "Only the first" : `Show ${ranking.survivors.length - shownCount} more`}
            </Button>
          )}
          {rows.length > 1 && (
            <LifeAgainstPrice
              rows={rows}
              pickedIds={pickedIds}
              onPick={pick}
              currency={houseRules["shop.currency"]}
              oldHours={oldHours}
            />
          )}
          {old && picked.length > 0 && (
            <SideBySide rows={picked} old={old} oldHours={oldHours} currency={houseRules["shop.currency"]} />
          )}
        </Part>
      )}
      {candidates.withheld.length > 0 && (
        <ul className={classes.withheld}>
          {candidates.withheld.map(({ item, doubts }) => (
            <li key={item.id}>
              Drawer {item.drawer ?? "without a name"}, {item.marking.series ?? "loose"}: not offered,{" "}
              {heapDoubtWords(doubts)}.
            </li>
          ))}
        </ul>
      )}
      {ranking && (
        <NearMisses
          name={`${detail.job.id} near part ${position.id}`}
          ranking={{ ...ranking, refusedCounts: { ...ranking.refusedCounts, ...candidates.refusedCounts } }}
          onTake={take}
        />
      )}
    </>
  );
}

function orderOf(houseRules: ReturnType<typeof useJob>["houseRules"]) {
  return {
    order: houseRules["choose.order"],
    warrantyHours: Math.max(houseRules["shop.warrantyMonths"], 1) * hoursOfMonth,
    returnCostMinor: (houseRules["shop.usualMinutes"] / 60) * houseRules["shop.labourPerHourMinor"],
  };
}
