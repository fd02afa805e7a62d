import { SegmentedControl, TextInput } from "@mantine/core";
import { type IntakeDetails, type SupplyCheck, supplyChecks } from "@pale-cap/contract";
import { Part } from "../../ui/Pane";
import { QuantityInput } from "../../ui/QuantityInput";
import classes from "./intake.module.css";

interface CounterNotesProps {
  readonly details: IntakeDetails;
  readonly onChange: (details: IntakeDetails) => void;
  readonly validity: (name: string) => (isValid: boolean) => void;
}

const checkLabels: Readonly<Record<SupplyCheck, string>> = {
  swap: "Known-good supply swapped in",
  benchFeed: "Load fed from a bench supply",
  leadAndFuse: "Lead and plug fuse",
  rearSwitch: "Rear switch",
};

/** What was read before anything was opened, and whether it is the supply at all. */
export function CounterNotes({ details, onChange, validity }: CounterNotesProps) {
  const received = (more: Partial<IntakeDetails["asReceived"]>) =>
    onChange({ ...details, asReceived: { ...details.asReceived, ...more } });
  return (
    <>
      <Part title="As received, before opening">
        <div className={classes.row}>
          <QuantityInput
            label="Output, with its sign"
            unit="V"
            limits={[-1000, 1000]}
            value={details.asReceived.outputVolts}
            onChange={(outputVolts) => received({ outputVolts })}
            onValidity={validity("outputVolts")}
          />
          <QuantityInput
            label="Drawn from the mains"
            unit="W"
            limits={[0, 5000]}
            value={details.asReceived.inputWatts}
            onChange={(inputWatts) => received({ inputWatts })}
            onValidity={validity("inputWatts")}
          />
          <TextInput
            label="Lights"
            value={details.asReceived.lights ?? ""}
            onChange={(event) => received({ lights: event.currentTarget.value || null })}
          />
          <TextInput
            label="Sound"
            value={details.asReceived.sound ?? ""}
            onChange={(event) => received({ sound: event.currentTarget.value || null })}
          />
        </div>
      </Part>
      <Part title="Is it the supply at all?">
        <div className={classes.checksGrid}>
          {supplyChecks.map((check) => (
            <div key={check} className={classes.check}>
              <span>{checkLabels[check]}</span>
              <SegmentedControl
                aria-label={checkLabels[check]}
                data={[
                  { value: "", label: "not tried" },
                  { value: "good", label: "good" },
                  { value: "bad", label: "bad" },
                ]}
                value={details.supplyChecks[check] ?? ""}
                onChange={(value) =>
                  onChange({ ...details, supplyChecks: { ...details.supplyChecks, [check]: value || null } })
                }
              />
            </div>
          ))}
        </div>
      </Part>
    </>
  );
}
