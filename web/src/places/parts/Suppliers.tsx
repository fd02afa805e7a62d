import { Button, NumberInput, TextInput } from "@mantine/core";
import type { SupplierRow, SupplierValues } from "@pale-cap/contract";
import { majorAmount, minorAmount, moneyText } from "@pale-cap/wording";
import { type FormEvent, useState } from "react";
import { newId } from "../../api/newId";
import { useCataloguePartsQuery } from "../../job/catalogueApi";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import { CataloguePicker } from "./CataloguePicker";
import classes from "./parts.module.css";
import { useAddSupplierMutation, useEditSupplierMutation, useSetOfferMutation, useSuppliersQuery } from "./partsApi";

const blank: SupplierValues = { name: "", shippingMinor: 0, freeFromMinor: null, days: 3, isUsed: true };

/** Who delivers, at which shipping, in how many days, and what each offers. */
export function Suppliers({ currency }: { readonly currency: string }) {
  const { data: suppliers = [], error } = useSuppliersQuery();
  const [openId, setOpenId] = useState<string | null>(null);
  return (
    <Part
      title="Suppliers"
      aside={
        <Button size="compact-sm" onClick={() => setOpenId("new")}>
          Add one
        </Button>
      }
    >
      <ProblemNote problem={asProblem(error)} />
      {openId === "new" && <SupplierForm currency={currency} onDone={() => setOpenId(null)} />}
      {suppliers.length === 0 && openId !== "new" && (
        <p className={text.soft}>
          No supplier is known. With one and its offers an order can be split by price and days.
        </p>
      )}
      {suppliers.map((one) => (
        <div key={one.id} className={classes.card}>
          {openId === one.id ? (
            <SupplierForm supplier={one} currency={currency} onDone={() => setOpenId(null)} />
          ) : (
            <>
              <h3>
                {one.name} {!one.isUsed && <span className={classes.note}>not used</span>}
              </h3>
              <p className={text.softLine}>
                {one.days} {one.days === 1 ? "day" : "days"}, shipping {moneyText(one.shippingMinor, currency)}
                {one.freeFromMinor !== null && `, free from ${moneyText(one.freeFromMinor, currency)}`};{" "}
                {one.offers.length} offers
              </p>
              <Button size="compact-sm" onClick={() => setOpenId(one.id)}>
                Change {one.name}
              </Button>
            </>
          )}
        </div>
      ))}
    </Part>
  );
}

function SupplierForm(props: {
  readonly supplier?: SupplierRow;
  readonly currency: string;
  readonly onDone: () => void;
}) {
  const { supplier, currency, onDone } = props;
  const start: SupplierValues = supplier
    ? {
        ...{ name: supplier.name, shippingMinor: supplier.shippingMinor, freeFromMinor: supplier.freeFromMinor },
        ...{ days: supplier.days, isUsed: supplier.isUsed },
      }
    : blank;
  const [values, setValues, dropValues] = useDraft(`supplier ${supplier?.id ?? "new"}`, start);
  const [id] = useState(newId);
  const [add, added] = useAddSupplierMutation();
  const [edit, edited] = useEditSupplierMutation();
  const set = (change: Partial<SupplierValues>) => setValues((now) => ({ ...now, ...change }));
  async function store(event: FormEvent) {
    event.preventDefault();
    const answer = supplier
      ? await edit({ supplierId: supplier.id, body: { writeId: newId(), version: supplier.version, values } })
      : await add({ id, values });
    if (answer.error) return;
    dropValues(values);
    onDone();
  }
  return (
    <form onSubmit={store} className={classes.form}>
      <TextInput
        label="Name"
        maxLength={60}
        value={values.name}
        onChange={(event) => set({ name: event.currentTarget.value })}
      />
      <div className={classes.fields}>
        <NumberInput
          label={`Shipping, ${currency}`}
          min={0}
          hideControls
          value={majorAmount(values.shippingMinor, currency)}
          onChange={(amount) => set({ shippingMinor: minorAmount(Number(amount) || 0, currency) })}
        />
        <NumberInput
          label="Free from"
          placeholder="never"
          min={0}
          hideControls
          value={values.freeFromMinor === null ? "" : majorAmount(values.freeFromMinor, currency)}
          onChange={(amount) => set({ freeFromMinor: amount === "" ? null : minorAmount(Number(amount), currency) })}
        />
        <NumberInput
          label="Days"
          min={0}
          max={365}
          allowDecimal={false}
          hideControls
          value={values.days}
          onChange={(days) => set({ days: Number(days) || 0 })}
        />
      </div>
      <div className={classes.row}>
        <Button type="submit" variant="filled" disabled={values.name.trim() === ""}>
          Keep
        </Button>
        {supplier && (
          <Button variant="default" onClick={() => set({ isUsed: !values.isUsed })}>
            {values.isUsed ? "Use no more" : "Use again"}
          </Button>
        )}
        <Button
          variant="default"
          onClick={() => {
            dropValues();
            onDone();
          }}
        >
          Leave it
        </Button>
      </div>
      <ProblemNote problem={asProblem(added.error ?? edited.error)} />
      {supplier && <Offers supplier={supplier} currency={currency} />}
    </form>
  );
}

