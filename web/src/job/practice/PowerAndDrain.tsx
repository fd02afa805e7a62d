import { NativeSelect, NumberInput, SegmentedControl, Switch } from "@mantine/core";
import type { HandAct, HandsState } from "@pale-cap/contract";
import { sectionFacts } from "@pale-cap/core";
import { cautions } from "@pale-cap/wording";
import { useState } from "react";
import { Caution } from "../../ui/Caution";
import { useJob } from "../JobContext";
import classes from "./hands.module.css";

interface PanelProps {
  readonly state: HandsState;
  readonly act: (wanted: HandAct) => void;
  readonly isActing: boolean;
}

const lamps = [
  { value: "0", label: "no lamp" },
  { value: "40", label: "40 W" },
  { value: "60", label: "60 W" },
  { value: "100", label: "100 W" },
];

/** Mains through a lamp or not, the drain, loads, waiting. */
export function PowerAndDrain({ state, act, isActing }: PanelProps) {
  const { detail } = useJob();
  const [lamp, setLamp] = useState(String(state.lampWatts ?? 60));
  const [isIsolated, setIsolated] = useState(state.isIsolated);
  const hot = detail.nets.filter((net) => sectionFacts[net.section].isMainsSide && net.nominalVolts !== null);
  const outputs = detail.nets.filter((net) => !sectionFacts[net.section].isMainsSide && (net.fullLoadAmps ?? 0) > 0);
  const isDirect = !detail.nets.some((net) => sectionFacts[net.section].isMainsSide);
  const [drained, setDrained] = useState(hot[0]?.name ?? "");
  const [ohms, setOhms] = useState<number | string>(2200);
  const [loaded, setLoaded] = useState(outputs[0]?.name ?? "");
  const [amps, setAmps] = useState<number | string>("");
  const [minutes, setMinutes] = useState<number | string>(2);
  const lampWatts = isDirect || lamp === "0" ? null : Number(lamp);
  const isOn = state.isMainsOn;
  return (
    <fieldset className={classes.part}>
      <legend>{isDirect ? "Adapter" : "Mains"} and charge</legend>
      {!isDirect && (
        <div className={classes.row}>
          <SegmentedControl aria-label="Lamp in series" size="xs" data={lamps} value={lamp} onChange={setLamp} />
          <Switch
            size="xs"
            label="transformer"
            checked={isIsolated}
            onChange={(event) => setIsolated(event.currentTarget.checked)}
          />
        </div>
      )}
      <div className={classes.acts}>
        <button
          type="button"
          className={classes.act}
          data-on={isOn || undefined}
          disabled={isActing}
          onClick={() => act({ kind: "mains", isOn: !isOn, lampWatts, isIsolated })}
        >
          {isOn ? "Switch off" : "Switch on"}
        </button>
        {isOn && !isDirect && (lampWatts !== state.lampWatts || isIsolated !== state.isIsolated) && (
          <button
            type="button"
            className={classes.act}
            disabled={isActing}
            onClick={() => act({ kind: "mains", isOn: true, lampWatts, isIsolated })}
          >
            {lampWatts === null ? "Take the lamp out" : "Through this lamp"}
          </button>
        )}
        <button type="button" className={classes.act} disabled={isActing} onClick={() => act({ kind: "listen" })}>
          Listen
        </button>
        <button type="button" className={classes.act} disabled={isActing} onClick={() => act({ kind: "smell" })}>
          Smell
        </button>
      </div>
      {!isDirect && <Caution>{isIsolated ? cautions.residualCurrent : cautions.firstPower}</Caution>}
      {hot.length > 0 && (
        <div className={classes.row}>
          <NativeSelect
            aria-label="Net to drain"
            size="xs"
            data={hot.map((net) => net.name)}
            value={drained}
            onChange={(event) => setDrained(event.currentTarget.value)}
          />
          <NumberInput
            aria-label="Drain ohms"
            size="xs"
            suffix=" Ω"
            hideControls
            min={1}
            value={ohms}
            onChange={setOhms}
          />
          <button
            type="button"
            className={classes.act}
            data-on={state.drain ? true : undefined}
            disabled={isActing || !(Number(ohms) > 0)}
            onClick={() =>
              act(
                state.drain
                  ? { kind: "drain", at: null, ohms: null }
                  : { kind: "drain", at: drained, ohms: Number(ohms) },
              )
            }
          >
            {state.drain ? "Drain off" : "Drain on"}
          </button>
        </div>
      )}
      {outputs.length > 0 && (
        <div className={classes.row}>
          <NativeSelect
            aria-label="Output to load"
            size="xs"
            data={outputs.map((net) => net.name)}
            value={loaded}
            onChange={(event) => setLoaded(event.currentTarget.value)}
          />
          <NumberInput
            aria-label="Load amperes"
            size="xs"
            suffix=" A"
            hideControls
            min={0}
            value={amps}
            onChange={setAmps}
          />
          <button
            type="button"
            className={classes.act}
            disabled={isActing || amps === ""}
            onClick={() => act({ kind: "load", at: loaded, amps: Number(amps) })}
          >
            Load it
          </button>
        </div>
      )}
      <div className={classes.row}>
        <NumberInput
          aria-label="Minutes to wait"
          size="xs"
          suffix=" min"
          hideControls
          min={0.1}
          max={120}
          value={minutes}
          onChange={setMinutes}
        />
        <button
          type="button"
          className={classes.act}
          disabled={isActing || !(Number(minutes) > 0)}
          onClick={() => act({ kind: "wait", minutes: Math.min(Number(minutes), 120) })}
        >
          Wait
        </button>
      </div>
    </fieldset>
  );
}
