import { Button, NativeSelect, Switch, TextInput } from "@mantine/core";
import {
  fault,
  type HouseRule,
  type HouseRuleKey,
  houseRules,
  moneyUnit,
  type RuleEffect,
  ruleProblem,
  ruleVersion,
} from "@pale-cap/contract";
import type { DrainKitItem } from "@pale-cap/core";
import { amountText, fieldFaultWords, minorAmount, momentText, moneyText, turnedWords } from "@pale-cap/wording";
import { Link } from "react-router";
import { pageClock } from "../../api/clock";
import { newId } from "../../api/newId";
import { useAppSelector } from "../../app/store/hooks";
import { Allowed } from "../../job/Allowed";
import { useChangeHouseRuleMutation, useHouseRuleChangesQuery, useHouseRulesQuery } from "../../job/houseRulesApi";
import { usePeopleQuery } from "../../job/peopleApi";
import { useMay } from "../../job/useMay";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { dropDraft, useDraft } from "../../ui/useDraft";
import { BackupNote } from "./BackupNote";
import { DemoNote } from "./DemoNote";
import classes from "./houseRules.module.css";
import { KitEditor } from "./KitEditor";

const groups: readonly (readonly [prefix: string, title: string])[] = [
  ["charge.", "Stored charge"],
  ["power.", "First power"],
  ["mains.", "Mains"],
  ["judge.", "Judging"],
  ["record.", "What closed jobs say"],
  ["choose.", "Choosing"],
  ["stock.", "Drawers and orders"],
  ["rework.", "Rework"],
  ["prove.", "Proving"],
  ["shop.", "The shop"],
  ["instruments.", "Instruments"],
  ["backup.", "Backup"],
];

/** Every default with its source and why; changeable, with history and a way back. */
export function HouseRulesScreen() {
  const { data: values, error } = useHouseRulesQuery();
  return (
    <div className={`${text.page} ${classes.page}`}>
      <h1>House rules</h1>
      <p className={classes.lead}>
        Bench habits, not laws: the shop may set its own. A change holds for every open job at once and is kept with its
        date; the default is one press away.
      </p>
      <ProblemNote problem={asProblem(error)} />
      <Allowed right="change_rules">{null}</Allowed>
      {values &&
        groups.map(([prefix, title]) => (
          <section key={prefix}>
            <h2>{title}</h2>
            {prefix === "shop." && <DemoNote />}
            {prefix === "backup." && <BackupNote warnDays={values["backup.warnDays"]} />}
            {(Object.keys(houseRules) as HouseRuleKey[])
              .filter((key) => key.startsWith(prefix))
              .map((key) => (
                <Rule key={key} ruleKey={key} value={values[key]} currency={values["shop.currency"]} />
              ))}
          </section>
        ))}
    </div>
  );
}

function Rule(props: { readonly ruleKey: HouseRuleKey; readonly value: unknown; readonly currency: string }) {
  const { ruleKey, value, currency } = props;
  const rule = houseRules[ruleKey] as HouseRule<unknown>;
  const personId = useAppSelector((state) => state.workplace.personId);
  const [change, { data: changed, error, isLoading }] = useChangeHouseRuleMutation();
  const { data: changes = [] } = useHouseRuleChangesQuery();
  const mayChange = useMay("change_rules");
  const isChanged = JSON.stringify(value) !== JSON.stringify(rule.value);
  const store = (next: unknown) =>
    void change({
      id: newId(),
      key: ruleKey,
      value: next,
      reason: null,
      changedAt: pageClock.moment(),
      version: ruleVersion(changes, ruleKey),
      clockId: pageClock.id,
      personId,
    }).then((answer) => !answer.error && dropDraft(`rule ${ruleKey}`));
  return (
    <div
      className={classes.rule}
      data-changed={isChanged || undefined}
      data-wide={rule.kind.type === "kit" || undefined}
    >
      <div className={classes.title}>{rule.title}</div>
      <div className={classes.value}>
        {mayChange ? (
          <RuleValue key={JSON.stringify([value, currency])} {...{ rule, ruleKey, value, currency }} onStore={store} />
        ) : (
          <b>{words(rule, value, currency)}</b>
        )}
        {isChanged && mayChange && (
          <Button size="compact-sm" loading={isLoading} onClick={() => store(null)}>
            Back to {words(rule, rule.value, currency)}
          </Button>
        )}
        <ProblemNote problem={asProblem(error)} />
        {changed && ruleKey.startsWith("judge.") && <Effects effects={changed.effects} />}
      </div>
      <div className={classes.why}>
        {rule.why}. <span className={classes.source}>Source: {rule.source}.</span>
        <History {...{ ruleKey, rule, currency }} />
      </div>
    </div>
  );
}

