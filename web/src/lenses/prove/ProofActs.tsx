import { Button, SegmentedControl } from "@mantine/core";
import {
  earthAndInsulation,
  lastActOf,
  measuredHoldUp,
  type ProtectionClass,
  proofPlan,
  startsShown,
  startsToShow,
} from "@pale-cap/core";
import { cautions, insulationWords, logTime, startsWords } from "@pale-cap/wording";
import { useState } from "react";
import { useJob } from "../../job/JobContext";
import { useLogAct } from "../../job/useLogAct";
import { Caution } from "../../ui/Caution";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { Quantity } from "../../ui/Quantity";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./prove.module.css";

/** Steps of the proof that are no readings of a rail: each form only where its step is asked. */
export function ProofActs() {
  const { facts, rules } = useJob();
  const plan = proofPlan(facts, rules);
  const codes = new Set(plan.map((one) => one.code));
  const isBlocked = plan.some((one) => one.code === "in_device" && one.state === "blocked");
  return (
    <>
      {codes.has("cold_starts") && <Starts />}
      {codes.has("hold_up") && <HoldUp />}
      {codes.has("burn_in") && <BurnIn />}
      {codes.has("in_device") && <InDevice isBlocked={isBlocked} />}
      {codes.has("earth_insulation") && <Insulation />}
    </>
  );
}

/** An intermittent fault: as many good starts, off as long and as cold as when it failed, as its record asks for. */
function Starts() {
  const { facts } = useJob();
  const [act, { problem, isLoading }] = useLogAct();
  const [offMinutes, setOffMinutes] = useState<number | null>(null);
  const [failedBefore = null, startsBefore = null] = lastActOf(facts.acts, "starts_before", null)?.numbers ?? [];
  const wanted = startsToShow(failedBefore, startsBefore);
  const starts = startsShown(facts);
  const value = offMinutes === null ? null : offMinutes * 60;
  const [told, setTold] = useState<readonly [failed: number | null, all: number | null]>([failedBefore, startsBefore]);
  // Only what was told of both is a record: neither stands in for the other.
  const before = (failed: number | null, all: number | null) => {
    setTold([failed, all]);
    if (failed === null || all === null || failed > all || all === 0) return;
    void act({ kind: "starts_before", numbers: [failed, all] });
  };
  return (
    <Part title="Starts as when it failed">
      <div className={classes.leadLine}>
        <span>Before the repair</span>
        <QuantityInput
          label="Starts that failed"
          isCompact
          size="xs"
          unit=""
          limits={[0, 1000]}
          value={told[0]}
          onCommit={(failed) => before(failed === null ? null : Math.round(failed), told[1])}
        />
        <QuantityInput
          label="of so many"
          isCompact
          size="xs"
          unit=""
          limits={[1, 1000]}
          value={told[1]}
          onCommit={(all) => before(told[0], all === null ? null : Math.round(all))}
        />
      </div>
      {told[0] !== null && told[1] !== null && told[0] > told[1] && (
        <p className={text.wrong}>More failed than there were starts: nothing was stored.</p>
      )}
      <div className={classes.leadLine}>
        <QuantityInput
          label="Off before it, minutes"
          isCompact
          size="xs"
          unit=""
          limits={[0, 10_000]}
          value={offMinutes}
          onCommit={setOffMinutes}
        />
        <Button
          size="compact-sm"
          loading={isLoading}
          onClick={() => void act({ kind: "cold_start", word: "good", value })}
        >
          It started
        </Button>
        <Button size="compact-sm" onClick={() => void act({ kind: "cold_start", word: "failed", value })}>
          It failed
        </Button>
      </div>
      <p className={text.softLine} role="status">
        {startsWords(starts, wanted)} A start counts only when off for as long and as cold as when it failed.
      </p>
      <ProblemNote problem={problem} />
    </Part>
  );
}

const bulkFields = [
  { label: "Bulk before", unit: "V", limits: [1, 1000] },
  { label: "Bulk after", unit: "V", limits: [1, 1000] },
  { label: "Load", unit: "W", limits: [0.1, 5000] },
] as const;

function HoldUp() {
  const { facts } = useJob();
  const [act, { problem }] = useLogAct();
  const last = lastActOf(facts.acts, "hold_up", null);
  const [seconds, setSeconds] = useState<number | null>(last?.value ?? null);
  const [from = null, to = null, watts = null] = last?.numbers ?? [];
  const [numbers, setNumbers] = useState<readonly (number | null)[]>([from, to, watts]);
  const set = (n: number, value: number | null) => setNumbers(numbers.map((one, at) => (at === n ? value : one)));
  const known = numbers.every((one): one is number => one !== null) ? (numbers as readonly number[]) : null;
  const found =
    last?.value != null && from !== null && to !== null && watts !== null
      ? holdUpOf(last.value, from, to, watts)
      : null;
  return (
    <Part title="Hold-up">
      <Caution>{cautions.livePrimary}</Caution>
      <div className={classes.leadLine}>
        <QuantityInput
          label="Outputs stood for"
          isCompact
          size="xs"
          unit="s"
          limits={[0, 10]}
          value={seconds}
          onCommit={setSeconds}
        />
        {bulkFields.map(({ label, unit, limits }, n) => (
          <QuantityInput
            key={label}
            label={label}
            isCompact
            size="xs"
            unit={unit}
            limits={limits}
            value={numbers[n] ?? null}
            onCommit={(value) => set(n, value)}
          />
        ))}
        <Button
          size="compact-sm"
          disabled={seconds === null || !known || (known[0] ?? 0) <= (known[1] ?? 0)}
          onClick={() => known && void act({ kind: "hold_up", value: seconds, numbers: [...known] })}
        >
          Log it
        </Button>
      </div>
      {known && (known[0] ?? 0) <= (known[1] ?? 0) && (
        <p className={text.wrong}>Before the mains went the bulk stood higher than after: the two are swapped.</p>
      )}
      {found && (
        <p className={text.softLine}>
          As if the bulk had <Quantity value={found.capacitanceFarads} unit="F" digits={3} />, at an efficiency of 85 %.
        </p>
      )}
      <ProblemNote problem={problem} />
    </Part>
  );
}

