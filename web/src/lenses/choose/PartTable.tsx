import { Button, Checkbox } from "@mantine/core";
import type { StockItem } from "@pale-cap/contract";
import type { OrderedReplacement } from "@pale-cap/core";
import { checkWords, lifeText, limitSourceLabels, moneyText, originLabels } from "@pale-cap/wording";
import { Quantity } from "../../ui/Quantity";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./choose.module.css";

export const keyedCount = 9;

/** One line a part that fits, first what the house rule puts first. */
export function PartTable(props: {
  readonly rows: readonly OrderedReplacement[];
  readonly chosenId: string | null;
  readonly heapOf: ReadonlyMap<string, StockItem>;
  readonly drawersOf: ReadonlyMap<string, readonly string[]>;
  /** Said of a part that lies in no drawer. */
  readonly orderWords: string;
  readonly pickedIds: readonly string[];
  readonly onPick: (id: string) => void;
  readonly onChoose: (id: string) => void;
  readonly currency: string;
}) {
  return (
    <table className={`${text.table} ${text.ruled} ${classes.table}`} aria-label="Parts that fit">
      <TableHead names={["", "Part", "C", "V", "Size", "ESR", "Ripple", "Life", "Price", "There", " ", "  "]} />
      <tbody>
        {props.rows.map((row, n) => {
          const { part } = row;
          const isChosen = part.id === props.chosenId;
          const isPicked = props.pickedIds.includes(part.id);
          const heap = props.heapOf.get(part.id);
          const name = heap ? `${part.series}, ${originLabels[heap.origin]}` : part.series;
          return (
            <tr key={part.id} data-chosen={isChosen || undefined} data-picked={isPicked || undefined}>
              <td>{n < keyedCount && <kbd>{n + 1}</kbd>}</td>
              <td>
                {!heap && <b>{part.maker}</b>} {name}
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
              <td className={`${text.figure} ${classes.wraps}`}>
                {lifeText(row.cappedLifeHours)}
                {row.otherLives.map((one) => (
                  <div key={one.source} className={classes.source}>
                    {limitSourceLabels[one.source]} {lifeText(one.cappedLifeHours)}
                  </div>
                ))}
              </td>
              <td className={text.figure}>{heap ? "–" : moneyText(part.priceMinor, props.currency)}</td>
              <td className={classes.wraps}>
                {row.stockCount > 0 ? (
                  <b>
                    {row.stockCount} in {props.drawersOf.get(part.id)?.join(", ") ?? "a drawer"}
                  </b>
                ) : (
                  <span className={classes.source}>{props.orderWords}</span>
                )}
              </td>
              <td>
                <Checkbox
                  size="xs"
                  aria-label={`Compare ${part.maker} ${part.series} line ${n + 1}`}
                  checked={isPicked}
                  onChange={() => props.onPick(part.id)}
                />
              </td>
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
