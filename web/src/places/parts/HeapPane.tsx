import { Button, NumberInput, TextInput } from "@mantine/core";
import { handMovements, path, routes, type StockItemDetail } from "@pale-cap/contract";
import { dayText, momentText, movementLabels, originLabels } from "@pale-cap/wording";
import { useState } from "react";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import { HeapTests } from "./HeapTests";
import classes from "./parts.module.css";
import { useEditStockItemMutation, useMoveStockMutation, useStockItemQuery } from "./partsApi";
import { sizeText } from "./sizeText";

/** One heap: what it is, how many, what was done with it and what may be done. */
export function HeapPane({ itemId }: { readonly itemId: string }) {
  const { data: item, error } = useStockItemQuery(itemId);
  if (!item) return <ProblemNote problem={asProblem(error)} />;
  const { marking } = item;
  return (
    <>
      <Part title={[marking.maker, marking.series ?? "loose"].filter(Boolean).join(" ")}>
        <p className={text.softLine}>
          <Quantity value={marking.capacitanceFarads} unit="F" isMarking />{" "}
          <Quantity value={marking.ratedVolts} unit="V" />{" "}
          {marking.temperatureClassCelsius !== null && `${marking.temperatureClassCelsius} °C `}
          {sizeText(item)} mm {marking.orderCode}; {originLabels[item.origin]}
          {item.usedHours !== null && `, ${item.usedHours} h worked`}
          {item.receivedOn && `, came ${dayText(item.receivedOn)}`}
        </p>
        <div className={classes.sums}>
          <span>
            <b>{item.count}</b> there
          </span>
          <span>
            <b>{item.reserved}</b> promised
          </span>
          <span>
            <b>{item.free}</b> free
          </span>
        </div>
        <Movements item={item} />
        {item.drawer !== null && (
          <Button
            component="a"
            size="xs"
            mt={8}
            href={path(routes.drawerLabel, { itemId })}
            target="_blank"
            rel="noreferrer"
          >
            Label for {item.drawer}
          </Button>
        )}
      </Part>
      <Where key={item.version} item={item} />
      <HeapTests item={item} />
      <Part title="What moved">
        <ul className={classes.log}>
          {item.movements.map((one) => (
            <li key={one.id}>
              {momentText(one.at)}: {movementLabels[one.kind]}{" "}
              {one.countDelta !== 0 && `${one.countDelta > 0 ? "+" : ""}${one.countDelta}`}
              {one.jobNumber !== null && ` job ${String(one.jobNumber).padStart(4, "0")} ${one.designator ?? ""}`}
              {one.note && `, ${one.note}`}
            </li>
          ))}
        </ul>
      </Part>
    </>
  );
}

const handLabels: Readonly<Record<(typeof handMovements)[number], string>> = {
  received: "Put in",
  scrapped: "Scrap",
  counted: "Counted",
};

function Movements({ item }: { readonly item: StockItemDetail }) {
  const [pieces, setPieces] = useState<number | string>("");
  const personId = useAppSelector((state) => state.workplace.personId);
  const [move, { error, isLoading }] = useMoveStockMutation();
  const count = Number(pieces);
  const isNumber = pieces !== "" && Number.isInteger(count) && count >= 0;
  return (
    <>
      <div className={classes.row}>
        <NumberInput
          aria-label="Pieces"
          placeholder="pieces"
          min={0}
          allowDecimal={false}
          hideControls
          w={90}
          value={pieces}
          onChange={setPieces}
        />
        {handMovements.map((kind) => (
          <Button
            key={kind}
            disabled={!isNumber || (kind !== "counted" && count === 0)}
            loading={isLoading}
            onClick={() =>
              void move({ itemId: item.id, body: { id: newId(), kind, pieces: count, note: null, personId } }).then(
                (answer) => !answer.error && setPieces(""),
              )
            }
          >
            {handLabels[kind]}
          </Button>
        ))}
      </div>
      <ProblemNote problem={asProblem(error)} />
    </>
  );
}

/** Where it lies and what is known of it; and whether it is kept apart. */
function Where({ item }: { readonly item: StockItemDetail }) {
  const start = {
    ...{ drawer: item.drawer ?? "", lot: item.lot ?? "", dateCode: item.dateCode ?? "", note: item.note ?? "" },
    setAsideReason: item.setAsideReason ?? "",
  };
  const [values, setValues, dropValues] = useDraft(`heap ${item.id}`, start);
  const [edit, { error, isLoading }] = useEditStockItemMutation();
  const isChanged = JSON.stringify(values) !== JSON.stringify(start);
  const field = (name: keyof typeof start, label: string, most: number, placeholder?: string) => (
    <TextInput
      label={label}
      maxLength={most}
      placeholder={placeholder}
      value={values[name]}
      onChange={(event) => {
        const value = event.currentTarget.value;
        setValues((now) => ({ ...now, [name]: value }));
      }}
    />
  );
  async function store() {
    const { origin, receivedOn, usedHours } = item;
    const said = (value: string) => value.trim() || null;
    const answer = await edit({
      itemId: item.id,
      body: {
        ...{ writeId: newId(), version: item.version, setAsideReason: said(values.setAsideReason) },
        values: {
          ...{ origin, receivedOn, usedHours, drawer: said(values.drawer), lot: said(values.lot) },
          ...{ dateCode: said(values.dateCode), note: said(values.note) },
        },
      },
    });
    if (!answer.error) dropValues(values);
  }
  return (
    <Part title="Where and whence">
      <div className={classes.fields}>
        {field("drawer", "Drawer", 24)}
        {field("dateCode", "Date code", 16)}
        {field("lot", "Lot", 40)}
        {field("note", "Note", 200)}
        {field("setAsideReason", "Kept apart because", 200, "empty: it may be used")}
      </div>
      {isChanged && (
        <div className={classes.row}>
          <Button loading={isLoading} onClick={() => void store()}>
            Keep
          </Button>
          <Button variant="default" onClick={() => dropValues()}>
            As it was
          </Button>
        </div>
      )}
      <ProblemNote problem={asProblem(error)} />
    </Part>
  );
}
