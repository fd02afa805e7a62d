import {
  type CircuitState,
  coarseCodesOf,
  formatQuantity,
  isOpenAFault,
  mayReadOpen,
  type QuantityKind,
  sectionFacts,
} from "@pale-cap/core";
import {
  cautions,
  circuitLabels,
  coarseLabels,
  ohmsRefusedWords,
  powerGateWords,
  quantityFacts,
  rigWords,
  slipWords,
  verdictLabels,
} from "@pale-cap/wording";
import { type KeyboardEvent, useEffect, useRef } from "react";
import { useAppDispatch } from "../app/store/hooks";
import { VerdictGlyph } from "../drawing/VerdictGlyph";
import { useJob } from "../job/JobContext";
import { useProposals } from "../job/useProposals";
import { type ProbeSettings, probeSet, tipsTogether } from "../job/workplaceSlice";
import { QuantityInput } from "../ui/QuantityInput";
import text from "../ui/text.module.css";
import { BandScale } from "./BandScale";
import { BarSettings } from "./BarSettings";
import { LiveLine } from "./LiveLine";
import classes from "./probe.module.css";
import { QuantityChoice } from "./QuantityChoice";
import { useProbe } from "./useProbe";

/** A loose part is told apart from the one in the place. */
const whereWords = { in_place: "", in_hand: "new part", beside: "old part" } as const;

const circuitCycle: readonly CircuitState[] = ["in_circuit", "lead_lifted", "out"];

