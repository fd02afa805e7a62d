import { SegmentedControl } from "@mantine/core";
import {
  type CircuitState,
  formatQuantity,
  powerGate,
  printedPrefix,
  type QuantityKind,
  sectionFacts,
} from "@pale-cap/core";
import { type KeyboardEvent, useEffect, useRef } from "react";
import { VerdictGlyph } from "../drawing/VerdictGlyph";
import { type ProbeSettings, probeSet } from "../job/benchSlice";
import { useAppDispatch } from "../job/hooks";
import { useJob } from "../job/JobContext";
import { useProposals } from "../job/useProposals";
import { QuantityInput } from "../ui/QuantityInput";
import { circuitLabels, quantityFacts } from "../wording/boardWords";
import { cautions } from "../wording/cautions";
import { powerGateWords, rigWords } from "../wording/firstPowerWords";
import { verdictLabels } from "../wording/verdictWords";
import { BandScale } from "./BandScale";
import classes from "./probe.module.css";
import { useProbe } from "./useProbe";

const partQuantities: readonly QuantityKind[] = ["esr", "capacitance", "dc_voltage", "voltage_loss", "resistance"];
const railQuantities: readonly QuantityKind[] = ["dc_voltage", "ripple_voltage"];
const circuitCycle: readonly CircuitState[] = ["in_circuit", "lead_lifted", "out"];

/** The strip at the foot: what is probed, the reading in large digits, what it should be, what it would mean. */
export function ProbeBar() {
  const probe = useProbe();
  const isRail = probe.target?.kind === "rail";
  const { detail, facts, charge, rules } = useJob();
  const dispatch = useAppDispatch();
  const [proposals, take] = useProposals();
  const input = useRef<HTMLInputElement>(null);
  const targetId = probe.target?.id;
  const position = detail.positions.find((one) => one.id === targetId);
  const net = detail.nets.find((one) => one.id === (position ? position.netId : targetId));
  const name = position?.designator ?? net?.name;

  // Choosing a part or rail, even the same one again, puts the cursor where the number goes: no hand is free for a click.
  const { target } = probe;
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
        // Nothing typed: the bar goes where the next reading tells most.
        return act(() => (isEmpty && proposals[0] ? take(proposals[0]) : probe.log(true)));
      case "/":
        return act(() => probe.log(false));
      case "*":
        return act(cycleCircuit);
      case "+":
        return act(() => probe.step(1));
      case "ArrowUp":
        return act(() => probe.shiftDecade(1));
      case "ArrowDown":
        return act(() => probe.shiftDecade(-1));
      case "Escape":
        return act(() => probe.setText(""));
      case "-":
        if (event.code === "NumpadSubtract" || (isEmpty && probe.unit !== "V")) act(() => probe.undo());
    }
  }

  function cycleCircuit() {
    const index = circuitCycle.indexOf(probe.settings.circuitState);
    dispatch(probeSet({ circuitState: circuitCycle[(index + 1) % circuitCycle.length] as CircuitState }));
  }

  function message(): string {
    if (isGateShut) return powerGateWords(gate);
    if (probe.voltsAsked) {
      const { lastVolts } = probe.voltsAsked;
      const isHigh = lastVolts !== null && Math.abs(lastVolts) > rules.charge.workingVolts;
      return isHigh
        ? `${formatQuantity(lastVolts, "V").text} on it: drain first. ${cautions.voltsFirst}`
        : cautions.voltsFirst;
    }
    return isRisky ? cautions.ohmsOnCharge : isRail ? rigWords(probe.settings.rig) : "";
  }

  const quantities = isRail ? railQuantities : partQuantities;
  const isRisky = position && net && sectionFacts[net.section].isMainsSide && charge.name !== "verified";
  const gate = powerGate(facts.symptoms, facts.powerEvents);
  const isGateShut = isRail && gate.isShut;
  return (
    <section className={classes.bar} aria-label="Probe bar">
      <div className={classes.who}>
        <div className={classes.name}>{name ?? "Choose a part"}</div>
        <SegmentedControl
          aria-label="Quantity"
          data={quantities.map((value) => ({ value, label: quantityFacts[value].label }))}
          value={probe.quantity}
          onChange={(value) => {
            probe.goOwnWay();
            dispatch(probeSet({ quantity: value as QuantityKind }));
          }}
        />
        {!isRail ? (
          <div className={classes.conditions}>
            <button
              type="button"
              className={classes.condition}
              aria-label={`Taken ${circuitLabels[probe.settings.circuitState]}; changes with *`}
              onClick={cycleCircuit}
            >
              {circuitLabels[probe.settings.circuitState]}
            </button>
            <Frequency quantity={probe.quantity} settings={probe.settings} />
          </div>
        ) : (
          <QuantityInput
            label="Load in amperes"
            isLabelHidden
            size="xs"
            unit="A"
            limits={[0, 500]}
            placeholder="no load"
            value={probe.settings.loadAmps}
            onChange={(loadAmps) => dispatch(probeSet({ loadAmps: loadAmps ?? 0 }))}
          />
        )}
      </div>
      <label className={classes.reading}>
        <input
          ref={input}
          className={classes.digits}
          aria-label={`Reading, ${quantityFacts[probe.quantity].label}${name ? ` of ${name}` : ""}`}
          value={probe.text}
          placeholder="–"
          disabled={!probe.target || isGateShut}
          inputMode="decimal"
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => probe.setText(event.currentTarget.value)}
          onKeyDown={onKeyDown}
        />
        <span className={classes.unit}>{`${printedPrefix(probe.defaultPrefix)}${probe.unit}`}</span>
      </label>
      <div className={classes.scaleCell}>
        <BandScale band={probe.band} value={probe.value} unit={probe.unit} />
        <div role="status" className={classes.message}>
          {probe.problem ?? message()}
        </div>
      </div>
      <div className={classes.verdict}>
        {probe.wouldBe && !isRail && (
          <>
            <div className={classes.word}>
              <VerdictGlyph verdict={probe.wouldBe.verdict} size={22} /> {verdictLabels[probe.wouldBe.verdict]}
            </div>
            <div className={classes.soft}>
              {probe.value === null ? "as logged so far" : "if this is logged"}
              {probe.wouldBe.bankPositionIds.length > 1 && `, bank of ${probe.wouldBe.bankPositionIds.length}`}
            </div>
          </>
        )}
      </div>
      <ul className={classes.keys} aria-label="Keys of the probe bar">
        {[
          ["Enter", "log, next"],
          ["*", "lifted"],
          ["/", "log, stay"],
          ["-", "undo"],
          ["+", "skip"],
          ["?", "all keys"],
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

/** The tester's frequency for ESR or C: kept with every reading, and the expectation follows it. */
function Frequency(props: { readonly quantity: QuantityKind; readonly settings: ProbeSettings }) {
  const dispatch = useAppDispatch();
  const { quantity, settings } = props;
  if (quantity !== "esr" && quantity !== "capacitance") return null;
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
