import { ActionIcon, Button, NativeSelect, TextInput } from "@mantine/core";
import { ruleProblem } from "@pale-cap/contract";
import type { DrainKitItem } from "@pale-cap/core";
import { fieldProblemWords } from "@pale-cap/wording";
import { IconTrash } from "@tabler/icons-react";
import { QuantityInput } from "../../ui/QuantityInput";
import { useDraft } from "../../ui/useDraft";
import classes from "./houseRules.module.css";

const fresh: DrainKitItem = { name: "", kind: "resistor", count: 1, ohms: 10e3, watts: 5, volts: 500 };

/** The numbers of a line, in the order of its columns. */
const figures = [
  { key: "count", label: "in series", unit: "", limits: [1, 8] },
  { key: "ohms", label: "ohms each", unit: "Ω", limits: [10, 10e6] },
  { key: "watts", label: "watts each", unit: "W", limits: [0.1, 2000] },
  { key: "volts", label: "volts each", unit: "V", limits: [1, 5000] },
] as const;

/** What the shop drains with: named parts with their ratings; stored as a whole when every line is understood. */
export function KitEditor(props: {
  readonly value: readonly DrainKitItem[];
  readonly onStore: (value: readonly DrainKitItem[]) => void;
}) {
  const [items, setItems] = useDraft("rule charge.kit", props.value);
  const set = (index: number, more: Partial<DrainKitItem>) =>
    setItems((now) => now.map((one, i) => (i === index ? { ...one, ...more } : one)));
  const problem = ruleProblem("charge.kit", items);
  const isChanged = JSON.stringify(items) !== JSON.stringify(props.value);
  return (
    <div className={classes.kit}>
      <div className={`${classes.kitLine} ${classes.source}`} aria-hidden="true">
        {["name", "kind", "series", "ohms", "watts", "volts"].map((head) => (
          <span key={head}>{head}</span>
        ))}
      </div>
      {items.map((item, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the lines have no identity of their own
        <div key={index} className={classes.kitLine}>
          <TextInput
            size="xs"
            aria-label={`Line ${index + 1}, name`}
            value={item.name}
            onChange={(event) => set(index, { name: event.currentTarget.value })}
          />
          <NativeSelect
            size="xs"
            aria-label={`Line ${index + 1}, kind`}
            value={item.kind}
            data={["resistor", "lamp"]}
            onChange={(event) =>
              set(
                index,
                event.currentTarget.value === "lamp" ? { kind: "lamp", ohms: null } : { kind: "resistor", ohms: 10e3 },
              )
            }
          />
          {figures.map(({ key, label, unit, limits }) =>
            key === "ohms" && item.kind === "lamp" ? (
              <span key={key} />
            ) : (
              <QuantityInput
                key={key}
                isLabelHidden
                isCompact
                size="xs"
                label={`Line ${index + 1}, ${label}`}
                unit={unit}
                limits={limits}
                value={item[key]}
                onChange={(value) => value !== null && set(index, { [key]: value })}
              />
            ),
          )}
          <ActionIcon
            variant="subtle"
            color="gray"
            aria-label={`Take line ${index + 1} out of the kit`}
            onClick={() => setItems((now) => now.filter((_, i) => i !== index))}
          >
            <IconTrash size={16} />
          </ActionIcon>
        </div>
      ))}
      <div className={classes.kitActs}>
        <Button size="compact-sm" onClick={() => setItems((now) => [...now, fresh])}>
          Another part
        </Button>
        <Button
          size="compact-sm"
          variant="filled"
          disabled={!isChanged || problem !== null}
          onClick={() => props.onStore(items)}
        >
          Store the kit
        </Button>
        {isChanged && problem && <span className={classes.source}>{fieldProblemWords(problem)}</span>}
      </div>
    </div>
  );
}