/** The strip at the foot: what is probed, the reading in large digits, what it should be, what it would mean. */
export function ProbeBar() {
  const probe = useProbe();
  const { target, position, quantity, settings, isPowered } = probe;
  const { detail, power, charge, rules } = useJob();
  const dispatch = useAppDispatch();
  const proposals = useProposals();
  const input = useRef<HTMLInputElement>(null);
  const isPart = target?.kind === "part";
  const isTips = target?.kind === "unit" && target.terminals === tipsTogether;
  const net = detail.nets.find((one) => one.id === (position ? position.netId : target?.id));
  const name =
    position?.designator ??
    net?.name ??
    (target?.kind === "unit" ? (isTips ? "Tips together" : "The unit") : undefined);

  // Choosing a part or rail, even the same one again, puts the cursor where the number goes: no hand is free for a click.
  useEffect(() => {
    if (target) input.current?.focus({ preventScroll: true });
  }, [target]);

  function onKeyDown(event: KeyboardEvent<HTMLInputElement>) {
    const isEmpty = probe.text === "";
    const act = (action: () => void) => {
      event.preventDefault();
      action();
    };
    switch (event.key) {
      case "Enter":
        // Nothing typed and nothing live: the bar goes where the next reading tells most.
        return act(() =>
          isEmpty && !probe.hasValue && !probe.isLoadMissing ? proposals.takeFirst() : probe.log(true),
        );
      case "/":
        return act(() => probe.log(false));
      case "*":
        return act(cycleCircuit);
      case "+":
        return act(() => probe.step(1));
      case "ArrowUp":
        return act(() => (probe.slipAsked ? probe.logOther() : probe.shiftDecade(1)));
      case "ArrowDown":
        return act(() => (probe.slipAsked ? probe.logOther() : probe.shiftDecade(-1)));
      case "Escape":
        return act(() => probe.setText(""));
      case "p":
        if (isEmpty) act(() => void probe.probe());
        return;
      case "-":
        if (event.code === "NumpadSubtract" || (isEmpty && probe.unit !== "V")) act(() => probe.undo());
    }
  }

  function cycleCircuit() {
    const index = circuitCycle.indexOf(settings.circuitState);
    dispatch(probeSet({ circuitState: circuitCycle[(index + 1) % circuitCycle.length] as CircuitState }));
  }

  function hint(): string {
    if (isTips) return "leads zeroed: close to nothing; whatever it reads is taken off every ESR of this job";
    if (position && position.kind === "electrolytic" && isOpenAFault(quantity) && probe.band)
      return "type ol where it reads open";
    if (position && position.kind === "electrolytic")
      return "nothing to compare with: enter value and voltage in Inspect";
    if (mayReadOpen(quantity) && position) return "a sound part reads open here, or its marked value: type ol for open";
    return target ? "nothing to compare with here: the value is kept as it is" : "";
  }

  function message(): string {
    if (isGateShut) return powerGateWords(gate);
    if (probe.slipAsked) return slipWords(probe.slipAsked);
    if (probe.ohmsRefused) return ohmsRefusedWords(probe.ohmsRefused, rules.charge);
    if (probe.voltsAsked) {
      const { lastVolts } = probe.voltsAsked;
      const isHigh = lastVolts !== null && Math.abs(lastVolts) > rules.charge.workingVolts;
      return isHigh
        ? `${formatQuantity(lastVolts, "V").text} on it: drain it first, then its DC volts again.`
        : cautions.voltsFirst;
    }
    return isRisky
      ? cautions.ohmsOnCharge
      : isPowered
        ? rigWords(settings.rig, quantity, net !== undefined && sectionFacts[net.section].isMainsSide)
        : "";
  }

  const isRisky = position && net && sectionFacts[net.section].isMainsSide && charge.name !== "verified";
  const { gate } = power;
  const isGateShut = isPowered && gate.isShut;
  const codes = coarseCodesOf(quantity, probe.subject);
  return (
    <section className={classes.bar} aria-label="Probe bar">
      <div className={classes.who}>
        <div className={classes.name}>
          {name ?? "Choose a part"}
          {whereWords[probe.where] && <span className={classes.pins}> {whereWords[probe.where]}</span>}
          {target?.terminals?.includes(",") && (
            <span className={classes.pins}> {target.terminals.replace(",", " to ")}</span>
          )}
        </div>
        <QuantityChoice
          fitting={probe.fitting}
          value={quantity}
          onChange={(next) => {
            probe.goOwnWay();
            dispatch(probeSet({ quantity: next }));
          }}
        />
        <div className={classes.conditions}>
          {isPart && probe.where !== "in_place" && <span className={text.soft}>{circuitLabels.out}</span>}
          {isPart && probe.where === "in_place" && (
            <button
              type="button"
              className={classes.condition}
              aria-label={`Taken ${circuitLabels[settings.circuitState]}; changes with *`}
              onClick={cycleCircuit}
            >
              {circuitLabels[settings.circuitState]}
            </button>
          )}
          {(isPart || isTips) && <Frequency quantity={quantity} settings={settings} />}
          {isPowered && <Load key={target?.id} loadAmps={settings.loadAmps} onValidity={probe.setLoadUnderstood} />}
          {quantity === "leakage_current" && <LeakageTest settings={settings} />}
          <BarSettings />
        </div>
      </div>
      <label className={classes.reading} data-live={(probe.text === "" && probe.live.isHere) || undefined}>
        <input
          ref={input}
          className={classes.digits}
          aria-label={`Reading, ${quantityFacts[quantity].label}${name ? ` of ${name}` : ""}`}
          value={probe.text}
          placeholder={probe.liveText ?? "–"}
          disabled={!target || isGateShut}
          inputMode="decimal"
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => probe.setText(event.currentTarget.value)}
          onKeyDown={onKeyDown}
        />
        <span className={classes.unit}>{probe.printedUnit}</span>
        {probe.text !== "" && probe.value !== null && (
          <span className={classes.echo}>
            = {formatQuantity(probe.value, probe.unit, { significantDigits: 4 }).text}
          </span>
        )}
      </label>
      <div className={classes.scaleCell}>
        {codes ? (
          <ol className={classes.codes} aria-label="Words and their numbers">
            {codes.map((code) => (
              <li key={code}>{coarseLabels[code]}</li>
            ))}
          </ol>
        ) : (
          <BandScale band={probe.band} value={probe.value} unit={probe.unit} hint={hint()} />
        )}
        <div role="status" className={classes.message}>
          {probe.problem ??
            (probe.isLoadMissing ? "The load is not understood: nothing is logged before it is." : message())}
        </div>
      </div>
      <div>
        {probe.wouldBe && isPart && (
          <>
            <div className={classes.word}>
              <VerdictGlyph verdict={probe.wouldBe.verdict} size={22} /> {verdictLabels[probe.wouldBe.verdict]}
            </div>
            <div className={text.soft}>
              {probe.value === null ? "as logged so far" : "if this is logged"}
              {probe.wouldBe.bankPositionIds.length > 1 && `, bank of ${probe.wouldBe.bankPositionIds.length}`}
            </div>
          </>
        )}
        <LiveLine
          live={probe.live}
          isTarget={target !== undefined}
          quantity={quantity}
          expectedHigh={probe.band?.high ?? null}
        />
      </div>
      <ul className={classes.keys} aria-label="Keys of the probe bar">
        {[
          ["Enter", "log, next"],
          ["*", "lifted"],
          ["/", "log, stay"],
          ["-", "undo"],
          ["+", "skip"],
          ["p", "probes"],
        ].map(([key, label]) => (
          <li key={key}>
            <kbd>{key}</kbd> {label}
          </li>
        ))}
      </ul>
    </section>
  );
}

