import { Button, NativeSelect, SegmentedControl } from "@mantine/core";
import { houseRules } from "@pale-cap/contract";
import {
  type CapacitorClass,
  capacitorClasses,
  esrSheet,
  formatQuantity,
  type SheetCell,
  sheetMicrofarads,
  sheetVolts,
} from "@pale-cap/core";
import { classLabels, dayText } from "@pale-cap/wording";
import { IconPrinter } from "@tabler/icons-react";
import { useMemo, useState } from "react";
import { useHouseRulesQuery } from "../../job/houseRulesApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { TableHead } from "../../ui/TableHead";
import classes from "./esrSheet.module.css";

const frequencies = [100e3, 20e3, 1e3, 120] as const;
const temperatures = [20, 0, 40] as const;

/** What a new capacitor should read, by value, voltage and class: printed, it lies in the tester's lid. */
export function EsrSheetScreen() {
  const { data: rules, error } = useHouseRulesQuery();
  const [capacitorClass, setClass] = useState<CapacitorClass>("lowz");
  const [hertz, setHertz] = useState<number>(100e3);
  const [celsius, setCelsius] = useState<number>(20);
  const school = rules?.["judge.school"];
  const rows = useMemo(
    () => school && esrSheet({ capacitorClass, frequencyHertz: hertz, temperatureCelsius: celsius, school }),
    [capacitorClass, hertz, celsius, school],
  );
  const at = `${formatQuantity(hertz, "Hz").text}, ${celsius} °C`;
  return (
    <div className={classes.page}>
      <header className={classes.head}>
        <h1>
          Expected ESR, {classLabels[capacitorClass]}, at {at}
        </h1>
        <div className={classes.tools}>
          <SegmentedControl
            aria-label="Class"
            value={capacitorClass}
            data={capacitorClasses.map((one) => ({ value: one, label: classLabels[one] }))}
            onChange={(value) => setClass(value as CapacitorClass)}
          />
          <NativeSelect
            aria-label="Tester frequency"
            value={String(hertz)}
            data={frequencies.map((one) => ({ value: String(one), label: formatQuantity(one, "Hz").text }))}
            onChange={(event) => setHertz(Number(event.currentTarget.value))}
          />
          <NativeSelect
            aria-label="Temperature"
            value={String(celsius)}
            data={temperatures.map((one) => ({ value: String(one), label: `${one} °C` }))}
            onChange={(event) => setCelsius(Number(event.currentTarget.value))}
          />
          <Button leftSection={<IconPrinter size={18} />} onClick={() => window.print()}>
            Print
          </Button>
        </div>
      </header>
      <ProblemNote problem={asProblem(error)} />
      {rows && school && (
        <>
          <p className={classes.lead}>
            Large: what a new one typically reads, in ohms. Small: from there the house calls it failed (
            {schoolWords(school)}). From tan delta, because a sheet knows no size: rough, a factor of two either way. In
            circuit a good neighbour hides a bad part.
          </p>
          <table className={classes.sheet}>
            <TableHead names={["µF", ...sheetVolts.map((volts) => `${volts} V`)]} />
            <tbody>
              {rows.map((cells, row) => (
                <tr key={sheetMicrofarads[row]}>
                  <th scope="row">{sheetMicrofarads[row]}</th>
                  {cells.map((cell, column) => (
                    <Cell key={sheetVolts[column]} cell={cell} />
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          <p className={classes.lead}>
            A tilde marks values beyond the tables: their band is wider still. Printed{" "}
            {dayText(new Date().toISOString())}. Drain and measure volts before the tester touches a capacitor.
          </p>
        </>
      )}
    </div>
  );
}

function schoolWords(school: string): string {
  const { kind } = houseRules["judge.school"];
  return kind.type === "choice" ? (kind.options[school] ?? school) : school;
}

function Cell({ cell }: { readonly cell: SheetCell | null }) {
  if (!cell) return <td className={classes.none}>·</td>;
  const { basis, typicalOhms, lowOhms, highOhms } = cell.expected;
  return (
    <td title={`${formatQuantity(lowOhms, "Ω").text} to ${formatQuantity(highOhms, "Ω").text}`}>
      <b>
        {basis === "extrapolated" && "~"}
        {plainOhms(typicalOhms)}
      </b>
      <small>{plainOhms(cell.failedOhms)}</small>
    </td>
  );
}

/** Two significant digits, without an exponent: a sheet is read at a glance. */
function plainOhms(ohms: number): string {
  const digits = Math.max(0, 1 - Math.floor(Math.log10(ohms)));
  return ohms.toFixed(Math.min(digits, 4));
}
