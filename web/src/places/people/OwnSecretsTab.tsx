import { Button, PasswordInput } from "@mantine/core";
import { fieldFaultWords } from "@pale-cap/wording";
import { useState } from "react";
import { useChangePasswordMutation, useChangePinMutation } from "../../job/sessionApi";
import { useWho } from "../../job/useMay";
import { NewPassword } from "../../ui/NewPassword";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import classes from "./people.module.css";

/** One's own password and PIN. */
export function OwnSecretsTab() {
  const who = useWho();
  if (!who?.accountId) return <p className={text.softLine}>Nobody signs in here.</p>;
  return (
    <div className={classes.equal}>
      <OwnPassword />
      <OwnPin hasPin={who.hasPin} />
    </div>
  );
}

function OwnPassword() {
  const [password, setPassword] = useState("");
  const [newPassword, setNew] = useState("");
  const [change, { error, isLoading, isSuccess }] = useChangePasswordMutation();
  const problem = asProblem(error);
  return (
    <form
      className={classes.panel}
      aria-label="Password"
      onSubmit={async (event) => {
        event.preventDefault();
        const { data } = await change({ password, newPassword });
        setPassword("");
        if (data) setNew("");
      }}
    >
      <h2>Password</h2>
      <PasswordInput
        label="As it is now"
        autoComplete="current-password"
        value={password}
        onChange={(event) => setPassword(event.currentTarget.value)}
      />
      <NewPassword
        label="A new one"
        value={newPassword}
        onChange={(event) => setNew(event.currentTarget.value)}
        error={faultAt(problem, "newPassword")}
        hint="Every other browser is signed out."
      />
      <ProblemNote problem={problem} />
      {isSuccess && <p role="status">The new password holds from now on.</p>}
      <Button type="submit" loading={isLoading} disabled={password === "" || newPassword === ""}>
        Change the password
      </Button>
    </form>
  );
}

function OwnPin({ hasPin }: { readonly hasPin: boolean }) {
  const [password, setPassword] = useState("");
  const [newPin, setPin] = useState("");
  const [change, { data: changed, error, isLoading }] = useChangePinMutation();
  const problem = asProblem(error);
  const send = async (pin: string | null) => {
    const { data } = await change({ password, newPin: pin });
    setPassword("");
    if (data) setPin("");
  };
  return (
    <form
      className={classes.panel}
      aria-label="PIN"
      onSubmit={(event) => {
        event.preventDefault();
        void send(newPin);
      }}
    >
      <h2>PIN</h2>
      <p>
        Takes over a bench that somebody opened by a password. It does not open accounts, another shop, or the erasing
        of a customer.
      </p>
      <PasswordInput
        label="Your password"
        autoComplete="current-password"
        value={password}
        onChange={(event) => setPassword(event.currentTarget.value)}
      />
      <PasswordInput
        label={hasPin ? "A new PIN" : "PIN"}
        inputMode="numeric"
        autoComplete="off"
        value={newPin}
        onChange={(event) => setPin(event.currentTarget.value)}
        error={faultAt(problem, "newPin")}
      />
      <p className={text.soft}>
        4 to 8 digits, no row of them. After three wrong tries it is locked, longer each time.
      </p>
      <ProblemNote problem={problem} />
      {changed && (
        <p role="status">{changed.who?.hasPin ? "The PIN holds from now on." : "There is no PIN any more."}</p>
      )}
      <div className={classes.row}>
        <Button type="submit" loading={isLoading} disabled={password === "" || newPin === ""}>
          Set the PIN
        </Button>
        {hasPin && (
          <Button variant="default" disabled={password === ""} onClick={() => void send(null)}>
            Take it away
          </Button>
        )}
      </div>
    </form>
  );
}

const faultAt = (problem: ReturnType<typeof asProblem>, path: string) => {
  const fault = problem?.errors.find((one) => one.path === path);
  return fault && fieldFaultWords(fault);
};