function words(rule: HouseRule<unknown>, value: unknown, currency: string): string {
  if (rule.unit === moneyUnit) return moneyText(Number(value), currency);
  if (rule.kind.type === "flag") return value ? "yes" : "no";
  if (rule.kind.type === "choice") return rule.kind.options[String(value)] ?? String(value);
  if (rule.kind.type === "codes")
    return (value as readonly string[]).length === 0 ? "none" : `${(value as readonly string[]).length} left out`;
  if (rule.kind.type === "kit") return (value as readonly DrainKitItem[]).map((one) => one.name).join(", ");
  return `${String(value)} ${rule.unit}`.trim();
}

interface ValueProps {
  readonly rule: HouseRule<unknown>;
  readonly ruleKey: HouseRuleKey;
  readonly value: unknown;
  readonly currency: string;
  readonly onStore: (value: unknown) => void;
}

function RuleValue({ rule, ruleKey, value, currency, onStore }: ValueProps) {
  const isMoney = rule.unit === moneyUnit;
  const unit = isMoney ? currency : rule.unit;
  const shown = isMoney ? amountText(Number(value), currency) : String(value);
  const [text, setText, dropText] = useDraft(`rule ${ruleKey}`, shown);
  const { kind } = rule;
  if (kind.type === "codes") return <span>{words(rule, value, currency)}</span>;
  if (kind.type === "kit") return <KitEditor value={value as readonly DrainKitItem[]} onStore={onStore} />;
  if (kind.type === "flag") {
    return (
      <Switch
        aria-label={rule.title}
        checked={value === true}
        onChange={(event) => onStore(event.currentTarget.checked)}
      />
    );
  }
  if (kind.type === "choice") {
    return (
      <NativeSelect
        aria-label={rule.title}
        value={String(value)}
        data={Object.entries(kind.options).map(([option, label]) => ({ value: option, label }))}
        onChange={(event) => onStore(event.currentTarget.value)}
      />
    );
  }
  const number = Number(text.replace(",", "."));
  const typed: unknown = kind.type !== "number" ? text.trim() : isMoney ? minorAmount(number, currency) : number;
  const problem = text.trim() === "" ? fault("needed") : ruleProblem(ruleKey, typed);
  const commit = () => {
    if (problem === null && typed !== value) onStore(typed);
  };
  return (
    <TextInput
      aria-label={rule.title}
      value={text}
      error={problem && `${rule.title}: ${fieldFaultWords(problem)}`}
      rightSection={<span className={classes.unit}>{unit}</span>}
      rightSectionWidth={unit.length > 4 ? 92 : 46}
      rightSectionPointerEvents="none"
      onChange={(event) => setText(event.currentTarget.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === "Enter") commit();
        // Thrown away by a person: what is in force stands there again.
        if (event.key === "Escape") dropText();
      }}
    />
  );
}

/** The verdicts on open jobs that a change turned. */
function Effects({ effects }: { readonly effects: readonly RuleEffect[] }) {
  if (effects.length === 0) return <p className={classes.effects}>Open jobs judged anew: no verdict turned.</p>;
  return (
    <div className={classes.effects}>
      Open jobs judged anew:
      <ul>
        {effects.map((one) => (
          <li key={one.jobId}>
            <Link to={`/jobs/${one.jobId}/judge`}>
              {one.jobNumber} {one.jobName}
            </Link>
            : {one.turned.map(turnedWords).join("; ")}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What was changed when and by whom, newest first. */
function History({ ruleKey, rule, currency }: Pick<ValueProps, "ruleKey" | "rule" | "currency">) {
  const { data: changes = [] } = useHouseRuleChangesQuery();
  const { data: people = [] } = usePeopleQuery();
  const own = changes.filter((one) => one.key === ruleKey).reverse();
  if (own.length === 0) return null;
  return (
    <details className={classes.history}>
      <summary>
        changed {own.length} {own.length === 1 ? "time" : "times"}
      </summary>
      <ul>
        {own.map((one) => (
          <li key={one.id}>
            {momentText(one.changedAt)}:{" "}
            {one.value === null ? `back to ${words(rule, rule.value, currency)}` : words(rule, one.value, currency)}
            {one.personId && `, ${people.find((person) => person.id === one.personId)?.name ?? "somebody"}`}
            {one.effects.length > 0 && <Effects effects={one.effects} />}
          </li>
        ))}
      </ul>
    </details>
  );
}
