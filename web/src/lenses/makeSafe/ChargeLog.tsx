import { Button } from "@mantine/core";
import type { ChargeEventRow } from "@pale-cap/contract";
import { connectedAgainstGate, formatQuantity, inOrder } from "@pale-cap/core";
import { cautions, lineSideLabels, logTime } from "@pale-cap/wording";
import { useMemo } from "react";
import { useJob } from "../../job/JobContext";
import { Caution } from "../../ui/Caution";
import { Part } from "../../ui/Pane";
import { ProblemNote } from "../../ui/ProblemNote";
import classes from "./makeSafe.module.css";
import { useLogChargeEvent } from "./useLogChargeEvent";

/** What was logged about stored charge, newest first, and the acts that change it at a stroke. */
export function ChargeLog() {
  const { detail, facts, rules } = useJob();
  const [log, { problem, isLoading }] = useLogChargeEvent();
  const events = [...inOrder(detail.chargeEvents)].reverse();
  const against = useMemo(
    () => new Set(connectedAgainstGate(facts, rules.charge).map((event) => event.at)),
    [facts, rules],
  );
  return (
    <Part title="Mains and log">
      <div className={classes.offers}>
        <Button loading={isLoading} onClick={() => void log({ kind: "mains_connected" })}>
          Mains connected
        </Button>
        <Button loading={isLoading} onClick={() => void log({ kind: "mains_disconnected" })}>
          Mains disconnected
        </Button>
        <Button loading={isLoading} onClick={() => void log({ kind: "dc_fed" })}>
          D.c. fed in
        </Button>
        <Button loading={isLoading} onClick={() => void log({ kind: "insulation_test" })}>
          Insulation tested
        </Button>
      </div>
      {events.some((event) => event.kind === "insulation_test" || event.kind === "dc_fed") && (
        <Caution>{cautions.chargedByTest}</Caution>
      )}
      <ProblemNote problem={problem} />
      <ol className={classes.log}>
        {events.map((event) => (
          <li key={event.id}>
            <time dateTime={event.at}>{logTime(event.at)}</time> {words(event, storeName(event))}
            {event.kind === "mains_connected" && against.has(event.at) && ", against the gate"}
          </li>
        ))}
      </ol>
    </Part>
  );

  function storeName(event: ChargeEventRow): string {
    return detail.energyStores.find((store) => store.id === event.storeId)?.name ?? "";
  }
}

function words(event: ChargeEventRow, store: string): string {
  switch (event.kind) {
    case "mains_connected":
      return "mains connected: charge unknown from here";
    case "mains_disconnected":
      return "mains disconnected";
    case "live_reading":
      return "live reading";
    case "dc_fed":
      return "d.c. fed into the unit: charge unknown from here";
    case "insulation_test":
      return "insulation tested: charge unknown from here";
    case "drain_removed":
      return `${store}: drain taken off`;
    case "drain_started":
      return `${store}: ${event.drainItem?.name ?? `drain of ${formatQuantity(event.resistanceOhms ?? 0, "Ω").text}`} connected`;
    case "voltage_measured":
      return [
        `${store}: ${formatQuantity(event.volts ?? 0, "V").text}`,
        ...(event.lineSide ? [lineSideLabels[event.lineSide]] : []),
        ...(event.isDrainOn ? ["drain on"] : []),
        ...(event.isSimulated ? ["simulated"] : []),
        `meter ${event.isMeterProved ? "proved" : "not proved"}`,
      ].join(", ");
  }
}
