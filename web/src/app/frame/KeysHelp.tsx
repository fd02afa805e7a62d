import { Modal } from "@mantine/core";
import { useState } from "react";
import { registeredKeys, useKeys } from "../../ui/useKeys";
import classes from "./frame.module.css";

const probeKeys: readonly (readonly [string, string])[] = [
  ["Enter", "log the reading, go to the next target"],
  ["/", "log and stay, for a repeat"],
  ["*", "in circuit, one lead lifted, out"],
  ["+", "skip to the next target"],
  ["-", "take the last reading back (number pad; with volts typed, a minus)"],
  ["↑ ↓", "neighbouring prefix"],
  ["esr, c, dc, loss", "before a number: another quantity, as in: c 1.46m"],
];

/** `?`: the keys of the current screen. */
export function KeysHelp() {
  const [isOpen, setOpen] = useState(false);
  useKeys("Everywhere", [{ key: "?", label: "this list", action: () => setOpen(true) }]);
  const isProbing = isOpen && document.querySelector('[aria-label="Probe bar"]') !== null;
  return (
    <Modal opened={isOpen} onClose={() => setOpen(false)} title="Keys of this screen" size="md">
      {isOpen &&
        registeredKeys().map((group) => (
          <KeyGroup
            key={group.title + group.keys[0]?.key}
            title={group.title}
            keys={group.keys.map((one) => [one.key.replace("alt+", "Alt "), one.label])}
          />
        ))}
      {isProbing && <KeyGroup title="In the probe bar" keys={probeKeys} />}
    </Modal>
  );
}

function KeyGroup({ title, keys }: { readonly title: string; readonly keys: readonly (readonly [string, string])[] }) {
  return (
    <section>
      <h3 className={classes.keyTitle}>{title}</h3>
      <dl className={classes.keyList}>
        {keys.map(([key, label]) => (
          <div key={key}>
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd>{label}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
