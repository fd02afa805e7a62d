import { Button, NativeSelect } from "@mantine/core";
import { routes } from "@pale-cap/contract";
import { type ComponentKind, componentKinds, componentRatings } from "@pale-cap/core";
import { componentKindLabels, moneyText, ratingLabels, ratingText } from "@pale-cap/wording";
import { useState } from "react";
import { useComponentsQuery } from "../../job/catalogueApi";
import { useHouseRulesQuery } from "../../job/houseRulesApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { ComponentImport } from "./ComponentImport";
import classes from "./parts.module.css";

/** Parts that are no electrolytics, kind by kind, with the ratings by which they are compared. */
export function OtherPartsTab() {
  const [kind, setKind] = useState<ComponentKind>("transistor");
  const [isImporting, setImporting] = useState(false);
  const { data, error } = useComponentsQuery(kind);
  const { data: rules } = useHouseRulesQuery();
  const currency = rules?.["shop.currency"] ?? "EUR";
  const ratings = componentRatings[kind];
  return (
    <>
      <div className={classes.bar}>
        <NativeSelect
          aria-label="Kind of part"
          data={componentKinds.map((value) => ({ value, label: componentKindLabels[value] }))}
          value={kind}
          onChange={(event) => setKind(event.currentTarget.value as ComponentKind)}
        />
        <Button onClick={() => setImporting(true)}>Take in a file</Button>
        <Button component="a" href={routes.componentExport} download="other-parts.csv">
          Give out as a file
        </Button>
      </div>
      <ProblemNote problem={asProblem(error)} />
      {isImporting && <ComponentImport currency={currency} onLeave={() => setImporting(false)} />}
      <div className={classes.list}>
        <p className={text.softLine} role="status">
          {data ? `${data.length} of this kind` : "Looking…"}
        </p>
        {data?.length === 0 && (
          <p className={text.soft}>
            None of this kind is in the catalogue. Take in a file with one part a row: kind, maker, type, price and the
            ratings that its sheet prints. What is not given counts as not known, never as met.
          </p>
        )}
        {data && data.length > 0 && (
          <table className={`${text.table} ${text.ruled} ${classes.table}`} aria-label="Other parts">
            <TableHead names={["Part", ...ratings.map((one) => ratingLabels[one.name]), "Price"]} />
            <tbody>
              {data.map((part) => (
                <tr key={part.id}>
                  <td>
                    <b>{part.maker}</b> {part.typeNumber}
                  </td>
                  {ratings.map((one) => (
                    <td key={one.name} className={text.figure}>
                      {ratingText(one, part.ratings[one.name] ?? null)}
                    </td>
                  ))}
                  <td className={text.figure}>{moneyText(part.priceMinor, currency)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
    </>
  );
}
