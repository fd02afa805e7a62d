import { Chip } from "@mantine/core";
import { symptomGroups } from "@pale-cap/core";
import { memo } from "react";
import classes from "./intake.module.css";

interface SymptomChipsProps {
  readonly symptoms: readonly string[];
  readonly onChange: (symptoms: string[]) => void;
}

/** What is wrong with it, to be touched instead of written. */
export const SymptomChips = memo(function SymptomChips({ symptoms, onChange }: SymptomChipsProps) {
  return (
    <div className={classes.symptoms}>
      {symptomGroups.map((group) => (
        <fieldset key={group.title} className={classes.group}>
          <legend>{group.title}</legend>
          <Chip.Group
            multiple
            value={[...symptoms]}
            onChange={(chosen) =>
              onChange(inOtherGroups(symptoms, group.symptoms).concat(inGroup(chosen, group.symptoms)))
            }
          >
            {Object.entries(group.symptoms).map(([code, label]) => (
              <Chip key={code} value={code} size="sm" radius={3} variant="outline">
                {label as string}
              </Chip>
            ))}
          </Chip.Group>
        </fieldset>
      ))}
    </div>
  );
});

const inGroup = (chosen: readonly string[], group: object): string[] => chosen.filter((code) => code in group);
const inOtherGroups = (chosen: readonly string[], group: object): string[] => chosen.filter((code) => !(code in group));