/** What a supplier asks for a part: one price, or falling with the count. */
function Offers({ supplier, currency }: { readonly supplier: SupplierRow; readonly currency: string }) {
  const [setOffer, { error }] = useSetOfferMutation();
  const [partId, setPartId] = useState<string | null>(null);
  const [line, setLine] = useState("");
  const shownIds = [
    ...new Set([...(partId ? [partId] : []), ...supplier.offers.slice(0, 20).map((one) => one.cataloguePartId)]),
  ];
  const { data: parts = [] } = useCataloguePartsQuery(shownIds, { skip: shownIds.length === 0 });
  const part = parts.find((one) => one.id === partId);
  const breaks = breaksOf(line, currency);
  async function store() {
    if (!partId || !breaks) return;
    const body = { writeId: newId(), cataloguePartId: partId, breaks, stock: null, days: null };
    const answer = await setOffer({ supplierId: supplier.id, body });
    if (answer.error) return;
    setPartId(null);
    setLine("");
  }
  return (
    <div>
      {part ? (
        <div className={classes.picked}>
          <b>
            {part.maker} {part.series} {part.orderCode}
          </b>
          <Button size="compact-sm" onClick={() => setPartId(null)}>
            Another
          </Button>
        </div>
      ) : (
        <CataloguePicker onPick={(one) => setPartId(one.id)} />
      )}
      <TextInput
        label="Prices: from how many on, each"
        placeholder="1 0.42, 10 0.35, 100 0.22"
        value={line}
        error={
          line.trim() !== "" && !breaks ? "Pairs of a count and a price, counts rising: 1 0.42, 10 0.35" : undefined
        }
        onChange={(event) => setLine(event.currentTarget.value)}
      />
      <Button disabled={!partId || !breaks} onClick={() => void store()}>
        Keep the offer
      </Button>
      <ProblemNote problem={asProblem(error)} />
      <ul className={classes.log}>
        {supplier.offers.slice(0, 20).map((offer) => {
          const offered = parts.find((one) => one.id === offer.cataloguePartId);
          return (
            <li key={offer.cataloguePartId}>
              {offered ? `${offered.maker} ${offered.series} ${offered.orderCode}` : "…"}:{" "}
              {offer.breaks.map(([from, unit]) => `${from} ${moneyText(unit, currency)}`).join(", ")}
            </li>
          );
        })}
        {supplier.offers.length > 20 && <li>and {supplier.offers.length - 20} more.</li>}
      </ul>
    </div>
  );
}

/** `1 0.42, 10 0.35` as breaks; null while it is none. */
export function breaksOf(line: string, currency: string): [number, number][] | null {
  const pairs = line.split(/[,;]\s+|[,;]$/).filter((one) => one.trim() !== "");
  const breaks = pairs.map((pair) => {
    const match = /^\s*(\d+)\s+(\d+(?:[.,]\d+)?)\s*$/.exec(pair);
    return match
      ? ([Number(match[1]), minorAmount(Number((match[2] ?? "").replace(",", ".")), currency)] as const)
      : null;
  });
  const isRising = breaks.every((one, n) => one && one[0] > 0 && (n === 0 || one[0] > (breaks[n - 1]?.[0] ?? 0)));
  return breaks.length > 0 && isRising ? breaks.map((one) => [one?.[0] ?? 0, one?.[1] ?? 0]) : null;
}
