import { Button, SegmentedControl } from "@mantine/core";
import type { IntakeDetails } from "@pale-cap/contract";
import { memo } from "react";
import { useJob } from "../../job/JobContext";
import { railName, useAddRails } from "../../job/panels/rails/useAddRails";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./intake.module.css";

interface PurposeCardProps {
  readonly details: IntakeDetails;
  readonly onChange: (details: IntakeDetails) => void;
  readonly validity: (name: string) => (isValid: boolean) => void;
}

/** What the unit must do day by day: the life of every new part is reckoned over it. */
export const PurposeCard = memo(function PurposeCard({ details, onChange, validity }: PurposeCardProps) {
  const { purpose } = details;
  const set = (more: Partial<IntakeDetails["purpose"]>) => onChange({ ...details, purpose: { ...purpose, ...more } });
  const enclosed = purpose.isEnclosed === null ? "" : String(purpose.isEnclosed);
  const hours = (purpose.hoursPerDay ?? 0) + (purpose.standbyHoursPerDay ?? 0);
  return (
    <Part
      title="What it must do"
      aside={<span className={text.dim}>Choose reckons the life of new parts over this day</span>}
    >
      <div className={classes.row}>
        <QuantityInput
          label="Hours a day"
          unit=""
          limits={[0, 24]}
          value={purpose.hoursPerDay}
          onChange={(hoursPerDay) => set({ hoursPerDay })}
          onValidity={validity("hoursPerDay")}
        />
        <QuantityInput
          label="Standby hours"
          unit=""
          limits={[0, 24]}
          value={purpose.standbyHoursPerDay}
          onChange={(standbyHoursPerDay) => set({ standbyHoursPerDay })}
          onValidity={validity("standbyHours")}
          error={hours > 24 ? "a day has 24 hours" : undefined}
        />
        <QuantityInput
          label="Air around it"
          unit="°C"
          limits={[-40, 80]}
          value={purpose.ambientCelsius}
          onChange={(ambientCelsius) => set({ ambientCelsius })}
          onValidity={validity("ambient")}
        />
        <div className={classes.stands}>
          <div className={classes.fieldLabel}>Stands</div>
          <SegmentedControl
            aria-label="Stands"
            data={[
              { value: "", label: "unknown" },
              { value: "false", label: "open" },
              { value: "true", label: "enclosed" },
            ]}
            value={enclosed}
            onChange={(value) => set({ isEnclosed: value === "" ? null : value === "true" })}
          />
        </div>
      </div>
    </Part>
  );
});

/** The label's rails as a promise: they become the rails that Prove tests under load. */
export const PromiseFromLabel = memo(function PromiseFromLabel({ details }: { readonly details: IntakeDetails }) {
  const { detail } = useJob();
  const [add, { problem, isLoading }] = useAddRails();
  const rails = details.labelPlate.rails.filter((rail) => rail.volts !== null);
  if (rails.length === 0) return null;
  const isKept = rails.every((rail) =>
    detail.nets.some(
      (net) =>
        net.name.toLowerCase() === railName(rail).toLowerCase() &&
        (rail.amps === null || net.fullLoadAmps === rail.amps),
    ),
  );
  return (
    <div className={classes.offers}>
      <Button size="xs" loading={isLoading} disabled={isKept} onClick={() => void add(rails)}>
        {isKept ? "The label's rails are promised" : "Promise what the label says"}
      </Button>
      <ProblemNote problem={problem} />
    </div>
  );
});
