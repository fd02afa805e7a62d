import { Checkbox, NativeSelect, NumberInput, Radio } from "@mantine/core";
import type { HandAct, HandActKind, HandsState } from "@pale-cap/contract";
import { type CapacitorClass, capacitorClasses, foundPart } from "@pale-cap/core";
import { classLabels, handActLabels } from "@pale-cap/wording";
import { useEffect, useState } from "react";
import text from "../../ui/text.module.css";
import { useJob } from "../JobContext";
import { useSelectedPosition } from "../useTarget";
import classes from "./hands.module.css";

interface PanelProps {
  readonly state: HandsState;
  readonly act: (wanted: HandAct) => void;
  readonly isActing: boolean;
}

const byEye: readonly HandActKind[] = ["look", "move", "cool", "warm"];
const byIron: readonly HandActKind[] = ["lift", "take_out", "put_back", "resolder"];
const others: readonly HandActKind[] = ["renew", "clean", "mend"];
const irons: readonly HandActKind[] = ["lift", "take_out"];

/** What hands do at one part: the one that is selected, or another. */
export function AtPart({ state, act, isActing }: PanelProps) {
  const { detail } = useJob();
  const selected = useSelectedPosition();
  const [at, setAt] = useState(selected?.designator ?? "");
  const [isPreheated, setPreheated] = useState(false);
  useEffect(() => {
    if (selected) setAt(selected.designator);
  }, [selected]);
  const names = detail.positions.map((one) => one.designator);
  const position = detail.positions.find((one) => one.designator === at);
  const stands = state.out.includes(at) ? "is out" : state.lifted.includes(at) ? "has a lead up" : "sits in the board";
  const button = (kind: HandActKind) => (
    <button
      key={kind}
      type="button"
      className={classes.act}
      disabled={isActing || at === ""}
      onClick={() => act({ kind, at, ...(irons.includes(kind) ? { isPreheated } : {}) })}
    >
      {handActLabels[kind]}
    </button>
  );
  const isCapacitor = position?.kind === "electrolytic";
  return (
    <fieldset className={classes.part}>
      <legend>At a part</legend>
      <div className={classes.row}>
        <NativeSelect
          aria-label="Part under the hands"
          data={["", ...names]}
          value={at}
          onChange={(event) => setAt(event.currentTarget.value)}
        />
        {at !== "" && (
          <span className={text.soft}>
            {at} {stands}
            {state.pulled.includes(at) && ", its pad is pulled"}
          </span>
        )}
      </div>
      <div className={classes.acts}>{byEye.map(button)}</div>
      <div className={classes.acts}>{byIron.map(button)}</div>
      <div className={classes.acts}>{others.filter((kind) => kind !== "renew" || !isCapacitor).map(button)}</div>
      <Checkbox
        size="xs"
        label="warm the place from below first"
        checked={isPreheated}
        onChange={(event) => setPreheated(event.currentTarget.checked)}
      />
      {isCapacitor && state.out.includes(at) && <NewPart at={at} act={act} isActing={isActing} />}
    </fieldset>
  );
}

/** A new capacitor for a place that is empty: what is printed on it, and which way round. */
function NewPart({ at, act, isActing }: { readonly at: string } & Pick<PanelProps, "act" | "isActing">) {
  const { detail } = useJob();
  const position = detail.positions.find((one) => one.designator === at);
  const old = position && foundPart(detail.fittedParts, position.id);
  const [microfarads, setMicrofarads] = useState<number | string>("");
  const [volts, setVolts] = useState<number | string>("");
  const [capacitorClass, setClass] = useState<CapacitorClass>(old?.capacitorClass ?? "lowz");
  const [side, setSide] = useState<string | null>(null);
  const isReady = Number(microfarads) > 0 && Number(volts) > 0 && side !== null;
  return (
    <form
      className={classes.fit}
      onSubmit={(event) => {
        event.preventDefault();
        if (!isReady) return;
        const part = {
          microfarads: Number(microfarads),
          volts: Number(volts),
          capacitorClass,
          isReversed: side === "plus",
        };
        act({ kind: "fit", at, part });
      }}
    >
      <div className={classes.row}>
        <NumberInput label="µF" size="xs" hideControls min={0} value={microfarads} onChange={setMicrofarads} />
        <NumberInput label="V" size="xs" hideControls min={0} value={volts} onChange={setVolts} />
        <NativeSelect
          label="Kind"
          size="xs"
          data={capacitorClasses.map((value) => ({ value, label: classLabels[value] }))}
          value={capacitorClass}
          onChange={(event) => setClass(event.currentTarget.value as CapacitorClass)}
        />
      </div>
      <Radio.Group label="Its stripe towards" size="xs" value={side} onChange={setSide}>
        <div className={classes.row}>
          <Radio size="xs" value="minus" label="the shaded half" />
          <Radio size="xs" value="plus" label="the clear half" />
        </div>
      </Radio.Group>
      <button type="submit" className={classes.act} disabled={isActing || !isReady}>
        {handActLabels.fit}
      </button>
    </form>
  );
}