/** Usual efficiency of such a supply under load. */
const usualEfficiency = 0.85;
function holdUpOf(holdUpSeconds: number, fromVolts: number, toVolts: number, outputWatts: number) {
  if (!(fromVolts > toVolts && toVolts > 0 && holdUpSeconds > 0 && outputWatts > 0)) return null;
  return measuredHoldUp({ holdUpSeconds, fromVolts, toVolts, outputWatts, efficiencyRatio: usualEfficiency });
}

function BurnIn() {
  const { facts } = useJob();
  const [act, { problem }] = useLogAct();
  const last = lastActOf(facts.acts, "burn_in", null);
  return (
    <Part title="Burn-in">
      <div className={classes.leadLine}>
        <QuantityInput
          label="Ran under load for"
          isCompact
          size="xs"
          unit="h"
          limits={[0.05, 500]}
          value={last?.value == null ? null : last.value / 3600}
          onCommit={(hours) => hours !== null && void act({ kind: "burn_in", value: hours * 3600 })}
        />
        {last && <span className={text.soft}>logged {logTime(last.at)}</span>}
      </div>
      <ProblemNote problem={problem} />
    </Part>
  );
}

function InDevice({ isBlocked: isRefused }: { readonly isBlocked: boolean }) {
  const { facts, detail } = useJob();
  const [act, { problem }] = useLogAct();
  const last = lastActOf(facts.acts, "tried_in_device", null);
  return (
    <Part title="In its device">
      <p className={text.softLine}>The complaint again: {detail.job.complaint}</p>
      <div className={classes.leadLine}>
        <Button
          size="compact-sm"
          disabled={isRefused}
          aria-pressed={last?.word === "good"}
          onClick={() => void act({ kind: "tried_in_device", word: "good" })}
        >
          It is gone
        </Button>
        <Button
          size="compact-sm"
          disabled={isRefused}
          aria-pressed={last?.word === "failed"}
          onClick={() => void act({ kind: "tried_in_device", word: "failed" })}
        >
          It is still there
        </Button>
      </div>
      {isRefused && <p className={text.wrong}>A rail is out of its limits: the host stays unplugged.</p>}
      <ProblemNote problem={problem} />
    </Part>
  );
}

function Insulation() {
  const { facts, houseRules } = useJob();
  const [act, { problem }] = useLogAct();
  const [protectionClass, setClass] = useState<ProtectionClass>("I");
  const last = lastActOf(facts.acts, "insulation_read", null);
  const volts = last?.numbers?.[0] ?? usualTestVolts;
  const leastInsulationOhms = (protectionClass === "II" ? 2 : 1) * houseRules["prove.insulationOhms"];
  const bond = facts.powerEvents.filter((one) => one.item === "earth_bond").at(-1)?.values?.[0];
  const found = earthAndInsulation({
    ...{ protectionClass, leastInsulationOhms, mostEarthOhms: houseRules["prove.earthBondOhms"] },
    earthOhms: typeof bond === "number" ? bond : null,
    ...{ insulationOhms: last?.value ?? null, testVolts: volts },
  });
  return (
    <Part title="Earth bond and insulation">
      <Caution>{cautions.chargedByTest}</Caution>
      <div className={classes.leadLine}>
        <SegmentedControl
          size="xs"
          aria-label="Protection class"
          value={protectionClass}
          data={[
            { value: "I", label: "with earth" },
            { value: "II", label: "double insulated" },
          ]}
          onChange={(value) => setClass(value as ProtectionClass)}
        />
        <QuantityInput
          label={`Mains to earth or outputs, ${volts} V d.c.`}
          isCompact
          size="xs"
          unit="Ω"
          limits={[0, 1e12]}
          value={last?.value ?? null}
          onCommit={(value) => value !== null && void act({ kind: "insulation_read", value, numbers: [volts] })}
        />
      </div>
      <p className={found.overall === "fail" ? text.wrong : text.softLine} role="status">
        {insulationWords(found)} At least <Quantity value={leastInsulationOhms} unit="Ω" /> by house rule; local rules
        come first. The earth bond is logged at Hand over, on the closed case.
      </p>
      <ProblemNote problem={problem} />
    </Part>
  );
}
const usualTestVolts = 500;
