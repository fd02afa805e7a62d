import type { FittedPartRow } from "@pale-cap/contract";
import { boardDamages, currentPart, formatMarkedCapacitance, lastActOf, proofPlan } from "@pale-cap/core";
import { damageWords, moneyText, proofStepLabels, sourceLabels } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { capacitorsInOrder } from "../../job/parts";
import text from "../../ui/text.module.css";
import classes from "./report.module.css";

/** The new parts that stand in the unit, whichever round put them there. */
export function Parts() {
  const { whole, houseRules } = useJob();
  const { positions, fittedParts } = whole.detail;
  const others = positions
    .filter((one) => one.kind !== "electrolytic")
    .sort((a, b) => a.designator.localeCompare(b.designator, "en", { numeric: true }))
    .map((position) => ({ position, current: currentPart(fittedParts, position.id) }));
  const parts = [...capacitorsInOrder(whole.detail), ...others].flatMap(({ position, current }) => {
    if (current?.origin !== "replacement") return [];
    // As it was when it went in: what the catalogue says later changes nothing that was handed over.
    const name = current.maker ? `${current.maker} ${current.series ?? ""}`.trim() : ownName(current);
    return [{ designator: position.designator, current, name }];
  });
  const total = parts.reduce((sum, { current }) => sum + (current.priceMinor ?? 0), 0);
  return (
    <section>
      <h2>Parts fitted</h2>
      {parts.length === 0 && <p>None.</p>}
      {parts.length > 0 && (
        <table className={`${text.table} ${classes.table}`}>
          <tbody>
            {parts.map(({ designator, current, name }) => (
              <tr key={designator}>
                <th scope="row">{designator}</th>
                <td>{name}</td>
                <td className={text.figure}>
                  {[
                    current.capacitanceFarads === null ? "" : formatMarkedCapacitance(current.capacitanceFarads),
                    current.ratedVolts === null ? "" : `${current.ratedVolts}\u00a0V`,
                    current.temperatureClassCelsius === null ? "" : `${current.temperatureClassCelsius}\u00a0°C`,
                  ].join(" ")}
                </td>
                <td className={text.figure}>
                  {current.diameterMetres !== null &&
                    current.heightMetres !== null &&
                    `${current.diameterMetres * 1e3} × ${current.heightMetres * 1e3} mm`}
                </td>
                <td className={classes.money}>
                  {current.priceMinor == null
                    ? "price not noted"
                    : moneyText(current.priceMinor, houseRules["shop.currency"])}
                </td>
              </tr>
            ))}
            <tr>
              <th scope="row" colSpan={4}>
                Parts
              </th>
              <td className={classes.money}>{moneyText(total, houseRules["shop.currency"])}</td>
            </tr>
          </tbody>
        </table>
      )}
    </section>
  );
}

function ownName({ series, source }: FittedPartRow): string {
  return [series, source && sourceLabels[source]].filter(Boolean).join(", ") || "own part";
}

/** What was done on the board beside parts out and in, and which steps of the proof were left out, with their reason. */
export function Work() {
  const { whole, facts, rules } = useJob();
  const { detail } = whole;
  const nameOf = (id: string | null) => detail.positions.find((one) => one.id === id)?.designator ?? "?";
  const damages = boardDamages(facts.acts);
  const temporary = detail.positions.filter(
    ({ id }) => lastActOf(facts.acts, "temporary_part", id)?.word === "for_now",
  );
  const mechanical = facts.acts.filter((one) => one.kind === "mechanical");
  const left = proofPlan(facts, rules).filter((one) => one.state === "not_done");
  const lines = [
    ...damages.map((one) => `${nameOf(one.positionId)}: ${damageWords(one)}.`),
    ...temporary.map((one) => `${one.designator} is in for now only.`),
    ...mechanical.map((one) => one.note ?? ""),
    ...left.map((one) => `Not done: ${proofStepLabels[one.code].toLowerCase()}, because ${one.note}.`),
  ];
  if (lines.length === 0) return null;
  return (
    <section>
      <h2>Work on the board, and what was left out</h2>
      <ul>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  );
}
