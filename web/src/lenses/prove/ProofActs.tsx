import { Button, NativeSelect, SegmentedControl } from "@mantine/core";
import {
  earthAndInsulation,
  lastActOf,
  leastInsulationOhms,
  measuredHoldUp,
  proofPlan,
  protectionClassOf,
  startsShown,
  startsToShow,
  type TimingName,
  timingNames,
  timingRigOf,
  timings,
} from "@pale-cap/core";
import { cautions, insulationWords, logTime, startsWords, timingLabels, timingWords } from "@pale-cap/wording";
import { useState } from "react";
import { useAppSelector } from "../../app/store/hooks";
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
      <Timings />
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
  const [celsius, setCelsius] = useState<number | null>(null);
  const told = lastActOf(facts.acts, "starts_before", null)?.numbers ?? [];
  const [failedBefore = null, startsBefore = null, offBefore = null, celsiusBefore = null] = told;
  const wanted = startsToShow(failedBefore, startsBefore);
  const starts = startsShown(facts);
  const value = offMinutes === null ? null : offMinutes * 60;
  const [typed, setTyped] = useState<readonly (number | null)[]>([
    failedBefore,
    startsBefore,
    offBefore,
    celsiusBefore,
  ]);
  const [failed = null, all = null, off = null, warmth = null] = typed;
  // Only what was told of both is a record: neither stands in for the other.
  const before = (n: number, next: number | null) => {
    const numbers = typed.map((one, at) => (at === n ? next : one));
    setTyped(numbers);
    const [k = null, m = null, seconds = null, degrees = null] = numbers;
    if (k === null || m === null || k > m || m === 0) return;
    const how = seconds === null || degrees === null ? [] : [seconds, degrees];
    void act({ kind: "starts_before", numbers: [k, m, ...how] });
  };
  const start = (word: "good" | "failed") =>
    void act({ kind: "cold_start", word, value, ...(celsius === null ? {} : { numbers: [celsius] }) });
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
          value={failed}
          onCommit={(next) => before(0, next === null ? null : Math.round(next))}
        />
        <QuantityInput
          label="of so many"
          isCompact
          size="xs"
          unit=""
          limits={[1, 1000]}
          value={all}
          onCommit={(next) => before(1, next === null ? null : Math.round(next))}
        />
        <QuantityInput
          label="off for at least, minutes"
          isCompact
          size="xs"
          unit=""
          limits={[0, 10_000]}
          value={off === null ? null : off / 60}
          onCommit={(minutes) => before(2, minutes === null ? null : 60 * minutes)}
        />
        <QuantityInput
          label="no warmer than"
          isCompact
          size="xs"
          unit="°C"
          limits={[-40, 60]}
          value={warmth}
          onCommit={(next) => before(3, next)}
        />
      </div>
      {failed !== null && all !== null && failed > all && (
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
        <QuantityInput
          label="and as warm as"
          isCompact
          size="xs"
          unit="°C"
          limits={[-40, 60]}
          value={celsius}
          onCommit={setCelsius}
        />
        <Button size="compact-sm" loading={isLoading} onClick={() => start("good")}>
          It started
        </Button>
        <Button size="compact-sm" onClick={() => start("failed")}>
          It failed
        </Button>
      </div>
      <p className={text.softLine} role="status">
        {startsWords(starts, wanted)}{" "}
        {off !== null && warmth !== null
          ? "What was off for less, or was warmer, is kept and does not count."
          : "A start counts only when off for as long and as cold as when it failed: tell both, and it is held against them."}
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

/** A time by its name: what it was read through is taken down with it. */
function Timings() {
  const { facts } = useJob();
  const [act, { problem }] = useLogAct();
  const rig = useAppSelector((state) => state.workplace.probe.rig);
  const [name, setName] = useState<TimingName>("rails_up");
  const [seconds, setSeconds] = useState<number | null>(null);
  const found = timings(facts);
  const [most, setMost] = useState<number | null>(null);
  const log = () =>
    void act({ kind: "timing", word: name, value: seconds, numbers: [most ?? 0], note: timingRigOf(rig) });
  return (
    <Part title="Timing">
      <div className={classes.leadLine}>
        <NativeSelect
          aria-label="Which time"
          size="xs"
          data={timingNames.map((value) => ({ value, label: timingLabels[value] }))}
          value={name}
          onChange={(event) => setName(event.currentTarget.value as TimingName)}
        />
        <QuantityInput
          label="It took"
          isCompact
          size="xs"
          unit="s"
          limits={[0, 600]}
          value={seconds}
          onCommit={setSeconds}
        />
        <QuantityInput
          label="at most"
          isCompact
          size="xs"
          unit="s"
          limits={[0.0001, 600]}
          value={most}
          placeholder="unknown"
          onCommit={setMost}
        />
        <Button size="compact-sm" disabled={seconds === null} onClick={log}>
          Log it
        </Button>
      </div>
      {found.map((one) => (
        <p key={one.name} className={one.state === "above" ? text.wrong : text.softLine}>
          {timingWords(one)}
        </p>
      ))}
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
  const { facts, houseRules, rules } = useJob();
  const [act, { problem }] = useLogAct();
  const protectionClass = protectionClassOf(facts.acts);
  const last = lastActOf(facts.acts, "insulation_read", null);
  const volts = last?.numbers?.[0] ?? usualTestVolts;
  const least = leastInsulationOhms(facts.acts, rules);
  const bond = facts.powerEvents.filter((one) => one.item === "earth_bond").at(-1)?.values?.[0];
  const found = earthAndInsulation({
    ...{ protectionClass, leastInsulationOhms: least, mostEarthOhms: houseRules["prove.earthBondOhms"] },
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
          onChange={(word) => void act({ kind: "protection_class", word })}
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
        {insulationWords(found)} At least <Quantity value={least} unit="Ω" /> by house rule; local rules come first. The
        earth bond is logged at Hand over, on the closed case.
      </p>
      <ProblemNote problem={problem} />
    </Part>
  );
}
const usualTestVolts = 500;
