import { Button, NativeSelect } from "@mantine/core";
import type { Position } from "@pale-cap/contract";
import {
  type BoardDamage,
  boardDamages,
  bridgingWire,
  damageKinds,
  type MendWay,
  mendWays,
  traceWidthMetres,
} from "@pale-cap/core";
import { bridgeWords, damageLabels, damageWords, mendLabels } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { photoThumbnail } from "../../job/photoApi";
import { useLogAct } from "../../job/useLogAct";
import { ProblemNote } from "../../ui/ProblemNote";
import { QuantityInput } from "../../ui/QuantityInput";
import text from "../../ui/text.module.css";
import classes from "./rework.module.css";

/** What the board suffered at a place, how it was bridged, and the continuity that shows it. */
export function DamageAt({ position, amps }: { readonly position: Position; readonly amps: number | null }) {
  const { detail, facts } = useJob();
  const [act, { problem }] = useLogAct();
  const own = boardDamages(facts.acts).filter((one) => one.positionId === position.id);
  // The newest photo of the unit goes with it: it was taken for it, or it is not there.
  const photo = detail.photos.filter((one) => !one.isRemoved).at(-1);
  return (
    <>
      <div className={classes.workLine}>
        <span>Hurt</span>
        {damageKinds.map((word) => (
          <Button
            key={word}
            size="compact-sm"
            onClick={() => void act({ kind: "damage", subjectId: position.id, word })}
          >
            {damageLabels[word]}
          </Button>
        ))}
        {photo && own.length > 0 && own.at(-1)?.photoId === null && (
          <Button
            size="compact-sm"
            onClick={() =>
              void act({ kind: "damage", subjectId: position.id, word: own.at(-1)?.kind ?? "pad", photoId: photo.id })
            }
          >
            With the last photo
          </Button>
        )}
      </div>
      {own.map((one) => (
        <Mending key={one.id} damage={one} amps={amps} designator={position.designator} />
      ))}
      <ProblemNote problem={problem} />
    </>
  );
}

function Mending(props: { readonly damage: BoardDamage; readonly amps: number | null; readonly designator: string }) {
  const { damage, amps, designator } = props;
  const [act, { problem }] = useLogAct();
  const sizeOf = (way: MendWay): number | null => {
    if (amps === null || amps <= 0) return null;
    return way === "wire" ? bridgingWire(amps) : way === "trace_foil" ? traceWidthMetres(amps) : null;
  };
  return (
    <div className={classes.damage} data-state={damage.state}>
      {damage.photoId && <img src={photoThumbnail(damage.photoId)} alt={`Damage at ${designator}`} />}
      <div>
        <div>{damageWords(damage)}</div>
        {damage.state !== "shown" && <div className={text.soft}>{bridgeWords(amps)}</div>}
        <div className={classes.workLine}>
          <NativeSelect
            size="xs"
            aria-label={`${designator}: bridged by`}
            value={damage.way ?? ""}
            data={[
              { value: "", label: "bridged by …" },
              ...mendWays.map((value) => ({ value, label: mendLabels[value] })),
            ]}
            onChange={(event) => {
              const way = mendWays.find((one) => one === event.currentTarget.value);
              if (way) void act({ kind: "mended", subjectId: damage.positionId, word: way, value: sizeOf(way) });
            }}
          />
          {damage.way !== null && (
            <QuantityInput
              label={`${designator}: continuity across it`}
              isCompact
              size="xs"
              unit="Ω"
              limits={[0, 1e6]}
              value={damage.ohms}
              onCommit={(value) =>
                value !== null && void act({ kind: "mend_read", subjectId: damage.positionId, value })
              }
            />
          )}
        </div>
        <ProblemNote problem={problem} />
      </div>
    </div>
  );
}
