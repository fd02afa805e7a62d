import { Button, NativeSelect, TextInput } from "@mantine/core";
import { type Account, type AccountRole, accountRoles, type MadeLink } from "@pale-cap/contract";
import { momentText, roleLabels, roleNotes } from "@pale-cap/wording";
import { useState } from "react";
import { newId } from "../../api/newId";
import { usePeopleQuery } from "../../job/peopleApi";
import {
  useAccountsQuery,
  useAddAccountMutation,
  useEditAccountMutation,
  useLinkForMutation,
  useSignOutOfMutation,
} from "../../job/sessionApi";
import { asProblem, ProblemNote } from "../../ui/ProblemNote";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import classes from "./people.module.css";

const roleChoices = accountRoles.map((role) => ({ value: role, label: roleLabels[role] }));

/** Who may come in, and as what. */
export function AccountsTab() {
  const { data: accounts = [], error } = useAccountsQuery();
  const [edited, setEdited] = useState<string | null>(null);
  const [link, setLink] = useState<(MadeLink & { readonly name: string }) | null>(null);
  return (
    <>
      <ProblemNote problem={asProblem(error)} />
      {link && (
        <div role="status" className={classes.link}>
          <b>
            For {link.name}, once, until {momentText(link.expiresAt)}:
          </b>
          <code>{`${window.location.origin}${link.path}`}</code>
          <Button
            size="compact-sm"
            onClick={() => void navigator.clipboard?.writeText(`${window.location.origin}${link.path}`)}
          >
            Copy
          </Button>
          <Button size="compact-sm" variant="subtle" color="gray" onClick={() => setLink(null)}>
            Put away
          </Button>
          <span className={text.soft}>It is shown here alone: give it to them, nobody else.</span>
        </div>
      )}
      <div className={classes.two}>
        <div className={classes.panel}>
          {accounts.length === 0 && !error ? (
            <p>No accounts yet.</p>
          ) : (
            <table className={`${text.table} ${text.ruled}`} aria-label="Accounts">
              <TableHead names={["Name", "Signs in as", "Role", "Comes in by", "Now", ""]} />
              <tbody>
                {accounts.map((one) =>
                  edited === one.id ? (
                    <EditRow key={one.id} account={one} onDone={() => setEdited(null)} />
                  ) : (
                    <AccountRow key={one.id} account={one} onEdit={() => setEdited(one.id)} onLink={setLink} />
                  ),
                )}
              </tbody>
            </table>
          )}
        </div>
        <NewAccountForm onLink={setLink} />
      </div>
    </>
  );
}

interface LinkShown {
  readonly onLink: (link: MadeLink & { readonly name: string }) => void;
}

function AccountRow({
  account,
  onEdit,
  onLink,
}: { readonly account: Account; readonly onEdit: () => void } & LinkShown) {
  const [makeLink, link] = useLinkForMutation();
  const [signOut, out] = useSignOutOfMutation();
  const { id, name, login, role, isActive, hasPassword, hasPin, sessionCount, lockedUntil } = account;
  const ways = [hasPassword && "password", hasPin && "PIN"].filter(Boolean).join(", ");
  return (
    <tr data-shut={!isActive || undefined}>
      <td>
        <b>{name}</b>
        <ProblemNote problem={asProblem(link.error) ?? asProblem(out.error)} />
      </td>
      <td className={text.figure}>{login}</td>
      <td>{isActive ? roleLabels[role] : "shut"}</td>
      <td>{ways || <span className={text.soft}>has set nothing yet</span>}</td>
      <td>
        {lockedUntil && <span className={classes.locked}>locked until {momentText(lockedUntil)}</span>}
        {!lockedUntil && sessionCount > 0 && `at ${sessionCount} ${sessionCount === 1 ? "browser" : "browsers"}`}
      </td>
      <td className={classes.acts}>
        <Button size="compact-sm" variant="default" onClick={onEdit} aria-label={`Change ${name}`}>
          Change
        </Button>
        {isActive && (
          <Button
            size="compact-sm"
            variant="default"
            loading={link.isLoading}
            aria-label={`Link for a new password of ${name}`}
            onClick={async () => {
              const { data } = await makeLink(id);
              if (data) onLink({ ...data, name });
            }}
          >
            Link
          </Button>
        )}
        {sessionCount > 0 && (
          <Button
            size="compact-sm"
            variant="default"
            loading={out.isLoading}
            aria-label={`Sign ${name} out everywhere`}
            onClick={() => void signOut({ id, writeId: newId() })}
          >
            Sign out
          </Button>
        )}
      </td>
    </tr>
  );
}

