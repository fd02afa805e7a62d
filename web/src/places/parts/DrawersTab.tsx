import { Button, TextInput } from "@mantine/core";
import type { StockItem } from "@pale-cap/contract";
import { formatMarkedCapacitance } from "@pale-cap/core";
import { originLabels } from "@pale-cap/wording";
import { useDeferredValue, useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import { pageClock } from "../../api/clock";
import { useStockQuery } from "../../job/catalogueApi";
import { useHouseRulesQuery } from "../../job/houseRulesApi";
import { heapAsks } from "../../job/looseHeaps";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { useKeys } from "../../ui/useKeys";
import { HeapPane } from "./HeapPane";
import { NewHeapForm } from "./NewHeapForm";
import classes from "./parts.module.css";
import { sizeText } from "./sizeText";

/** As many as a person reads through; the rest is found by words. */
const mostShown = 150;

/** The shop's drawers, heap by heap; the one that is looked at stands beside them. */
export function DrawersTab() {
  const { data: stock, error } = useStockQuery();
  const { data: rules } = useHouseRulesQuery();
  const [search, setSearch] = useSearchParams();
  // A label of a drawer leads here with its name.
  const [words, setWords] = useState(search.get("find") ?? "");
  const [isNew, setNew] = useState(false);
  const selectedId = search.get("heap");
  const sought = useDeferredValue(words);
  const found = useMemo(
    () =>
      (stock ?? [])
        .filter((item) => isMeant(item, sought) && (item.count !== 0 || sought.trim() !== "" || item.id === selectedId))
        .sort(byDrawer),
    [stock, sought, selectedId],
  );
  const select = (id: string | null) => {
    setNew(false);
    setSearch(id === null ? {} : { heap: id }, { replace: true });
  };
  useKeys("Parts", [{ key: "n", label: "put parts in a drawer", action: () => setNew(true) }]);
  return (
    <>
      <div className={classes.bar}>
        <TextInput
          className={classes.search}
          aria-label="Find in the drawers"
          placeholder="drawer, value, volts, series or lot"
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
        />
        <Button onClick={() => setNew(true)}>Put parts in a drawer</Button>
      </div>
      <ProblemNote problem={asProblem(error)} />
      <div className={classes.split}>
        <div className={classes.list}>
          {stock?.length === 0 && (
            <p className={text.soft}>
              The drawers are empty. Put in what lies there, or order parts: what comes is put in by itself.
            </p>
          )}
          {found.length > 0 && (
            <table className={`${text.table} ${text.ruled} ${classes.table}`} aria-label="Drawers">
              <TableHead names={["Drawer", "Part", "C", "V", "Size", "There", "Free", ""]} />
              <tbody>
                {found.slice(0, mostShown).map((item) => (
                  <tr key={item.id} data-current={item.id === selectedId || undefined} onClick={() => select(item.id)}>
                    <td className={text.figure}>
                      <button type="button" className={classes.rowButton} onClick={() => select(item.id)}>
                        {item.drawer ?? "–"}
                      </button>
                    </td>
                    <td>
                      {item.marking.maker && <b>{item.marking.maker} </b>}
                      {item.marking.series ?? "loose"}
                      {item.origin === "salvaged" && <span className={classes.note}> {originLabels.salvaged}</span>}
                    </td>
                    <td>
                      <Quantity value={item.marking.capacitanceFarads} unit="F" isMarking />
                    </td>
                    <td>
                      <Quantity value={item.marking.ratedVolts} unit="V" />
                    </td>
                    <td className={text.figure}>{sizeText(item)}</td>
                    <td className={text.figure}>{item.count}</td>
                    <td className={text.figure}>{item.free}</td>
                    <td className={classes.asks}>{rules && asks(item, rules)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {found.length > mostShown && (
            <p className={text.soft}>
              {mostShown} of {found.length} heaps: another word above narrows it down.
            </p>
          )}
          {stock && stock.length > 0 && found.length === 0 && (
            <p className={text.soft}>Nothing in the drawers is called so.</p>
          )}
        </div>
        <div className={classes.pane}>
          {isNew ? (
            <NewHeapForm onDone={select} onLeave={() => setNew(false)} />
          ) : selectedId ? (
            <HeapPane key={selectedId} itemId={selectedId} />
          ) : (
            <p className={text.soft}>Pick a heap to count, test, re-form or move it. n puts in a new one.</p>
          )}
        </div>
      </div>
    </>
  );
}

const byDrawer = (a: StockItem, b: StockItem) =>
  (a.drawer ?? "~").localeCompare(b.drawer ?? "~", undefined, { numeric: true }) ||
  a.marking.capacitanceFarads - b.marking.capacitanceFarads;

/** What a heap asks for before anything of it goes in. */
function asks(item: StockItem, rules: Parameters<typeof heapAsks>[1]) {
  if (item.setAsideReason !== null) return <b className={classes.apart}>kept apart: {item.setAsideReason}</b>;
  return heapAsks(item, rules, pageClock.now());
}

function isMeant(item: StockItem, words: string): boolean {
  const { marking } = item;
  const own = [
    ...[item.drawer, marking.maker, marking.series, marking.orderCode, item.lot, item.note, originLabels[item.origin]],
    formatMarkedCapacitance(marking.capacitanceFarads).replace("\u00a0", ""),
    `${marking.ratedVolts}v`,
  ];
  const line = own.join(" ").toLowerCase().replaceAll("µ", "u");
  const sought = words.toLowerCase().replaceAll("µ", "u").split(/\s+/).filter(Boolean);
  return sought.every((word) => line.includes(word));
}
