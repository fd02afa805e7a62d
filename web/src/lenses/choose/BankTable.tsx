import { Button, SegmentedControl } from "@mantine/core";
import type { Position, StockedPart } from "@pale-cap/contract";
import { type BankFilling, bankQuestion, bankReach, type Surroundings } from "@pale-cap/core";
import { bankLeadWords, kitWords, lifeText, moneyText } from "@pale-cap/wording";
import { useCallback, useMemo, useState } from "react";
import { useJob } from "../../job/JobContext";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { useBankChoice } from "../../workers/useReplacementRanking";
import classes from "./choose.module.css";
import { useCandidates } from "./useCandidates";
import { useChooseMany } from "./useChooseMany";
import { useKitRipple } from "./useKitRipple";
import { useRequirementOf } from "./useRequirementOf";

const shownCount = 5;

/** Places of one rail that go out together, filled together: by the sum of C, by ESR, and by each part's share of the current. */
export function BankTable(props: { readonly places: readonly Position[]; readonly around: Surroundings }) {
  const { places, around } = props;
  const { detail, houseRules } = useJob();
  const [mode, setMode] = useState<"life" | "price">("life");
  const requirementOf = useRequirementOf(around);
  const { save, problem, isSaving } = useChooseMany();
  const net = detail.nets.find((one) => one.id === places[0]?.netId);
  const needs = useMemo(
    () =>
      places.flatMap((position) => {
        const requirement = requirementOf(position);
        return requirement ? [{ position, requirement }] : [];
      }),
    [places, requirementOf],
  );
  const question = useMemo(
    () => (needs.length === places.length ? { ...bankQuestion(needs, around), mode } : null),
    [needs, places.length, around, mode],
  );
  const isLowEsrOnly = needs.some((one) => one.requirement.isLowEsrOnly);
  const section = net?.section ?? "other";
  const reach = useMemo(() => (question ? bankReach({ ...question, isLowEsrOnly }) : null), [question, isLowEsrOnly]);
  const { parts, isCut } = useCandidates(reach, section);
  const partOf = useCallback((id: string | null) => parts?.find((one) => one.id === id), [parts]);
  const asked = question && { places: question, section, isLowEsrOnly, count: shownCount };
  const { bank, progress } = useBankChoice(asked, parts);
  const ripple = useKitRipple(places, bank?.ranked, partOf);
  const takeAll = (ids: readonly (string | null)[]) => {
    const left = new Map<string, number>();
    return places.map((one, n) => {
      const id = ids[n] ?? null;
      const free = id === null ? 0 : (left.get(id) ?? partOf(id)?.stockCount ?? 0);
      if (id !== null) left.set(id, free - 1);
      return { positionId: one.id, cataloguePartId: id, isFromDrawer: free > 0 };
    });
  };
  const taken = places.map((one) => detail.plans.find((plan) => plan.positionId === one.id)?.cataloguePartId ?? null);
  if (!question) return null;
  const names = places.map((one) => one.designator);
  return (
    <Part
      title={`${names.join(", ")} together`}
      aside={
        <SegmentedControl
          size="xs"
          aria-label="Order of the kits"
          value={mode}
          data={[
            { value: "life", label: "longest life" },
            { value: "price", label: "lowest price" },
          ]}
          onChange={(value) => setMode(value as typeof mode)}
        />
      }
    >
      <ProblemNote problem={problem} />
      {!bank && <p className={text.soft}>Trying the kits… {Math.round(100 * progress)} %</p>}
      {bank && (
        <p className={text.softLine}>
          {bankLeadWords(bank, places.length)}
          {isCut &&
            " The catalogue holds more than were looked at: the longest lived, the cheapest and what lies in drawers were."}
        </p>
      )}
      {bank && bank.ranked.length > 0 && (
        <table
          className={`${text.table} ${text.ruled} ${classes.table} ${classes.kits}`}
          aria-label="Kits for the rail"
        >
          <TableHead names={["Parts", "C in all", "ESR", "ripple left", "most loaded", "Life", "Price", ""]} />
          <tbody>
            {bank.ranked.map((kit, n) => (
              <tr key={kit.ids.join()} data-chosen={kit.ids.join() === taken.join() || undefined}>
                <td>
                  <KitParts kit={kit} names={names} partOf={partOf} />
                  {kitWords(kit) && <div className={classes.warning}>{kitWords(kit)}</div>}
                </td>
                <td>
                  <Quantity value={kit.capacitanceFarads} unit="F" isMarking />
                </td>
                <td>
                  <Quantity value={kit.esrOhms} unit="Ω" />
                </td>
                <td>{ripple === "not_known" ? "–" : <Quantity value={ripple[n] ?? null} unit="V" />}</td>
                <td className={text.figure}>{Math.round(100 * kit.mostLoadRatio)} %</td>
                <td className={`${text.figure} ${classes.wraps}`}>{lifeText(kit.worstLifeHours)}</td>
                <td className={text.figure}>{moneyText(kit.priceMinor, houseRules["shop.currency"])}</td>
                <td>
                  <Button size="compact-sm" loading={isSaving} onClick={() => void save(takeAll(kit.ids))}>
                    Take for all
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Part>
  );
}

function KitParts(props: {
  readonly kit: BankFilling;
  readonly names: readonly string[];
  readonly partOf: (id: string | null) => StockedPart | undefined;
}) {
  const { kit, names, partOf } = props;
  const isSame = new Set(kit.ids).size === 1 && kit.ids[0] !== null;
  const shown = isSame ? kit.ids.slice(0, 1) : kit.ids;
  return (
    <>
      {shown.map((id, n) => {
        const part = partOf(id);
        return (
          <div key={names[n]}>
            {isSame ? `${names.length} ×` : names[n]} {part ? `${part.maker} ${part.series}` : "empty"}{" "}
            {part && (
              <>
                <Quantity value={part.capacitanceFarads} unit="F" isMarking />{" "}
                <Quantity value={part.ratedVolts} unit="V" /> {part.diameterMetres * 1e3}×{part.heightMetres * 1e3}
              </>
            )}
          </div>
        );
      })}
    </>
  );
}
