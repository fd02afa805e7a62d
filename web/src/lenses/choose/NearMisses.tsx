import { Button } from "@mantine/core";
import { lifeText, refusedWords, rejectionWords } from "@pale-cap/wording";
import { useState } from "react";
import { Part } from "../../ui/Pane";
import { Quantity } from "../../ui/Quantity";
import text from "../../ui/text.module.css";
import { useDraft } from "../../ui/useDraft";
import type { ShownRanking } from "../../workers/useReplacementRanking";
import classes from "./choose.module.css";
import { ReasonForm } from "./ReasonForm";

/** What comes near, nearest first: each says what it lacks and can be taken with a reason that is kept. */
export function NearMisses(props: {
  /** What a typed reason is a draft of, unique in the shop. */
  readonly name: string;
  readonly ranking: Pick<ShownRanking, "nearMisses" | "refusedCounts">;
  /** Resolves to whether it was stored. */
  readonly onTake: (id: string, reason: string) => Promise<boolean>;
}) {
  const { nearMisses, refusedCounts } = props.ranking;
  const [openId, setOpenId] = useState<string>();
  const [reason, setReason, dropReason] = useDraft(props.name, "");
  const refused = refusedWords(refusedCounts);
  if (nearMisses.length === 0 && refused === null) return null;
  return (
    <Part title="Near, but">
      <ul className={classes.misses}>
        {nearMisses.map(({ part, rejections, cappedLifeHours, stockCount }) => (
          <li key={part.id}>
            <span>
              <b>
                {part.maker} {part.series}
              </b>{" "}
              <Quantity value={part.capacitanceFarads} unit="F" isMarking />{" "}
              <Quantity value={part.ratedVolts} unit="V" /> {part.diameterMetres * 1e3} × {part.heightMetres * 1e3} mm,{" "}
              {lifeText(cappedLifeHours)}
              {stockCount > 0 && <b>, {stockCount} in a drawer</b>}
            </span>
            <span className={classes.reason}>{rejections.map(rejectionWords).join("; ")}</span>
            {openId === part.id ? (
              <ReasonForm
                reason={reason}
                onChange={setReason}
                onTake={async (because) => {
                  if (!(await props.onTake(part.id, because))) return;
                  setOpenId(undefined);
                  dropReason(reason);
                }}
              />
            ) : (
              <Button size="compact-sm" onClick={() => setOpenId(part.id)}>
                Take it, because
              </Button>
            )}
          </li>
        ))}
      </ul>
      {refused && <p className={text.softLine}>{refused}</p>}
    </Part>
  );
}
