import { Button, NumberInput, SegmentedControl, TextInput } from "@mantine/core";
import { type CatalogueRow, type StockOrigin, stockOrigins } from "@pale-cap/contract";
import { parseOwnPart } from "@pale-cap/core";
import { originLabels, ownPartWords } from "@pale-cap/wording";
import { type FormEvent, useState } from "react";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useAddStockItemMutation } from "../../job/catalogueApi";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import { Understood } from "../../ui/Understood";
import { useDraft } from "../../ui/useDraft";
import { CataloguePicker } from "./CataloguePicker";
import classes from "./parts.module.css";

const blank = {
  line: "",
  pitchMetres: null as number | null,
  drawer: "",
  origin: "distributor" as StockOrigin,
  lot: "",
  dateCode: "",
  usedHours: null as number | null,
  count: 1,
};

/** Parts that go into a drawer: of the catalogue, or as they are marked. */
export function NewHeapForm(props: { readonly onDone: (id: string) => void; readonly onLeave: () => void }) {
  const [values, setValues, dropValues] = useDraft("new heap", blank);
  const [part, setPart] = useState<CatalogueRow | null>(null);
  const [id] = useState(newId);
  const personId = useAppSelector((state) => state.workplace.personId);
  const [add, { error, isLoading }] = useAddStockItemMutation();
  const set = (change: Partial<typeof blank>) => setValues((now) => ({ ...now, ...change }));
  const { entry, problems } = parseOwnPart(values.line);
  const marking =
    entry.capacitanceFarads === null || entry.ratedVolts === null
      ? null
      : {
          ...{ capacitanceFarads: entry.capacitanceFarads, ratedVolts: entry.ratedVolts, series: entry.series },
          ...{ temperatureClassCelsius: entry.temperatureClassCelsius, capacitorClass: entry.capacitorClass },
          ...{ diameterMetres: entry.diameterMetres, heightMetres: entry.heightMetres },
          pitchMetres: values.pitchMetres,
        };
  const isReady = part !== null || (marking !== null && problems.length === 0);
  async function store(event: FormEvent) {
    event.preventDefault();
    if (!isReady) return;
    const answer = await add({
      ...{ id, cataloguePartId: part?.id ?? null, marking: part ? null : marking, count: values.count, personId },
      values: {
        ...{ drawer: values.drawer.trim() || null, origin: values.origin, lot: values.lot.trim() || null },
        ...{ dateCode: values.dateCode.trim() || null, receivedOn: null, usedHours: values.usedHours, note: null },
      },
    });
    if (answer.error) return;
    dropValues();
    props.onDone(id);
  }
  return (
    <Part title="Into a drawer">
      <form onSubmit={store} className={classes.form}>
        {part ? (
          <div className={classes.picked}>
            <b>
              {part.maker} {part.series} {part.orderCode}
            </b>
            <Button size="compact-sm" onClick={() => setPart(null)}>
              Another
            </Button>
          </div>
        ) : (
          <>
            <CataloguePicker onPick={setPart} />
            <TextInput
              label="or as it is marked"
              placeholder="1000u 25v 105 lowz 10x20"
              value={values.line}
              onChange={(event) => set({ line: event.currentTarget.value })}
              autoComplete="off"
              spellCheck={false}
            />
            <Understood
              line={values.line}
              hint="Words in any order: value, volts, class, size, series."
              pieces={ownPartWords(entry)}
              problems={problems}
            />
            <QuantityInput
              label="Pitch"
              unit="mm"
              value={values.pitchMetres}
              onChange={(pitchMetres) => set({ pitchMetres })}
            />
          </>
        )}
        <SegmentedControl
          aria-label="Where they come from"
          data={stockOrigins.map((value) => ({ value, label: originLabels[value] }))}
          value={values.origin}
          onChange={(origin) => set({ origin: origin as StockOrigin })}
        />
        <div className={classes.fields}>
          <NumberInput
            label="How many"
            min={0}
            allowDecimal={false}
            value={values.count}
            onChange={(count) => set({ count: Number(count) || 0 })}
          />
          <TextInput
            label="Drawer"
            maxLength={24}
            value={values.drawer}
            onChange={(event) => set({ drawer: event.currentTarget.value })}
          />
          <TextInput
            label="Date code"
            placeholder="2431: week 31 of 2024"
            maxLength={16}
            value={values.dateCode}
            onChange={(event) => set({ dateCode: event.currentTarget.value })}
          />
          <TextInput
            label="Lot"
            maxLength={40}
            value={values.lot}
            onChange={(event) => set({ lot: event.currentTarget.value })}
          />
          {values.origin === "salvaged" && (
            <QuantityInput
              label="Hours it worked"
              unit="h"
              value={values.usedHours}
              onChange={(usedHours) => set({ usedHours })}
            />
          )}
        </div>
        <div className={classes.row}>
          <Button type="submit" variant="filled" loading={isLoading} disabled={!isReady}>
            Put them in
          </Button>
          <Button variant="default" onClick={props.onLeave}>
            Leave it
          </Button>
        </div>
        <ProblemNote problem={asProblem(error)} />
      </form>
    </Part>
  );
}
