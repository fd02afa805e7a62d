import { Button, NativeSelect, TextInput } from "@mantine/core";
import {
  type AnsweredDemand,
  type GateReason,
  type GateValue,
  gateFinding,
  gateItemRules,
  gateReasons,
} from "@pale-cap/core";
import {
  contradictionWords,
  gateCheckWords,
  gateItemHint,
  gateItemWords,
  gateReasonLabels,
  gateValueWords,
} from "@pale-cap/wording";
import { useState } from "react";
import { ProblemNote } from "../../../ui/ProblemNote";
import text from "../../../ui/text.module.css";
import { useDraft } from "../../../ui/useDraft";
import { useJob } from "../../JobContext";
import classes from "./power.module.css";
import { readGateValue } from "./readGateValue";
import { useLogPower } from "./useLogPower";

const fieldNames = { resistance: ["ohms"], diode_drop: ["forward", "backward"] } as const;

/**
 * One test before power: its number and Enter; refused while a charge may stand on the unit. A number that is a short is never ticked as sound; one that is unusual is
 * asked about with one key.
 */
export function GateRow({ demand, isRefused }: { readonly demand: AnsweredDemand; readonly isRefused: boolean }) {
  const { detail } = useJob();
  const { item, subjectId, designator, state, check } = demand;
  const [log, { problem, isLoading }] = useLogPower();
  const empty = fieldNames[gateItemRules[item].quantity].map(() => "");
  const [texts, setTexts, dropTexts] = useDraft<readonly string[]>(`${detail.job.id} gate ${item} ${subjectId}`, empty);
  const [asked, setAsked] = useState<"odd" | "contradicts" | null>(null);
  const name = gateItemWords(item, designator);
  const reads = texts.map((one) => readGateValue(one, item));
  const values = reads.map((one) => one.value).filter((one): one is GateValue => one !== null);
  const wrong = reads.find((one) => one.problem !== null)?.problem ?? null;
  const said = values.map((value) => gateValueWords(item, value)).join(", ");

  async function store(hasShort: boolean, reason: GateReason | null = null) {
    if (!(await log({ kind: "gate_check", item, subjectId, values: [...values], hasShort, reason }))) return;
    dropTexts(texts);
    setAsked(null);
  }

  function enter() {
    if (wrong) return;
    const finding = gateFinding(item, values, false);
    if (finding === "sound") void store(false);
    else setAsked(finding === "incomplete" ? null : finding);
  }

  return (
    <li className={classes.test} data-state={state}>
      <div>
        <b>{name}</b>
        <div className={text.soft}>
          {check ? `${gateCheckWords(item, check)}${state === "low" ? ": short" : ""}` : gateItemHint(item)}
        </div>
      </div>
      <form
        className={classes.testFields}
        onSubmit={(event) => {
          event.preventDefault();
          enter();
        }}
      >
        {fieldNames[gateItemRules[item].quantity].map((field, n) => (
          <TextInput
            key={field}
            size="xs"
            aria-label={`${name}: ${field}`}
            placeholder={n === 0 && field === "ohms" ? "Ω, or ol" : field}
            disabled={isRefused}
            value={texts[n] ?? ""}
            onChange={(event) => {
              const next = event.currentTarget.value;
              setTexts((now) => now.map((one, at) => (at === n ? next : one)));
              setAsked(null);
            }}
          />
        ))}
        <Button type="submit" size="xs" loading={isLoading} disabled={values.length < texts.length || wrong !== null}>
          Log
        </Button>
        <NativeSelect
          size="xs"
          aria-label={`${name}: no number because`}
          value=""
          data={[
            { value: "", label: "no number …" },
            ...gateReasons.map((value) => ({ value, label: gateReasonLabels[value] })),
          ]}
          onChange={(event) => {
            const reason = event.currentTarget.value as GateReason | "";
            if (reason !== "") void store(false, reason);
          }}
        />
      </form>
      {wrong && <div className={classes.refusal}>{wrong}</div>}
      {asked && (
        <div role="alert" className={classes.asked}>
          <span>
            {asked === "contradicts" ? contradictionWords(item, said) : `${said} is unusual here. Sound all the same?`}
          </span>
          {asked === "odd" && (
            <Button size="xs" loading={isLoading} autoFocus onClick={() => void store(false)}>
              Sound
            </Button>
          )}
          <Button size="xs" loading={isLoading} autoFocus={asked === "contradicts"} onClick={() => void store(true)}>
            {item === "earth_bond" ? "Log it as it is" : "Log the short"}
          </Button>
        </div>
      )}
      <ProblemNote problem={problem} />
    </li>
  );
}
