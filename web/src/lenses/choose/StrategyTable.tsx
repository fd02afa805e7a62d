import type { Position } from "@pale-cap/contract";
import { capacitorsInOrder } from "@pale-cap/contract";
import { airAround, foundPart, jobStrategies, missionProfile, shopDayOf, stockDeadline } from "@pale-cap/core";
import {
  breakEvenWords,
  dayText,
  moneyText,
  ruleStrategies,
  strategyGapWords,
  strategyLabels,
} from "@pale-cap/wording";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { useChosenCatalogue } from "../../job/useChosenCatalogue";
import { Part } from "../../ui/Pane";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./choose.module.css";
import { useSurroundings } from "./useSurroundings";

/** What each way of repairing is likely to cost, returns within the warranty included. */
export function StrategyTable({ first }: { readonly first: Position }) {
  const { detail, facts, judgements, houseRules } = useJob();
  const catalogue = useChosenCatalogue();
  const around = useSurroundings(first);
  const { purpose, economics } = detail.job.intakeDetails;
  const answer = useMemo(() => {
    const places = new Map<string, { readonly ambientCelsius: number; readonly partMinor: number | null }>();
    for (const { position } of capacitorsInOrder(detail)) {
      const part = foundPart(detail.fittedParts, position.id);
      const net = detail.nets.find((one) => one.id === position.netId) ?? null;
      // The air alone counts here: the whole requirement of every place would run the ripple engine for each.
      const mission = missionProfile(purpose, 0, false);
      const air = part && airAround({ position, part, net, mission, purpose, around })[0];
      const chosen = detail.plans.find((one) => one.positionId === position.id)?.cataloguePartId;
      const price = catalogue?.find((one) => one.id === chosen)?.priceMinor ?? null;
      if (air) places.set(position.id, { ambientCelsius: air.value, partMinor: price });
    }
    return jobStrategies({
      ...{ facts, judgements, places },
      hoursPerDay: purpose.hoursPerDay,
      warrantyMonths: houseRules["shop.warrantyMonths"],
      labourPerHourMinor: houseRules["shop.labourPerHourMinor"],
      usualMinutes: houseRules["shop.usualMinutes"],
      minutesPerPart: houseRules["shop.minutesPerPart"],
      usualPartMinor: houseRules["shop.usualPartMinor"],
      supplyMinor: economics.replacementMinor,
    });
  }, [detail, facts, judgements, houseRules, purpose, economics, around, catalogue]);
  if (typeof answer === "string") {
    const words = strategyGapWords(answer);
    return words && <p className={text.softLine}>{words}</p>;
  }
  const { comparison } = answer;
  const byRule = ruleStrategies[houseRules["choose.howMany"]];
  const money = (minor: number) => moneyText(Math.round(minor), houseRules["shop.currency"]);
  return (
    <Part
      title="What each way is likely to cost"
      aside={<span className={text.soft}>rough: it orders, it promises nothing</span>}
    >
      <table className={`${text.table} ${text.ruled} ${classes.table}`} aria-label="Ways to repair">
        <TableHead names={["", "parts", "work and parts", "comes back in warranty", "in all, on average", "there"]} />
        <tbody>
          {comparison.rows.map((row) => (
            <tr key={row.strategy} data-chosen={row.strategy === comparison.winner || undefined}>
              <th scope="row">
                {strategyLabels[row.strategy]}
                {row.strategy === byRule && <span className={text.soft}> (house rule)</span>}
              </th>
              <td className={text.figure}>{row.replaced?.length ?? ""}</td>
              <td className={text.figure}>{money(row.fixedCost)}</td>
              <td className={text.figure}>{Math.round(100 * row.returnProbability)} %</td>
              <td className={text.figure}>
                <b>{money(row.expectedCost)}</b>
              </td>
              <td className={text.soft}>
                {row.replaced && <Stock positionIds={row.replaced.flatMap((n) => answer.parts[n]?.positionId ?? [])} />}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={text.softLine}>{breakEvenWords(comparison, answer.returnMinor, money)}</p>
    </Part>
  );
}

/** What the drawers allow by the due date: of the chosen parts, and how many are not chosen yet. */
function Stock({ positionIds }: { readonly positionIds: readonly string[] }) {
  const { detail, houseRules, nowMilliseconds } = useJob();
  const catalogue = useChosenCatalogue();
  const chosen = positionIds.flatMap((id) => {
    const plan = detail.plans.find((one) => one.positionId === id);
    const part = catalogue?.find((one) => one.id === plan?.cataloguePartId);
    if (!plan || !part) return [];
    // What is set aside for the place lies there, whatever else is free.
    return [plan.stockItemId ? { partId: id, stockCount: 1 } : { partId: part.id, stockCount: part.stockCount }];
  });
  const openCount = positionIds.length - chosen.length;
  const open = openCount > 0 ? `${openCount} not chosen yet` : null;
  if (chosen.length === 0) return open;
  const today = shopDayOf(nowMilliseconds, houseRules["shop.timeZone"]);
  const found = stockDeadline(chosen, today, detail.job.dueOn, houseRules["shop.orderDays"]);
  const there =
    found.toOrderCount === 0
      ? `${chosen.length} in drawers`
      : `${found.inStockCount} of ${chosen.length} in drawers, the rest ${dayText(found.readyOn)}`;
  const late = found.isInTime === false ? ", after it is due" : "";
  return [`${there}${late}`, open].filter(Boolean).join("; ");
}
