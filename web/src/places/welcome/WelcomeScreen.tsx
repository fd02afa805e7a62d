import { Button, TextInput } from "@mantine/core";
import { fieldFaultWords } from "@pale-cap/wording";
import { useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { useLookAtLinkQuery, useUseLinkMutation } from "../../job/sessionApi";
import classes from "../../ui/door.module.css";
import { NewPassword } from "../../ui/NewPassword";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";

/** What a one-time link opens: a password is set, and for the first lead the account is made. */
export function WelcomeScreen() {
  const token = useLocation().hash.slice(1);
  const { data: link, error } = useLookAtLinkQuery(token, { skip: token === "" });
  const [use, used] = useUseLinkMutation();
  const [name, setName] = useState("");
  const [login, setLogin] = useState("");
  const [newPassword, setPassword] = useState("");
  const navigate = useNavigate();
  const problem = asProblem(used.error) ?? asProblem(error);
  const isFirst = link?.purpose === "first_lead";
  const faultAt = (path: string) => {
    const fault = problem?.errors.find((one) => one.path === path);
    return fault && fieldFaultWords(fault);
  };
  return (
    <main className={classes.door}>
      <form
        className={classes.card}
        aria-label="Welcome"
        onSubmit={async (event) => {
          event.preventDefault();
          const own = isFirst ? { name: name.trim(), login: login.trim() } : { name: null, login: null };
          const { data } = await use({ token, ...own, newPassword });
          // The link stays in no history.
          if (data) navigate("/", { replace: true });
        }}
      >
        <h1>{isFirst ? "You lead this shop" : `Welcome${link?.name ? `, ${link.name}` : ""}`}</h1>
        {token === "" && <p>This address opens nothing without what follows it in the link.</p>}
        {link && (
          <>
            {isFirst ? (
              <>
                <p>This makes the first account. It may do everything, and makes the accounts of the others.</p>
                <TextInput
                  label="Your name, as it stands on papers"
                  value={name}
                  onChange={(event) => setName(event.currentTarget.value)}
                  error={faultAt("name")}
                />
                <TextInput
                  label="Name you sign in with"
                  autoComplete="username"
                  value={login}
                  onChange={(event) => setLogin(event.currentTarget.value)}
                  error={faultAt("login")}
                />
              </>
            ) : (
              <p>
                You sign in as <b>{link.login}</b>. Set a password; the link is used up with it.
              </p>
            )}
            <NewPassword
              label="Password"
              value={newPassword}
              onChange={(event) => setPassword(event.currentTarget.value)}
              error={faultAt("newPassword")}
            />
            <Button type="submit" size="md" loading={used.isLoading} disabled={newPassword === ""}>
              {isFirst ? "Make the account" : "Set it and come in"}
            </Button>
          </>
        )}
        <ProblemNote problem={problem} />
      </form>
    </main>
  );
}
