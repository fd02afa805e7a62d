import { Button, SegmentedControl } from "@mantine/core";
import type { JobDetail, Position, Problem, StockedPart } from "@pale-cap/contract";
import { type BankFilling, bankQuestion, bankReach, type Surroundings, sharedQuestions } from "@pale-cap/core";
import { bankLeadWords, kitWords, lifeText, moneyText, secondCanWords } from "@pale-cap/wording";
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
import { secondCanOf, useSecondCan } from "./useSecondCan";

const shownCount = 5;

/** Places of one rail that go out together, filled together: by the sum of C, by ESR, and by each part's share of the current. */
export function BankTable(props: { readonly places: readonly Position[]; readonly around: Surroundings }) {
  const { places } = props;
  const { detail, houseRules } = useJob();
  const around = useMemo(() => withoutSeconds(props.around, detail, places), [props.around, detail, places]);
  const [mode, setMode] = useState<"life" | "price">("life");
  const requirementOf = useRequirementOf(around);
  const { save, problem: refused, isSaving } = useChooseMany();
  const addSecondCan = useSecondCan();
  const [notAdded, setNotAdded] = useState<Problem>();
  const problem = notAdded ?? refused;
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
  const shared = useMemo(
    () => (question ? sharedQuestions(places, question.places, around) : []),
    [places, question, around],
  );
  const asked = question && { places: question, shared, section, isLowEsrOnly, count: shownCount };
  const { bank, progress } = useBankChoice(asked, parts);
  const ripple = useKitRipple(places, bank?.ranked, partOf);
  /** Each place gets its own; a second can gets a place of its own first, and one of an earlier kit stays empty. */
  const takeAll = async ({ ids, sharedAt }: BankFilling): Promise<void> => {
    const left = new Map<string, number>();
    const choice = (positionId: string, id: string | null) => {
      const free = id === null ? 0 : (left.get(id) ?? partOf(id)?.stockCount ?? 0);
      if (id !== null) left.set(id, free - 1);
      return { positionId, cataloguePartId: id, isFromDrawer: free > 0 };
    };
    setNotAdded(undefined);
    const choices = places.map((one, n) => choice(one.id, ids[n] ?? null));
    for (const [n, place] of places.entries()) {
      const room = n === sharedAt ? shared.find((one) => one.at === n) : undefined;
      const earlier = secondCanOf(detail, place);
      if (room) {
        const made = await addSecondCan(place, room.second);
        if (typeof made !== "string") return setNotAdded(made);
        choices.push(choice(made, ids.at(-1) ?? null));
      } else if (earlier) choices.push(choice(earlier.id, null));
    }
    await save(choices);
  };
  const planned = (id: string | undefined) =>
    detail.plans.find((plan) => plan.positionId === id)?.cataloguePartId ?? null;
  const seconds = places.flatMap((one) => planned(secondCanOf(detail, one)?.id) ?? []);
  const taken = [...places.map((one) => planned(one.id)), ...seconds];
  if (!question) return null;
  const isAlone = places.length === 1;
  if (isAlone && (shared.length === 0 || bank?.ranked.length === 0)) return null;
  const names = places.map((one) => one.designator);
  return (
    <Part
      title={isAlone ? `Two cans at ${names[0]}` : `${names.join(", ")} together`}
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
          {bankLeadWords(bank, places.length, shared.length)}
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
                  {kit.sharedAt !== undefined && (
                    <div className={text.soft}>{secondCanWords(names[kit.sharedAt] ?? "")}</div>
                  )}
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
                  <Button size="compact-sm" loading={isSaving} onClick={() => void takeAll(kit)}>
                    {isAlone ? "Take both" : "Take for all"}
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

/** The kit is asked anew: what an earlier one hung beside a place is not there. */
function withoutSeconds(around: Surroundings, detail: JobDetail, places: readonly Position[]): Surroundings {
  const ids = places.flatMap((one) => secondCanOf(detail, one)?.id ?? []);
  const chosen = new Map([...around.chosen].filter(([id]) => !ids.includes(id)));
  return { ...around, chosen, emptyIds: new Set([...around.emptyIds, ...ids]) };
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
          <div key={names[n] ?? "second"}>
            {isSame ? `${kit.ids.length} ×` : (names[n] ?? `${names[kit.sharedAt ?? 0]}, second can`)}{" "}
            {part ? `${part.maker} ${part.series}` : "empty"}{" "}
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
