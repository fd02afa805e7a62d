import { NativeSelect, Switch, TextInput } from "@mantine/core";
import type { InstrumentAct } from "@pale-cap/contract";
import { cautions, deviceName } from "@pale-cap/wording";
import { useState } from "react";
import { useAppSelector } from "../../app/store/hooks";
import { useJobQuery } from "../../job/jobApi";
import { useBenchQuery } from "../../job/jobListApi";
import { mainsFact } from "../../job/mainsFact";
import { useSubmit } from "../../outbox/useSubmit";
import { Caution } from "../../ui/Caution";
import classes from "./instruments.module.css";

/** Mains source: on and off, lamp, transformer, drain lead. The job it belongs to learns that the mains was connected. */
export function MainsControls(props: {
  readonly settings: Readonly<Record<string, string>>;
  readonly act: (change: Partial<InstrumentAct>) => void;
}) {
  const { settings, act } = props;
  const openIds = useAppSelector((state) => state.workplace.openJobIds);
  const personId = useAppSelector((state) => state.workplace.personId);
  const lines = useBenchQuery(undefined).data?.lines ?? [];
  const [chosenId, setChosenId] = useState(openIds.at(-1) ?? "");
  // One on a tab may stand beyond the first page of the bench, or be closed meanwhile: then the mains is not its own.
  const chosen = useJobQuery(chosenId, { skip: chosenId === "" }).data?.job;
  const jobId = chosen?.id === chosenId && chosen.handedOverAt === null ? chosenId : "";
  const offered = chosen && jobId && !lines.some((line) => line.id === jobId) ? [chosen, ...lines] : lines;
  const [drain, setDrain] = useState("");
  const [submit] = useSubmit();
  const set = (change: Readonly<Record<string, string | number>>) => act({ settings: change });
  function switchMains(isOn: boolean) {
    set({ output: isOn ? "ON" : "OFF" });
    if (!jobId) return;
    void submit(mainsFact(jobId, isOn, personId));
  }
  return (
    <div className={classes.stack}>
      <div className={classes.row}>
        <Switch
          label="mains on"
          size="md"
          checked={settings.output === "ON"}
          onChange={(event) => switchMains(event.currentTarget.checked)}
        />
        <NativeSelect
          aria-label="Series lamp"
          size="xs"
          data={[
            { value: "OFF", label: "no lamp" },
            { value: "40", label: "lamp 40 W" },
            { value: "60", label: "lamp 60 W" },
            { value: "100", label: "lamp 100 W" },
          ]}
          value={settings.lampWatts ?? "OFF"}
          onChange={(event) => set({ lampWatts: event.currentTarget.value })}
        />
        <Switch
          label="transformer"
          checked={settings.isolation === "ON"}
          onChange={(event) => set({ isolation: event.currentTarget.checked ? "ON" : "OFF" })}
        />
      </div>
      <div className={classes.row}>
        <NativeSelect
          aria-label="Job that the mains belongs to"
          size="xs"
          data={[
            { value: "", label: "no job" },
            ...offered.map((line) => ({
              value: line.id,
              label: `${String(line.number).padStart(4, "0")} ${deviceName(line)}`,
            })),
          ]}
          value={jobId}
          onChange={(event) => setChosenId(event.currentTarget.value)}
        />
        <form
          onSubmit={(event) => {
            event.preventDefault();
            set({ drain: drain.trim() || "OFF" });
          }}
        >
          <TextInput
            aria-label="Drain lead"
            size="xs"
            placeholder="drain: Bulk,2200"
            value={drain}
            onChange={(event) => setDrain(event.currentTarget.value)}
          />
        </form>
      </div>
      <Caution>{settings.isolation === "ON" ? cautions.residualCurrent : cautions.firstPower}</Caution>
    </div>
  );
}
