import { Button } from "@mantine/core";
import { IconBackspace } from "@tabler/icons-react";
import { useEffect, useState } from "react";
import { useTakeOverMutation } from "../../job/sessionApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import classes from "./signIn.module.css";

const most = 8;

/** Who takes over, then their PIN: by keys, or with one finger on the screen. */
export function PinPad(props: {
  readonly takers: readonly { readonly accountId: string; readonly name: string }[];
  readonly onDone?: () => void;
}) {
  const [accountId, setAccount] = useState<string | null>(
    props.takers.length === 1 ? (props.takers[0]?.accountId ?? null) : null,
  );
  const [pin, setPin] = useState("");
  const [takeOver, { error, isLoading, reset }] = useTakeOverMutation();
  const chosen = props.takers.find((one) => one.accountId === accountId);
  const send = async () => {
    if (!chosen || pin.length < 4) return;
    const { data } = await takeOver({ accountId: chosen.accountId, pin });
    setPin("");
    if (data) props.onDone?.();
  };
  useEffect(() => {
    const typed = (event: KeyboardEvent) => {
      if (!chosen || event.ctrlKey || event.altKey || event.metaKey) return;
      if (/^\d$/.test(event.key)) setPin((before) => (before + event.key).slice(0, most));
      else if (event.key === "Backspace") setPin((before) => before.slice(0, -1));
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
    document.addEventListener("keydown", typed, true);
    return () => document.removeEventListener("keydown", typed, true);
  }, [chosen]);
  if (props.takers.length === 0) {
    return <p>Nobody has a PIN yet. Each sets their own under People, once they signed in with their password.</p>;
  }
  return (
    <form
      className={classes.pad}
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <div className={classes.takers} role="radiogroup" aria-label="Who takes over">
        {props.takers.map((one) => (
          <button
            key={one.accountId}
            type="button"
            role="radio"
            aria-checked={one.accountId === accountId}
            className={classes.taker}
            onClick={() => {
              setAccount(one.accountId);
              setPin("");
              reset();
            }}
          >
            {one.name}
          </button>
        ))}
      </div>
      {chosen && (
        <>
          <p className={classes.dots} role="status" aria-label={`${pin.length} digits of the PIN of ${chosen.name}`}>
            {"●".repeat(pin.length) || "PIN"}
          </p>
          <div className={classes.digits}>
            {["1", "2", "3", "4", "5", "6", "7", "8", "9"].map((digit) => (
              <Digit key={digit} digit={digit} onPress={() => setPin((before) => (before + digit).slice(0, most))} />
            ))}
            <button
              type="button"
              className={classes.digit}
              aria-label="Take back a digit"
              onClick={() => setPin((before) => before.slice(0, -1))}
            >
              <IconBackspace size={26} />
            </button>
            <Digit digit="0" onPress={() => setPin((before) => `${before}0`.slice(0, most))} />
            <Button type="submit" className={classes.go} loading={isLoading} disabled={pin.length < 4}>
              Take over
            </Button>
          </div>
          <ProblemNote problem={asProblem(error)} />
        </>
      )}
    </form>
  );
}

function Digit({ digit, onPress }: { readonly digit: string; readonly onPress: () => void }) {
  return (
    <button type="button" className={classes.digit} onClick={onPress}>
      {digit}
    </button>
  );
}
