import { Button, Checkbox, NativeSelect, TextInput } from "@mantine/core";
import {
  type CasebookLine,
  type CasebookQuery,
  casebookBundleLimit,
  casebookPageSize,
  routes,
} from "@pale-cap/contract";
import { deviceKinds } from "@pale-cap/core";
import {
  comebackLabels,
  dayText,
  deviceName,
  faultName,
  findingWords,
  listWords,
  moneyText,
  outcomeLabels,
} from "@pale-cap/wording";
import { useDeferredValue, useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { BundleLink } from "../../job/BundleLink";
import { casebookSearch, kindAddress, useCasebookQuery } from "../../job/casebookApi";
import { useHouseRulesQuery } from "../../job/houseRulesApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./casebook.module.css";

const numberText = (number: number) => String(number).padStart(4, "0");

/** All jobs by their words and by what was wrong; what narrows it stands in the address. */
export function RepairsTab() {
  const [address, setAddress] = useSearchParams();
  const asked: CasebookQuery = {
    ...{ search: address.get("q"), deviceKind: address.get("kind"), model: address.get("model") },
    ...{ boardTypeId: address.get("type"), symptom: address.get("symptom"), cause: address.get("cause") },
    ...{ series: address.get("series"), hasReturned: address.get("back") === "yes" },
    offset: Number(address.get("offset") ?? 0) || 0,
  };
  const [words, setWords] = useState(asked.search ?? "");
  const settled = useDeferredValue(words.trim());
  const put = (name: string, value: string | null) =>
    setAddress(
      (before) => {
        const next = new URLSearchParams(before);
        if (value) next.set(name, value);
        else next.delete(name);
        if (name !== "offset") next.delete("offset");
        return next;
      },
      { replace: name === "q" },
    );
  const inAddress = asked.search ?? "";
  // biome-ignore lint/correctness/useExhaustiveDependencies: only what is typed goes into the address
  useEffect(() => {
    if (settled !== inAddress) put("q", settled || null);
  }, [settled]);
  const { data, error } = useCasebookQuery(asked);
  const { data: rules } = useHouseRulesQuery();
  const currency = rules?.["shop.currency"] ?? "EUR";
  const narrowed = [
    ["model", asked.model?.split("|").filter(Boolean).join(" ")],
    ["symptom", asked.symptom && findingWords(asked.symptom)],
    ["cause", asked.cause && faultName(asked.cause)],
    ["series", asked.series],
    ["type", asked.boardTypeId && "one board type"],
  ] as const;
  return (
    <>
      <div className={classes.bar}>
        <TextInput
          className={classes.search}
          aria-label="Find in the casebook"
          placeholder="A device, a board, a symptom, a part, a series, a word of the notes"
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
        />
        <NativeSelect
          aria-label="Kind of device"
          data={[
            { value: "", label: "every device" },
            ...deviceKinds.map((value) => ({ value, label: value.replace("-", " ") })),
          ]}
          value={asked.deviceKind ?? ""}
          onChange={(event) => put("kind", event.currentTarget.value || null)}
        />
        <Checkbox
          className={classes.check}
          label="came back"
          checked={asked.hasReturned}
          onChange={(event) => put("back", event.currentTarget.checked ? "yes" : null)}
        />
        <Button component="a" href={`${routes.casebookCsv}?${casebookSearch({ ...asked, offset: 0 })}`} download>
          Give out as a file
        </Button>
      </div>
      <ProblemNote problem={asProblem(error)} />
      <div className={classes.list}>
        <p className={text.softLine} role="status">
          {data ? foundWords(data.total, asked.offset, data.lines.length) : "Looking…"}
          {data && !data.isSettled && " Some jobs are still being read in."}
        </p>
        {data?.respelt.map(({ asked: word, taken }) => (
          <p key={word} className={classes.respelt}>
            Nothing is spelt “{word}”: looked for {listWords(taken.map((one) => `“${one}”`))}.
          </p>
        ))}
        {narrowed.some(([, value]) => value) && (
          <p className={classes.narrowed}>
            {narrowed
              .filter(([, value]) => value)
              .map(([name, value]) => (
                <Button key={name} size="compact-sm" onClick={() => put(name, null)}>
                  {value} ×
                </Button>
              ))}
          </p>
        )}
        {data?.total === 0 && <Nothing isNarrowed={casebookSearch({ ...asked, offset: 0 }) !== ""} />}
        {data && data.lines.length > 0 && (
          <table className={`${text.table} ${text.ruled}`} aria-label="Repairs">
            <TableHead names={["Job", "Device", "Told", "What was wrong", "Went in", "Took", "Came back"]} />
            <tbody>
              {data.lines.map((line) => (
                <Repair key={line.id} line={line} currency={currency} />
              ))}
            </tbody>
          </table>
        )}
        {data && data.total > 0 && data.total <= casebookBundleLimit && (
          <div className={classes.row}>
            <BundleLink
              address={`${routes.casebookBundle}?${casebookSearch({ ...asked, offset: 0 })}`}
              name="The closed ones as a bundle"
            />
          </div>
        )}
        {data && (asked.offset > 0 || data.nextOffset !== null) && (
          <div className={classes.row}>
            <Button
              disabled={asked.offset === 0}
              onClick={() => put("offset", String(Math.max(0, asked.offset - casebookPageSize)))}
            >
              Newer
            </Button>
            <Button disabled={data.nextOffset === null} onClick={() => put("offset", String(data.nextOffset))}>
              Older
            </Button>
          </div>
        )}
      </div>
    </>
  );
}

function foundWords(total: number, offset: number, shown: number): string {
  const found = `${total} job${total === 1 ? "" : "s"}`;
  return shown < total ? `${found}, ${offset + 1} to ${offset + shown} below.` : `${found}.`;
}

function Nothing({ isNarrowed }: { readonly isNarrowed: boolean }) {
  return (
    <p className={text.soft}>
      {isNarrowed
        ? "No job answers to that. Fewer words find more."
        : "No job yet. Every job that is closed in Hand over comes in here by itself, with what was read, shown and fitted."}
    </p>
  );
}

function Repair({ line, currency }: { readonly line: CasebookLine; readonly currency: string }) {
  const { deviceMaker: maker, deviceModel: model } = line;
  return (
    <tr>
      <td className={classes.number}>
        <Link to={`/jobs/${line.id}/judge`}>{numberText(line.number)}</Link>
        <div className={classes.note}>{line.closedAt ? dayText(line.closedAt) : "open"}</div>
        {line.isForeign && <div className={classes.note}>another shop</div>}
      </td>
      <td>
        {model ? (
          <Link to={kindAddress({ maker, model, boardTypeId: null })}>{deviceName(line)}</Link>
        ) : (
          deviceName(line)
        )}
      </td>
      <td className={classes.told}>{line.complaint ?? "nothing told"}</td>
      <td>
        {line.causes.length > 0 ? listWords(line.causes.map(faultName)) : wrongWords(line)}
        {line.failed.length > 0 && <div className={classes.note}>bad: {line.failed.join(", ")}</div>}
      </td>
      <td className={text.figure}>{line.replaced.join(" ")}</td>
      <td className={classes.took}>
        {line.spentMinutes !== null && <div>{Math.round(line.spentMinutes)} min</div>}
        {line.partsMinor !== null && <div>{moneyText(Math.round(line.partsMinor), currency)}</div>}
      </td>
      <td>
        {line.returnedAs === null
          ? ""
          : `${line.returnedAs === "unknown" ? "yes" : comebackLabels[line.returnedAs]}, job ${numberText(line.returnedNumber ?? 0)}`}
      </td>
    </tr>
  );
}

/** No cause was shown: what the job was closed as, where it is closed. */
function wrongWords({ closedAt, outcome }: CasebookLine): string {
  if (closedAt === null) return "still open";
  return outcome === null || outcome === "repaired" ? "no cause was shown" : outcomeLabels[outcome];
}
