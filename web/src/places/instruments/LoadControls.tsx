import { Switch, TextInput } from "@mantine/core";
import type { InstrumentAct } from "@pale-cap/contract";
import { useState } from "react";
import { QuantityInput } from "../../ui/QuantityInput";
import classes from "./instruments.module.css";

/** How often a second a load swings: slow enough for the rail to come back each time. */
const swingHertz = 100;

/** Electronic load: on which net, how much, on or off. */
export function LoadControls(props: {
  readonly settings: Readonly<Record<string, string>>;
  readonly act: (change: Partial<InstrumentAct>) => void;
}) {
  const { settings, act } = props;
  const [net, setNet] = useState<string | null>(null);
  const set = (change: Readonly<Record<string, string | number>>) => act({ settings: change });
  return (
    <div className={classes.row}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (net !== null) set({ net: net.trim() });
          setNet(null);
        }}
      >
        <TextInput
          aria-label="Net under load"
          size="xs"
          placeholder="net, as 12 V"
          value={net ?? settings.net ?? ""}
          onChange={(event) => setNet(event.currentTarget.value)}
        />
      </form>
      <QuantityInput
        label="Load current"
        isLabelHidden
        size="xs"
        unit="A"
        limits={[0.001, 100]}
        placeholder="amperes"
        value={settings.amps ? Number(settings.amps) : null}
        onCommit={(amps) => amps !== null && set({ amps })}
      />
      <QuantityInput
        label="Swings to"
        isLabelHidden
        size="xs"
        unit="A"
        limits={[0, 100]}
        placeholder={`swings to, ${swingHertz} a second`}
        value={settings.swing && settings.swing !== "OFF" ? Number(settings.swing.split(",")[0]) : null}
        onCommit={(toAmps) => set({ swing: toAmps === null ? "OFF" : `${toAmps},${swingHertz}` })}
      />
      <Switch
        label="load on"
        checked={settings.input === "ON"}
        onChange={(event) => set({ input: event.currentTarget.checked ? "ON" : "OFF" })}
      />
    </div>
  );
}