function EditRow({ account, onDone }: { readonly account: Account; readonly onDone: () => void }) {
  const [values, setValues] = useState({
    ...{ name: account.name, login: account.login, role: account.role, isActive: account.isActive },
  });
  const [edit, { error, isLoading }] = useEditAccountMutation();
  const set = (more: Partial<typeof values>) => setValues((before) => ({ ...before, ...more }));
  async function save(isActive = values.isActive) {
    const body = { ...values, isActive, writeId: newId(), version: account.version };
    const { data } = await edit({ id: account.id, body });
    if (data) onDone();
  }
  return (
    <tr>
      <td colSpan={6}>
        <form
          className={classes.row}
          onSubmit={(event) => {
            event.preventDefault();
            void save();
          }}
        >
          <TextInput label="Name" value={values.name} onChange={(event) => set({ name: event.currentTarget.value })} />
          <TextInput
            label="Signs in as"
            value={values.login}
            onChange={(event) => set({ login: event.currentTarget.value })}
          />
          <NativeSelect
            label="Role"
            data={roleChoices}
            value={values.role}
            onChange={(event) => set({ role: event.currentTarget.value as AccountRole })}
          />
          <Button type="submit" loading={isLoading}>
            Save
          </Button>
          <Button variant="default" onClick={() => void save(!account.isActive)}>
            {account.isActive ? "Shut the account" : "Open it again"}
          </Button>
          <Button variant="subtle" color="gray" onClick={onDone}>
            Leave it
          </Button>
        </form>
        <p className={text.soft}>
          {roleNotes[values.role]} Shutting signs out at once; what they did stays under their name.
        </p>
        <ProblemNote problem={asProblem(error)} />
      </td>
    </tr>
  );
}

function NewAccountForm({ onLink }: LinkShown) {
  const { data: people = [] } = usePeopleQuery();
  const [personId, setPerson] = useState("");
  const [name, setName] = useDraft("new account name", "");
  const [login, setLogin] = useDraft("new account login", "");
  const [role, setRole] = useState<AccountRole>("technician");
  const [add, { error, isLoading }] = useAddAccountMutation();
  const [makeLink] = useLinkForMutation();
  const free = people.filter((one) => one.accountId === null);
  const known = free.find((one) => one.id === personId);
  const isReady = (known || name.trim() !== "") && login.trim() !== "";
  return (
    <form
      className={classes.panel}
      aria-label="A new account"
      onSubmit={async (event) => {
        event.preventDefault();
        if (!isReady) return;
        const id = newId();
        const shown = known?.name ?? name.trim();
        const body = { id, personId: known?.id ?? newId(), name: shown, login: login.trim(), role };
        const made = await add(body);
        if (!made.data) return;
        setName("");
        setLogin("");
        setPerson("");
        const { data } = await makeLink(id);
        if (data) onLink({ ...data, name: shown });
      }}
    >
      <h2>A new account</h2>
      {free.length > 0 && (
        <NativeSelect
          label="Somebody whose name is here already"
          data={[{ value: "", label: "somebody new" }, ...free.map((one) => ({ value: one.id, label: one.name }))]}
          value={personId}
          onChange={(event) => setPerson(event.currentTarget.value)}
        />
      )}
      {!known && (
        <TextInput
          label="Name, as it stands on papers"
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
      )}
      <TextInput
        label="Signs in as"
        maxLength={40}
        value={login}
        onChange={(event) => setLogin(event.currentTarget.value)}
      />
      <NativeSelect
        label="Role"
        data={roleChoices}
        value={role}
        onChange={(event) => setRole(event.currentTarget.value as AccountRole)}
      />
      <p className={text.soft}>{roleNotes[role]}</p>
      <ProblemNote problem={asProblem(error)} />
      <Button type="submit" disabled={!isReady} loading={isLoading}>
        Make the account
      </Button>
      <p className={text.soft}>They set their password by a link that is shown here then.</p>
    </form>
  );
}
