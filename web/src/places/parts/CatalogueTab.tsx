import { Button, Checkbox, NativeSelect, TextInput } from "@mantine/core";
import { cataloguePageSize, routes } from "@pale-cap/contract";
import { type CapacitorClass, capacitorClasses } from "@pale-cap/core";
import { classLabels, moneyText } from "@pale-cap/wording";
import { useDeferredValue, useState } from "react";
import { useCatalogueQuery } from "../../job/catalogueApi";
import { useHouseRulesQuery } from "../../job/houseRulesApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { ImportPanel } from "./ImportPanel";
import classes from "./parts.module.css";

/** What can be bought: looked through by words and values, taken in from a file, given out as one. */
export function CatalogueTab() {
  const [words, setWords] = useState("");
  const [capacitorClass, setClass] = useState<CapacitorClass | null>(null);
  const [isInDrawer, setInDrawer] = useState(false);
  const [offset, setOffset] = useState(0);
  const [isImporting, setImporting] = useState(false);
  const sought = useDeferredValue(words.trim());
  const { data, error } = useCatalogueQuery({ text: sought || null, capacitorClass, isInDrawer, offset });
  const { data: rules } = useHouseRulesQuery();
  const currency = rules?.["shop.currency"] ?? "EUR";
  return (
    <>
      <div className={classes.bar}>
        <TextInput
          className={classes.search}
          aria-label="Find in the catalogue"
          placeholder="470u 25v, a maker, a series or an order code"
          value={words}
          onChange={(event) => {
            setWords(event.currentTarget.value);
            setOffset(0);
          }}
        />
        <NativeSelect
          aria-label="Class"
          data={[
            { value: "", label: "every class" },
            ...capacitorClasses.map((value) => ({ value, label: classLabels[value] })),
          ]}
          value={capacitorClass ?? ""}
          onChange={(event) => {
            setClass((event.currentTarget.value || null) as CapacitorClass | null);
            setOffset(0);
          }}
        />
        <Checkbox
          className={classes.check}
          label="in a drawer"
          checked={isInDrawer}
          onChange={(event) => {
            setInDrawer(event.currentTarget.checked);
            setOffset(0);
          }}
        />
        <Button onClick={() => setImporting(true)}>Take in a file</Button>
        <Button component="a" href={routes.catalogueExport} download="catalogue.csv">
          Give out as a file
        </Button>
      </div>
      <ProblemNote problem={asProblem(error)} />
      {isImporting && <ImportPanel currency={currency} onLeave={() => setImporting(false)} />}
      <div className={classes.list}>
        <p className={text.softLine} role="status">
          {data ? `${data.foundCount} of ${data.totalCount} parts` : "Looking…"}
          {data && data.foundCount > cataloguePageSize && `, ${offset + 1} to ${offset + data.rows.length} below`}
        </p>
        {data?.totalCount === 0 && (
          <p className={text.soft}>
            The catalogue is empty. Take in a file with one part a row: maker, series, order code, C, volts, temperature
            class, size, pitch, ESR or tan delta, ripple, life and price.
          </p>
        )}
        {data && data.rows.length > 0 && (
          <table className={`${text.table} ${text.ruled} ${classes.table}`} aria-label="Catalogue">
            <TableHead
              names={[
                "Part",
                "Order code",
                "Class",
                "C",
                "V",
                "Size",
                "Pitch",
                "ESR",
                "Ripple",
                "Life",
                "Price",
                "Free",
              ]}
            />
            <tbody>
              {data.rows.map((part) => (
                <tr key={part.id}>
                  <td>
                    <b>{part.maker}</b> {part.series}
                  </td>
                  <td className={text.figure}>{part.orderCode}</td>
                  <td>
                    {classLabels[part.capacitorClass]}, {part.temperatureClassCelsius} °C
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
                  <td className={text.figure}>{part.pitchMetres * 1e3}</td>
                  <td>
                    <Quantity value={part.esrOhms} unit="Ω" />
                    {part.printed && <div className={classes.note}>printed at {part.printed.frequencyHertz} Hz</div>}
                  </td>
                  <td>
                    <Quantity value={part.rippleAmpsRms} unit="A" />
                  </td>
                  <td className={text.figure}>{part.ratedLifeHours} h</td>
                  <td className={text.figure}>{moneyText(part.priceMinor, currency)}</td>
                  <td className={text.figure}>{part.stockCount || ""}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {data && data.foundCount > cataloguePageSize && (
          <div className={classes.row}>
            <Button disabled={offset === 0} onClick={() => setOffset(Math.max(0, offset - cataloguePageSize))}>
              Before
            </Button>
            <Button
              disabled={offset + cataloguePageSize >= data.foundCount}
              onClick={() => setOffset(offset + cataloguePageSize)}
            >
              Next {cataloguePageSize}
            </Button>
          </div>
        )}
      </div>
    </>
  );
}
