import { Drawer } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import type { BenchEvent, HandAct, PracticeActRow, PracticeState } from "@pale-cap/contract";
import { consequenceTitles, consequenceWords, handActLabels, handCheckLabels, toldWords } from "@pale-cap/wording";
import { Link } from "react-router";
import { ProblemNote } from "../../ui/ProblemNote";
import text from "../../ui/text.module.css";
import { useKeys } from "../../ui/useKeys";
import { useJob } from "../JobContext";
import { AroundIt } from "./AroundIt";
import { AtPart } from "./AtPart";
import classes from "./hands.module.css";
import { PowerAndDrain } from "./PowerAndDrain";
import { Teacher } from "./Teacher";
import { useHands, usePractice } from "./usePractice";

/** On a practice job: the way to the hands, and what they do. */
export function HandsPanel() {
  const practice = usePractice();
  const [isOpen, panel] = useDisclosure(false);
  const { id } = useJob().detail.job;
  useKeys(
    "Practice",
    practice && !practice.result ? [{ key: "alt+h", label: "hands: what they do", action: panel.toggle }] : [],
  );
  if (!practice) return null;
  if (practice.result) {
    return (
      <Link className={classes.tab} to={`/practice/${id}`}>
        Debrief
      </Link>
    );
  }
  return (
    <>
      <button type="button" className={classes.tab} onClick={panel.toggle} aria-expanded={isOpen}>
        Hands <kbd>Alt h</kbd>
      </button>
      <Drawer
        opened={isOpen}
        onClose={panel.close}
        position="right"
        size={392}
        title="Hands"
        withOverlay={false}
        trapFocus={false}
        lockScroll={false}
        closeOnClickOutside={false}
        transitionProps={{ duration: 0 }}
        // The strip above and the probe bar at the foot stay free.
        classNames={{
          inner: classes.drawerInner ?? "",
          content: classes.drawer ?? "",
          header: classes.drawerHead ?? "",
          body: classes.drawerBody ?? "",
        }}
        closeButtonProps={{ "aria-label": "Hands off" }}
      >
        <Hands />
      </Drawer>
    </>
  );
}

function Hands() {
  const hands = useHands();
  const { practice } = hands;
  if (!practice) return <ProblemNote problem={hands.problem} />;
  const act = (wanted: HandAct) => void hands.act(wanted);
  const { state } = practice;
  return (
    <div className={classes.hands}>
      <ToldNow practice={practice} />
      <ProblemNote problem={hands.problem} />
      {state === null && (
        <p className={text.soft}>The simulated bench does not answer now. What was done is kept; it is tried again.</p>
      )}
      {state && (
        <>
          {state.isMeterDead && (
            <button type="button" className={classes.loud} onClick={() => act({ kind: "new_meter" })}>
              Take a new meter (15 min)
            </button>
          )}
          <AtPart state={state} act={act} isActing={hands.isActing} />
          <PowerAndDrain state={state} act={act} isActing={hands.isActing} />
          <AroundIt state={state} act={act} isActing={hands.isActing} />
        </>
      )}
      <Teacher practice={practice} takeHint={hands.takeHint} />
      <Link className={classes.last} to={`/practice/${practice.jobId}`}>
        My last word: what is bad, and the debrief
      </Link>
    </div>
  );
}

/** What was told last, and what came of it: the newest first, said to ears as it comes. */
function ToldNow({ practice }: { readonly practice: PracticeState }) {
  const [last, ...before] = [...practice.acts].filter((one) => one.told.length > 0).reverse();
  const events = [...practice.events].reverse().slice(0, 2);
  const minutes = practice.acts.reduce((sum, one) => sum + one.minutes, 0);
  return (
    <section className={classes.told} aria-label="What came of it">
      <div aria-live="assertive">
        {events.map((one) => (
          <Happened key={one.sequence} event={one} />
        ))}
      </div>
      <div aria-live="polite">
        {last ? (
          last.told.map((told) => <p key={`${last.id} ${toldWords(told)}`}>{toldWords(told)}</p>)
        ) : (
          <p>{practice.story}</p>
        )}
      </div>
      {before.slice(0, 1).map((one) => (
        <p key={one.id} className={text.soft}>
          Before: {whatWords(one)}
        </p>
      ))}
      <p className={text.soft}>
        Hands so far: <span className={text.figure}>{minutes.toFixed(1)}</span> min
      </p>
    </section>
  );
}

export function Happened({ event }: { readonly event: BenchEvent }) {
  return (
    <div className={classes.happened}>
      <strong>{consequenceTitles[event.code]}.</strong> {consequenceWords(event)}
    </div>
  );
}

/** One act in a few words. */
export function whatWords({ act, hintLevel }: PracticeActRow): string {
  if (!act) return `hint ${hintLevel}`;
  const label = handActLabels[act.kind].toLowerCase();
  if (act.kind === "check" && act.check) return `tried ${handCheckLabels[act.check]}`;
  if (act.kind === "mains")
    return act.isOn ? `mains on${act.lampWatts ? ` through ${act.lampWatts} W` : ""}` : "mains off";
  return act.at ? `${label}, ${act.at}` : label;
}
