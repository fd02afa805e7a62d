import { Button, NumberInput, TextInput } from "@mantine/core";
import { type OrderLineRow, type OrderRow, path, routes } from "@pale-cap/contract";
import { esrVariation, isMeasured, mostEsrVariation, pieceDoubts, receiveLot, type SampledPiece } from "@pale-cap/core";
import { dayText, lotWords, moneyText, pieceDoubtWords } from "@pale-cap/wording";
import { useState } from "react";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { useHouseRulesQuery } from "../../job/houseRulesApi";
import { Part } from "../../ui/Pane";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./parts.module.css";
import { useCloseOrderMutation, useOrdersQuery, useReceiveMutation } from "./partsApi";

/** What was ordered, line by line, and how much of it came. */
export function OpenOrders() {
  const { data: orders = [], error } = useOrdersQuery();
  const { data: rules } = useHouseRulesQuery();
  const currency = rules?.["shop.currency"] ?? "EUR";
  const shown = orders.filter((one) => !one.isClosed);
  const closedCount = orders.length - shown.length;
  return (
    <Part title="On its way" aside={<span className={text.soft}>{closedCount} closed</span>}>
      <ProblemNote problem={asProblem(error)} />
      {shown.length === 0 && <p className={text.soft}>Nothing is on its way.</p>}
      {shown.map((order) => (
        <OneOrder key={order.id} order={order} currency={currency} allowedBadRatio={rules?.["stock.badRatio"] ?? 0} />
      ))}
    </Part>
  );
}

function OneOrder(props: { readonly order: OrderRow; readonly currency: string; readonly allowedBadRatio: number }) {
  const { order, currency, allowedBadRatio } = props;
  const [openId, setOpenId] = useState<string | null>(null);
  const [close, { error }] = useCloseOrderMutation();
  const isAllHere = order.lines.every((one) => one.receivedCount >= one.count);
  return (
    <div className={classes.card}>
      <h3>
        {order.supplierName}, {dayText(order.at.slice(0, 10))}{" "}
        <Button
          component="a"
          size="compact-sm"
          href={path(routes.orderFile, { orderId: order.id })}
          target="_blank"
          rel="noreferrer"
        >
          List as PDF
        </Button>
      </h3>
      {order.lines.map((line) => (
        <div key={line.id}>
          <div className={classes.row}>
            <span>
              {line.part.maker} {line.part.series} {line.part.orderCode}: {line.receivedCount} of {line.count} came,
              each {moneyText(line.unitMinor, currency)}
            </span>
            {openId !== line.id && (
              <Button size="compact-sm" onClick={() => setOpenId(line.id)}>
                It came
              </Button>
            )}
          </div>
          {line.checks.map((one) => (
            <p key={one.id} className={classes.note}>
              {one.count} came, {one.measuredCount} measured, {one.badCount} of them bad.{" "}
              {lotWords(one, allowedBadRatio)}
            </p>
          ))}
          {openId === line.id && (
            <ReceiptForm
              orderId={order.id}
              line={line}
              allowedBadRatio={allowedBadRatio}
              onDone={() => setOpenId(null)}
            />
          )}
        </div>
      ))}
      <Button
        size="compact-sm"
        onClick={() =>
          void close({ orderId: order.id, body: { writeId: newId(), version: order.version, isClosed: true } })
        }
      >
        {isAllHere ? "All is here: close it" : "The rest will not come: close it"}
      </Button>
      <ProblemNote problem={asProblem(error)} />
    </div>
  );
}

const emptyPiece: SampledPiece = {
  ...{ massKilograms: null, diameterMetres: null, heightMetres: null, esrOhms: null, capacitanceFarads: null },
};

