import { Button } from "@mantine/core";
import type { SessionState } from "@pale-cap/contract";
import door from "../../ui/door.module.css";
import { BrandMark } from "../frame/BrandMark";
import { PinPad } from "./PinPad";
import classes from "./signIn.module.css";
import { useLeave } from "./useLeave";
import { WaitingNote } from "./WaitingNote";

/** Somebody left the bench: whoever comes next takes it over by their PIN. */
export function BenchLock({ takers }: { readonly takers: SessionState["takers"] }) {
  const { signOut, isLoading } = useLeave();
  return (
    <main className={door.door}>
      <section className={door.card} aria-label="Take over this bench">
        <h1 className={classes.brand}>
          <BrandMark /> Nobody is at this bench
        </h1>
        <PinPad takers={takers} />
        <WaitingNote />
        <Button variant="subtle" color="gray" loading={isLoading} onClick={() => void signOut()}>
          Sign in with a password instead
        </Button>
      </section>
    </main>
  );
}
