import { SegmentedControl, TextInput } from "@mantine/core";
import { type IntakeDetails, type SupplyCheck, supplyChecks } from "@pale-cap/contract";
import { memo } from "react";
import { Part } from "../../ui/Pane";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./intake.module.css";

interface CounterNotesProps {
  readonly details: IntakeDetails;
  readonly onChange: (details: IntakeDetails) => void;
  readonly validity: (name: string) => (isValid: boolean) => void;
}

/** Ids of the fields, so that one key leads to each. */
export const receivedFields = {
  outputVolts: "received-volts",
  inputWatts: "received-watts",
  lights: "received-lights",
  sound: "received-sound",
} as const;

const checkLabels: Readonly<Record<SupplyCheck, string>> = {
  swap: "Known-good supply swapped in",
  benchFeed: "Load fed from a bench supply",
  leadAndFuse: "Lead and plug fuse",
  outputLead: "Output lead and plug",
  rearSwitch: "Rear switch",
  lamps: "Backlight on a tester of its own",
  rangeSwitch: "Mains range switch or link, as it should stand",
};

/** What was read before anything was opened, and whether it is the supply at all. */
export const CounterNotes = memo(function CounterNotes({ details, onChange, validity }: CounterNotesProps) {
  const received = (more: Partial<IntakeDetails["asReceived"]>) =>
    onChange({ ...details, asReceived: { ...details.asReceived, ...more } });
  return (
    <>
      <Part title="As received, before opening" aside={<span className={text.dim}>keys v, w, i and s lead here</span>}>
        <div className={classes.row}>
          <QuantityInput
            id={receivedFields.outputVolts}
            label="Output, with its sign"
            unit="V"
            limits={[-1000, 1000]}
            value={details.asReceived.outputVolts}
            onChange={(outputVolts) => received({ outputVolts })}
            onValidity={validity("outputVolts")}
          />
          <QuantityInput
            id={receivedFields.inputWatts}
            label="Drawn from the mains"
            unit="W"
            limits={[0, 5000]}
            value={details.asReceived.inputWatts}
            onChange={(inputWatts) => received({ inputWatts })}
            onValidity={validity("inputWatts")}
          />
          <TextInput
            id={receivedFields.lights}
            label="Lights"
            value={details.asReceived.lights ?? ""}
            onChange={(event) => received({ lights: event.currentTarget.value || null })}
          />
          <TextInput
            id={receivedFields.sound}
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
});
