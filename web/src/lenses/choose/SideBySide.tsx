import type { FittedPartRow } from "@pale-cap/contract";
import type { OrderedReplacement } from "@pale-cap/core";
import { lifeText, moneyText } from "@pale-cap/wording";
import type { ReactNode } from "react";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import classes from "./choose.module.css";

/** Up to four beside each other, the old part first. */
export function SideBySide(props: {
  readonly rows: readonly OrderedReplacement[];
  readonly old: FittedPartRow;
  readonly oldHours: number | null;
  readonly currency: string;
}) {
  const { rows, old, oldHours, currency } = props;
  const lines: readonly (readonly [string, ReactNode, (row: OrderedReplacement) => ReactNode])[] = [
    [
      "C",
      <Quantity key="c" value={old.capacitanceFarads} unit="F" isMarking />,
      ({ part }) => <Quantity value={part.capacitanceFarads} unit="F" isMarking />,
    ],
    [
      "V",
      <Quantity key="v" value={old.ratedVolts} unit="V" />,
      ({ part }) => <Quantity value={part.ratedVolts} unit="V" />,
    ],
    [
      "class",
      old.temperatureClassCelsius === null ? "–" : `${old.temperatureClassCelsius} °C`,
      ({ part }) => `${part.temperatureClassCelsius} °C`,
    ],
    [
      "size",
      old.diameterMetres !== null && old.heightMetres !== null
        ? `${old.diameterMetres * 1e3}×${old.heightMetres * 1e3} mm`
        : "–",
      ({ part }) => `${part.diameterMetres * 1e3}×${part.heightMetres * 1e3} mm`,
    ],
    [
      "ESR, most",
      <Quantity key="e" value={old.datasheetEsrOhms} unit="Ω" />,
      ({ part }) => <Quantity value={part.esrOhms} unit="Ω" />,
    ],
    ["ripple", "–", ({ part }) => <Quantity value={part.rippleAmpsRms} unit="A" />],
    ["core above the air", "–", (row) => `${row.coreRiseKelvin.toFixed(1)} K`],
    [
      "one of ten failed after",
      oldHours === null ? "–" : lifeText(oldHours),
      (row) => lifeText(Math.min(row.tenPercentHours, row.cappedLifeHours)),
    ],
    ["back within the warranty", "–", (row) => chanceText(row.returnProbability)],
    ["price", "–", ({ part }) => moneyText(part.priceMinor, currency)],
    ["with what a return costs", "–", (row) => moneyText(Math.round(row.expectedCostMinor), currency)],
  ];
  return (
    <table className={`${text.table} ${text.ruled} ${classes.table}`} aria-label="Side by side">
      <thead>
        <tr>
          <th scope="col"> </th>
          <th scope="col">the old part, when new</th>
          {rows.map(({ part }) => (
            <th key={part.id} scope="col">
              {part.maker} {part.series}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {lines.map(([name, before, of]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td className={text.figure}>{before}</td>
            {rows.map((row) => (
              <td key={row.part.id} className={text.figure}>
                {of(row)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Rough as it is: never a share below what anyone could know. */
function chanceText(chance: number): string {
  if (chance < 0.001) return "below 0.1 %";
  return `${(100 * chance).toFixed(chance < 0.1 ? 1 : 0)} %`;
}
