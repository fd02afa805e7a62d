import { Menu, Modal } from "@mantine/core";
import { roleLabels } from "@pale-cap/wording";
import { useState } from "react";
import { NavLink } from "react-router";
import { usePeopleQuery } from "../../job/peopleApi";
import { useChooseBenchMutation, useLeaveBenchMutation, useSessionQuery } from "../../job/sessionApi";
import { useWho } from "../../job/useMay";
import { personChosen } from "../../job/workplaceSlice";
import { usePageBench } from "../../probe/instruments/usePageBench";
import { PinPad } from "../signIn/PinPad";
import { useLeave } from "../signIn/useLeave";
import { useAppDispatch, useAppSelector } from "../store/hooks";
import classes from "./frame.module.css";

/** Who is at this bench: alone a name that is chosen, in a shop whoever is signed in. */
export function PersonMenu() {
  const isShop = useAppSelector((state) => state.workplace.isShop);
  return isShop ? <SignedInMenu /> : <NameMenu />;
}

function NameMenu() {
  const { data: people = [] } = usePeopleQuery();
  const personId = useAppSelector((state) => state.workplace.personId);
  const dispatch = useAppDispatch();
  const person = people.find((one) => one.id === personId);
  if (people.length === 0) return null;
  return (
    <Menu position="bottom-end" transitionProps={{ duration: 60 }}>
      <Menu.Target>
        <button type="button" className={classes.stripButton} aria-label="Who is at this bench">
          {person?.name ?? "who?"}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {people.map((one) => (
          <Menu.Item key={one.id} onClick={() => dispatch(personChosen(one.id))}>
            {one.name}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}

function SignedInMenu() {
  const who = useWho();
  const { data } = useSessionQuery();
  const { benches } = usePageBench();
  const [isTaking, setTaking] = useState(false);
  const [leaveBench] = useLeaveBenchMutation();
  const [chooseBench] = useChooseBenchMutation();
  const { signOut } = useLeave();
  const bench = benches.find((one) => one.id === who?.benchId);
  if (!who) return null;
  return (
    <>
      <Menu position="bottom-end" transitionProps={{ duration: 60 }}>
        <Menu.Target>
          <button
            type="button"
            className={classes.stripButton}
            aria-label={`${who.name}, ${bench?.name ?? "at no bench"}`}
          >
            {who.name}
            <span className={classes.benchName}>{bench?.name ?? "no bench"}</span>
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Label>
            {roleLabels[who.role]}
            {who.by === "pin" ? ", by PIN" : ""}
          </Menu.Label>
          <Menu.Item onClick={() => setTaking(true)}>Somebody else takes over</Menu.Item>
          <Menu.Item onClick={() => void leaveBench()}>Leave the bench</Menu.Item>
          <Menu.Item component={NavLink} to="/people/me">
            Password and PIN
          </Menu.Item>
          <Menu.Item onClick={() => void signOut()}>Sign out</Menu.Item>
          <Menu.Label>I work at</Menu.Label>
          {benches.map((one) => (
            <Menu.Item
              key={one.id}
              disabled={one.id === who.benchId}
              onClick={() => void chooseBench({ benchId: one.id })}
            >
              {one.name}
              {one.id === who.benchId ? " (here)" : ""}
            </Menu.Item>
          ))}
          {who.benchId !== null && <Menu.Item onClick={() => void chooseBench({ benchId: null })}>no bench</Menu.Item>}
        </Menu.Dropdown>
      </Menu>
      <Modal opened={isTaking} onClose={() => setTaking(false)} title="Who takes over this bench?" centered>
        <PinPad takers={data?.takers ?? []} onDone={() => setTaking(false)} />
      </Modal>
    </>
  );
}
