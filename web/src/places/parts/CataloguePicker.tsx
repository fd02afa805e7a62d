import { TextInput } from "@mantine/core";
import type { CatalogueRow } from "@pale-cap/contract";
import { formatMarkedCapacitance } from "@pale-cap/core";
import { useDeferredValue, useState } from "react";
import { useCatalogueQuery } from "../../job/catalogueApi";
import classes from "./parts.module.css";

const mostOffered = 6;

/** Finds a part of the catalogue by words, and offers the first that are meant. */
export function CataloguePicker({ onPick }: { readonly onPick: (part: CatalogueRow) => void }) {
  const [words, setWords] = useState("");
  const asked = useDeferredValue(words.trim());
  const query = { text: asked || null, capacitorClass: null, isInDrawer: false, offset: 0 };
  const { data } = useCatalogueQuery(query, { skip: asked === "" });
  return (
    <div>
      <TextInput
        label="Part of the catalogue"
        placeholder="470u 25v tern, or an order code"
        value={words}
        onChange={(event) => setWords(event.currentTarget.value)}
        autoComplete="off"
        spellCheck={false}
      />
      {asked !== "" && (
        <ul className={classes.offered}>
          {data?.rows.slice(0, mostOffered).map((part) => (
            <li key={part.id}>
              <button type="button" className={classes.rowButton} onClick={() => onPick(part)}>
                {part.maker} {part.series} {formatMarkedCapacitance(part.capacitanceFarads)} {part.ratedVolts} V{" "}
                {part.diameterMetres * 1e3}×{part.heightMetres * 1e3} {part.orderCode}
              </button>
            </li>
          ))}
          {data?.foundCount === 0 && <li>Nothing in the catalogue is called so.</li>}
        </ul>
      )}
    </div>
  );
}
