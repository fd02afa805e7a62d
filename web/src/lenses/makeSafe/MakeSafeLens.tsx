import { storeOfPosition, unnamedHolders } from "@pale-cap/core";
import { cautions, chargeWords } from "@pale-cap/wording";
import { useCallback } from "react";
import { useJob } from "../../job/JobContext";
import { BoardPanel } from "../../job/panels/BoardPanel";
import { LensLayout } from "../../job/panels/LensLayout";
import { FirstPower } from "../../job/panels/power/FirstPower";
import { useInstrumentStream } from "../../probe/instruments/useInstrumentStream";
import { Caution } from "../../ui/Caution";
import { Pane } from "../../ui/Pane";
import { ChargeLog } from "./ChargeLog";
import { StoreCard } from "./StoreCard";
import { StoreForm } from "./StoreForm";

/** What is charged, with what it is drained, and what was measured. */
export function MakeSafeLens() {
  useInstrumentStream();
  const { detail, charge, chargeStates, facts, nowMilliseconds } = useJob();
  const look = useCallback(
    (id: string) => {
      const isStore = storeOfPosition(detail, id) !== undefined;
      const isUnnamed = unnamedHolders(detail).some((one) => one.id === id);
      const note = isStore ? "energy store" : isUnnamed ? "holds charge, not named" : undefined;
      return { isFaded: note === undefined, note };
    },
    [detail],
  );
  return (
    <LensLayout
      paneWidth="wide"
      board={<BoardPanel look={look} />}
      pane={
        <Pane
          title="Make safe"
          note={chargeWords(charge, facts.energyStores, nowMilliseconds)}
          second={
            <>
              <FirstPower />
              <ChargeLog />
            </>
          }
        >
          <Caution>
            {cautions.storedCharge} {cautions.shortWithTool}
          </Caution>
          {detail.energyStores.map((store) => {
            const state = chargeStates.find((one) => one.storeId === store.id);
            return state && <StoreCard key={store.id} store={store} state={state} />;
          })}
          <StoreForm />
        </Pane>
      }
    />
  );
}
