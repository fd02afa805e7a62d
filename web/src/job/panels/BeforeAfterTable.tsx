import { beforeAfter, type Reading } from "@pale-cap/core";
import { falsifierWords, logTime, quantityFacts } from "@pale-cap/wording";
import { Quantity } from "../../ui/Quantity";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { useJob } from "../JobContext";

/** Heat, times and power before the last work and since; nothing where none was read. */
export function BeforeAfterTable({ className }: { readonly className?: string }) {
  const { detail, facts } = useJob();
  const rows = beforeAfter(facts);
  if (rows.length === 0) return null;
  const nameOf = (kind: Reading["targetKind"], id: string) =>
    kind === "part"
      ? detail.positions.find((one) => one.id === id)?.designator
      : kind === "rail"
        ? detail.nets.find((one) => one.id === id)?.name
        : "the unit";
  return (
    <table className={[text.table, className].filter(Boolean).join(" ")} aria-label="Heat, times and power">
      <TableHead names={["", "before the last work", "since"]} />
      <tbody>
        {rows.map(({ targetKind, targetId, quantity, isCaseClosed, before, after, afterVoidedBy }) => (
          <tr key={`${targetId} ${quantity} ${isCaseClosed}`}>
            <th scope="row">
              {nameOf(targetKind, targetId) ?? "removed"}, {quantityFacts[quantity].label.toLowerCase()}
              {isCaseClosed && ", case closed"}
            </th>
            <td>
              <Value reading={before} />
            </td>
            <td>
              <Value reading={after} />
              {afterVoidedBy && <div className={text.soft}>{falsifierWords[afterVoidedBy]}</div>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Value({ reading }: { readonly reading: Reading | null }) {
  if (!reading) return <span className={text.soft}>not read</span>;
  return (
    <>
      <Quantity value={reading.value} unit={quantityFacts[reading.quantity].unit} digits={3} />{" "}
      <span className={text.soft}>
        {reading.loadAmps ? `at ${reading.loadAmps} A, ` : ""}
        {reading.quantity === "temperature" && reading.temperatureCelsius !== null && reading.value !== null
          ? `${(reading.value - reading.temperatureCelsius).toFixed(0)} K above its surroundings, `
          : ""}
        {logTime(reading.measuredAt)}
      </span>
    </>
  );
}
