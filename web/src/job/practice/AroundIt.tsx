import { NativeSelect } from "@mantine/core";
import { type HandAct, type HandsState, handChecks } from "@pale-cap/contract";
import { handCheckLabels } from "@pale-cap/wording";
import { useState } from "react";
import { useJob } from "../JobContext";
import classes from "./hands.module.css";

/** What can be tried around the supply, the clip of a scope, and the device itself. */
export function AroundIt(props: {
  readonly state: HandsState;
  readonly act: (wanted: HandAct) => void;
  readonly isActing: boolean;
}) {
  const { state, act, isActing } = props;
  const { nets } = useJob().detail;
  const [net, setNet] = useState(nets[0]?.name ?? "");
  return (
    <fieldset className={classes.part}>
      <legend>Around it</legend>
      <div className={classes.acts}>
        {handChecks.map((check) => (
          <button
            key={check}
            type="button"
            className={classes.act}
            disabled={isActing}
            onClick={() => act({ kind: "check", check })}
          >
            Try {handCheckLabels[check]}
          </button>
        ))}
      </div>
      <div className={classes.row}>
        <NativeSelect
          aria-label="Net for the earthed clip"
          size="xs"
          data={nets.map((one) => one.name)}
          value={net}
          onChange={(event) => setNet(event.currentTarget.value)}
        />
        <button
          type="button"
          className={classes.act}
          data-on={state.isClipped !== null || undefined}
          disabled={isActing}
          onClick={() => act({ kind: "clip", at: state.isClipped === null ? net : null })}
        >
          {state.isClipped === null ? "Clip the scope's earth to its ground" : `Clip off ${state.isClipped}`}
        </button>
      </div>
      <div className={classes.acts}>
        <button
          type="button"
          className={classes.act}
          data-on={state.isHostOn || undefined}
          disabled={isActing}
          onClick={() => act({ kind: "host", isOn: !state.isHostOn })}
        >
          {state.isHostOn ? "Take the device off" : "Connect the device"}
        </button>
      </div>
    </fieldset>
  );
}
