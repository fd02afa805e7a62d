import { NativeSelect } from "@mantine/core";
import { netsInOrder } from "@pale-cap/contract";
import { type Section, sectionFacts, sections } from "@pale-cap/core";
import { useJob } from "../../job/JobContext";

/** The rail or section that a part sits on; a new rail can be made by naming its section. */
export function NetSelect(props: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (choice: string) => void;
}) {
  const { shown: detail } = useJob();
  const chosen = detail.nets.find((net) => net.id === props.value);
  return (
    <NativeSelect
      size="xs"
      aria-label={props.label}
      title={chosen?.name ?? sectionFacts[props.value.replace("new:", "") as Section]?.label}
      value={props.value}
      onChange={(event) => props.onChange(event.currentTarget.value)}
      data={[
        { value: "", label: "unknown" },
        ...(detail.nets.length > 0
          ? [
              {
                group: "On this board",
                items: netsInOrder(detail).map((net) => ({
                  value: net.id,
                  label: net.name,
                })),
              },
            ]
          : []),
        {
          group: "New rail in",
          items: sections.map((one) => ({ value: `new:${one}`, label: sectionFacts[one].label })),
        },
      ]}
    />
  );
}