const frequencies = [100, 120, 1e3, 10e3, 100e3];

/** The tester's frequency for ESR, C or D: kept with every reading, and the expectation follows it. */
function Frequency(props: { readonly quantity: QuantityKind; readonly settings: ProbeSettings }) {
  const dispatch = useAppDispatch();
  const { quantity, settings } = props;
  if (quantity !== "esr" && quantity !== "capacitance" && quantity !== "dissipation") return null;
  const key = quantity === "esr" ? "esrFrequencyHertz" : "capacitanceFrequencyHertz";
  return (
    <select
      className={classes.frequency}
      aria-label={`Frequency of the ${quantityFacts[quantity].label} reading`}
      value={settings[key]}
      onChange={(event) => dispatch(probeSet({ [key]: Number(event.currentTarget.value) }))}
    >
      {frequencies.map((hertz) => (
        <option key={hertz} value={hertz}>
          {formatQuantity(hertz, "Hz").text}
        </option>
      ))}
    </select>
  );
}

/** What the rail or the unit was drawn on while it was read. A text that leaves with its field stands in no one's way. */
function Load(props: { readonly loadAmps: number | null; readonly onValidity: (isValid: boolean) => void }) {
  const dispatch = useAppDispatch();
  const { loadAmps, onValidity } = props;
  useEffect(() => () => onValidity(true), [onValidity]);
  return (
    <QuantityInput
      label="Load in amperes"
      isLabelHidden
      size="xs"
      unit="A"
      limits={[0, 500]}
      placeholder="no load"
      value={loadAmps}
      onChange={(amps) => dispatch(probeSet({ loadAmps: amps ?? 0 }))}
      onValidity={onValidity}
      isSelectedOnFocus
    />
  );
}

/** A home-made leakage test: the known volts and the known resistor that belong to the current. */
function LeakageTest({ settings }: { readonly settings: ProbeSettings }) {
  const dispatch = useAppDispatch();
  return (
    <>
      <QuantityInput
        label="Known volts"
        isLabelHidden
        size="xs"
        unit="V"
        limits={[0.1, 600]}
        placeholder="volts"
        value={settings.testVolts}
        onChange={(testVolts) => dispatch(probeSet({ testVolts }))}
      />
      <QuantityInput
        label="Series resistor"
        isLabelHidden
        size="xs"
        unit="Ω"
        limits={[1, 10e6]}
        placeholder="resistor"
        value={settings.seriesOhms}
        onChange={(seriesOhms) => dispatch(probeSet({ seriesOhms }))}
      />
    </>
  );
}