/** A delivery: how many, where to, and a sample of them measured against what the series promises. */
function ReceiptForm(props: {
  readonly orderId: string;
  readonly line: OrderLineRow;
  readonly allowedBadRatio: number;
  readonly onDone: () => void;
}) {
  const { orderId, line, allowedBadRatio, onDone } = props;
  const [count, setCount] = useState(Math.max(line.count - line.receivedCount, 1));
  const [place, setPlace] = useState({ drawer: "", lot: "", dateCode: "" });
  const [pieces, setPieces] = useState<readonly SampledPiece[]>([emptyPiece, emptyPiece, emptyPiece]);
  const [id] = useState(newId);
  const personId = useAppSelector((state) => state.workplace.personId);
  const [send, { error, isLoading }] = useReceiveMutation();
  const measured = pieces.filter(isMeasured);
  const badCount = measured.filter((one) => pieceDoubts(one, line.part).length > 0).length;
  const isPossible = count >= 1 && measured.length <= count;
  const lot = isPossible ? receiveLot({ count, measuredCount: measured.length, badCount, allowedBadRatio }) : undefined;
  const variation = esrVariation(measured);
  const change = (n: number, more: Partial<SampledPiece>) =>
    setPieces(pieces.map((one, index) => (index === n ? { ...one, ...more } : one)));
  const said = (value: string) => value.trim() || null;
  async function store() {
    const { drawer, lot: lotName, dateCode } = place;
    const body = {
      ...{ id, orderLineId: line.id, count, allowedBadRatio, personId, pieces: [...measured] },
      ...{ drawer: said(drawer), lot: said(lotName), dateCode: said(dateCode) },
    };
    const answer = await send({ orderId, body });
    if (!answer.error) onDone();
  }
  return (
    <div className={classes.form}>
      <div className={classes.fields}>
        <NumberInput
          label="How many came"
          min={1}
          max={5000}
          allowDecimal={false}
          value={count}
          onChange={(value) => setCount(Number(value) || 0)}
        />
        {(
          [
            ["drawer", "Into drawer", 24],
            ["lot", "Lot", 40],
            ["dateCode", "Date code", 16],
          ] as const
        ).map(([name, label, most]) => (
          <TextInput
            key={name}
            label={label}
            maxLength={most}
            value={place[name]}
            onChange={(event) => {
              const value = event.currentTarget.value;
              setPlace((now) => ({ ...now, [name]: value }));
            }}
          />
        ))}
      </div>
      <table className={classes.pieces} aria-label="Measured pieces">
        <TableHead names={["", "grams", "diameter mm", "length mm", "ESR", "C", " "]} />
        <tbody>
          {pieces.map((piece, n) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a measured piece is its place in the row
            <tr key={n}>
              <td>{n + 1}</td>
              <td>
                <NumberInput
                  size="xs"
                  aria-label={`Grams of piece ${n + 1}`}
                  min={0}
                  hideControls
                  value={piece.massKilograms === null ? "" : piece.massKilograms * 1e3}
                  onChange={(value) => change(n, { massKilograms: value === "" ? null : Number(value) / 1e3 })}
                />
              </td>
              {(
                [
                  ["diameterMetres", "Diameter", "mm"],
                  ["heightMetres", "Length", "mm"],
                  ["esrOhms", "ESR", "Ω"],
                  ["capacitanceFarads", "C", "F"],
                ] as const
              ).map(([name, label, unit]) => (
                <td key={name}>
                  <QuantityInput
                    label={`${label} of piece ${n + 1}`}
                    unit={unit}
                    value={piece[name]}
                    onChange={(value) => change(n, { [name]: value })}
                    isLabelHidden
                    isCompact
                    size="xs"
                  />
                </td>
              ))}
              <td className={classes.asks}>{pieceDoubtWords(pieceDoubts(piece, line.part))}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button size="compact-sm" onClick={() => setPieces([...pieces, emptyPiece])}>
        One more piece
      </Button>
      <p className={text.softLine} role="status">
        {measured.length === 0
          ? "Nothing measured: what is said of the lot is only what is usual of lots. "
          : `${measured.length} measured, ${badCount} not as promised. `}
        {lot ? lotWords(lot, allowedBadRatio) : "More pieces are measured than came."}
        {variation !== null &&
          ` ESR scatters by ${Math.round(100 * variation)} %${variation > mostEsrVariation ? ": more than one lot of one maker does" : ""}.`}
      </p>
      <div className={classes.row}>
        <Button variant="filled" disabled={!isPossible} loading={isLoading} onClick={() => void store()}>
          Put them in
        </Button>
        <Button variant="default" onClick={onDone}>
          Leave it
        </Button>
      </div>
      <ProblemNote problem={asProblem(error)} />
    </div>
  );
}
