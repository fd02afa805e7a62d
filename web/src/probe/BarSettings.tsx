import { ActionIcon, Popover, Switch } from "@mantine/core";
import { IconAdjustments } from "@tabler/icons-react";
import { useAppDispatch, useAppSelector } from "../app/store/hooks";
import { habitsSet, probeSet } from "../job/workplaceSlice";
import { QuantityInput } from "../ui/QuantityInput";
import text from "../ui/text.module.css";
import classes from "./probe.module.css";

/** How the bar works at this bench: probes that follow, logging by holding still, the tone, leads and temperature. */
export function BarSettings() {
  const dispatch = useAppDispatch();
  const { probe, habits } = useAppSelector((state) => state.workplace);
  return (
    <Popover position="top-start" width={340} transitionProps={{ duration: 60 }} trapFocus>
      <Popover.Target>
        <ActionIcon variant="subtle" color="gray" size="sm" aria-label="How the bar works">
          <IconAdjustments size={17} />
        </ActionIcon>
      </Popover.Target>
      <Popover.Dropdown className={classes.settings}>
        <Switch
          label="Probes follow the target"
          description="On the simulated bench; with other meters only what is read is noted."
          checked={habits.isFollowing}
          onChange={(event) => dispatch(habitsSet({ isFollowing: event.currentTarget.checked }))}
        />
        <Switch
          label="Hold to log"
          description="A live value is logged once it has stood still."
          checked={habits.isHolding}
          onChange={(event) => dispatch(habitsSet({ isHolding: event.currentTarget.checked }))}
        />
        <Switch
          label="Tone"
          description="Short and high inside the band, low outside."
          checked={habits.isTone}
          onChange={(event) => dispatch(habitsSet({ isTone: event.currentTarget.checked }))}
        />
        <QuantityInput
          label="Leads add"
          unit="Ω"
          defaultPrefix="m"
          limits={[0, 10]}
          placeholder="zeroed"
          value={probe.leadOhms === 0 ? null : probe.leadOhms}
          onChange={(ohms) => dispatch(probeSet({ leadOhms: ohms ?? 0 }))}
        />
        <QuantityInput
          label="Board temperature"
          unit="°C"
          limits={[-40, 120]}
          placeholder="a usual room, 20"
          value={probe.temperatureCelsius}
          onChange={(temperatureCelsius) => dispatch(probeSet({ temperatureCelsius }))}
        />
        <p className={text.soft}>A footswitch types a key: set it to Enter to log, or to p to bring the probes.</p>
      </Popover.Dropdown>
    </Popover>
  );
}
