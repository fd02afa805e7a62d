import { Button, PasswordInput, TextInput } from "@mantine/core";
import type { SessionState } from "@pale-cap/contract";
import { useState } from "react";
import { useSignInMutation } from "../../job/sessionApi";
import door from "../../ui/door.module.css";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { BrandMark } from "../frame/BrandMark";
import { useAppSelector } from "../store/hooks";
import classes from "./signIn.module.css";
import { WaitingNote } from "./WaitingNote";

/** Name and password: opens this browser for whoever works here. */
export function SignIn({ state }: { readonly state: SessionState }) {
  const [login, setLogin] = useState("");
  const [password, setPassword] = useState("");
  const benchId = useAppSelector((store) => store.workplace.benchId);
  const [signIn, { error, isLoading }] = useSignInMutation();
  return (
    <main className={door.door}>
      <form
        className={door.card}
        aria-label="Sign in"
        onSubmit={async (event) => {
          event.preventDefault();
          const { data } = await signIn({ login: login.trim(), password, benchId });
          if (!data) setPassword("");
        }}
      >
        <h1 className={classes.brand}>
          <BrandMark /> Pale Cap
        </h1>
        {state.isFirstStart ? (
          <p>
            Nobody has an account here yet. The console of the machine that runs Pale Cap shows a link, once: open it to
            make the account of whoever leads the shop.
          </p>
        ) : (
          <>
            <TextInput
              label="Name you sign in with"
              size="lg"
              autoComplete="username"
              autoFocus
              value={login}
              onChange={(event) => setLogin(event.currentTarget.value)}
            />
            <PasswordInput
              label="Password"
              size="lg"
              autoComplete="current-password"
              value={password}
              onChange={(event) => setPassword(event.currentTarget.value)}
            />
            <ProblemNote problem={asProblem(error)} />
            <Button type="submit" size="lg" loading={isLoading} disabled={login.trim() === "" || password === ""}>
              Sign in
            </Button>
            <p className={text.soft}>Forgotten? Whoever leads the shop makes a link for a new password.</p>
          </>
        )}
        <WaitingNote />
      </form>
    </main>
  );
}
