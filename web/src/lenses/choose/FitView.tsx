import type { Position } from "@pale-cap/contract";
import { type Obstacle, type PlaceFit, placeFits, type Surroundings } from "@pale-cap/core";
import { clearanceWords, fitWords } from "@pale-cap/wording";
import { useJob } from "../../job/JobContext";
import { Part } from "../../ui/Pane";
import text from "../../ui/text.module.css";
import classes from "./choose.module.css";

/** A can at its place, to scale: from above among its neighbours, and from the side under the lid. */
export function FitView(props: {
  readonly position: Position;
  readonly can: { readonly diameterMetres: number; readonly heightMetres: number };
  readonly around: Surroundings;
}) {
  const { position, can, around } = props;
  const { detail, houseRules } = useJob();
  const fits = placeFits(position, can, around);
  if (!fits) return null;
  const shown = fits.upright.fit.fits ? fits.upright : (fits.raised ?? fits.laid ?? fits.upright);
  const nameOf = (id: string) => detail.positions.find((one) => one.id === id)?.designator ?? "what stands there";
  const words = fitWords(fits, nameOf);
  const bodies = fits.neighbours.map((one) => ({ ...one, name: nameOf(one.positionId) }));
  return (
    <Part title="How it fits">
      <div className={classes.fit} role="img" aria-label={words}>
        <Above position={position} can={can} shown={shown} bodies={bodies} />
        <Side position={position} can={can} shown={shown} bodies={bodies} />
      </div>
      <p className={text.softLine}>
        {words} {clearanceWords(houseRules)}
      </p>
    </Part>
  );
}

interface Body {
  readonly positionId: string;
  readonly obstacle: Obstacle;
  readonly name: string;
}
interface ViewProps {
  readonly position: Position;
  readonly can: { readonly diameterMetres: number; readonly heightMetres: number };
  readonly shown: PlaceFit;
  readonly bodies: readonly Body[];
}

/** Millimetres that each view shows around the place. */
const reach = 26;
const mm = (metres: number) => metres * 1e3;

function Above({ position, can, shown, bodies }: ViewProps) {
  const [x0, y0] = [mm(position.xMetres ?? 0) - reach, mm(position.yMetres ?? 0) - reach];
  const { pose } = shown;
  return (
    <svg viewBox={`${x0} ${y0} ${2 * reach} ${2 * reach}`} className={classes.fitView} aria-hidden>
      {bodies.map((one) => (
        <BodyAbove key={one.positionId} body={one} />
      ))}
      {pose.mode === "upright" ? (
        <circle
          className={classes.fitCan}
          data-tight={!shown.fit.fits || undefined}
          cx={mm(position.xMetres ?? 0)}
          cy={mm(position.yMetres ?? 0)}
          r={mm(can.diameterMetres) / 2}
        />
      ) : (
        <rect
          className={classes.fitCan}
          x={mm(pose.bendMetres)}
          y={-mm(can.diameterMetres) / 2}
          width={mm(can.heightMetres)}
          height={mm(can.diameterMetres)}
          transform={`translate(${mm(position.xMetres ?? 0)} ${mm(position.yMetres ?? 0)}) rotate(${pose.thetaDegrees})`}
        />
      )}
      <text x={mm(position.xMetres ?? 0)} y={mm(position.yMetres ?? 0)}>
        {position.designator}
      </text>
    </svg>
  );
}

function BodyAbove({ body: { obstacle, name } }: { readonly body: Body }) {
  const center =
    obstacle.kind === "circle"
      ? ([obstacle.x, obstacle.y] as const)
      : ([(obstacle.x0 + obstacle.x1) / 2, (obstacle.y0 + obstacle.y1) / 2] as const);
  return (
    <g className={classes.fitBody}>
      {obstacle.kind === "circle" ? (
        <circle cx={mm(obstacle.x)} cy={mm(obstacle.y)} r={mm(obstacle.diameter) / 2} />
      ) : (
        <rect
          x={mm(obstacle.x0)}
          y={mm(obstacle.y0)}
          width={mm(obstacle.x1 - obstacle.x0)}
          height={mm(obstacle.y1 - obstacle.y0)}
        />
      )}
      <text x={mm(center[0])} y={mm(center[1])}>
        {name}
      </text>
    </g>
  );
}

/** Seen along the board's depth: what stands within the can's own breadth, the board below, the lid above. */
function Side({ position, can, shown, bodies }: ViewProps) {
  const x0 = mm(position.xMetres ?? 0) - reach;
  const ceiling = shown.fit.ceilingMetres;
  const top = Math.max(mm(ceiling ?? 0), mm(shown.fit.topMetres), 20) + 4;
  const y = mm(position.yMetres ?? 0);
  const { pose } = shown;
  const breadth = mm(can.diameterMetres) / 2 + 6;
  const beside = bodies.filter(({ obstacle }) =>
    obstacle.kind === "circle"
      ? Math.abs(mm(obstacle.y) - y) < breadth + mm(obstacle.diameter) / 2
      : mm(obstacle.y0) < y + breadth && mm(obstacle.y1) > y - breadth,
  );
  const along = pose.mode === "laid" ? Math.cos((pose.thetaDegrees * Math.PI) / 180) : 0;
  const width =
    pose.mode === "upright"
      ? mm(can.diameterMetres)
      : Math.max(mm(can.diameterMetres), mm(can.heightMetres) * Math.abs(along));
  const left =
    pose.mode === "upright"
      ? mm(position.xMetres ?? 0) - width / 2
      : mm(position.xMetres ?? 0) + (along >= 0 ? mm(pose.bendMetres) * along : mm(pose.bendMetres) * along - width);
  const height = pose.mode === "upright" ? mm(can.heightMetres) : mm(can.diameterMetres);
  const bottom = mm(shown.fit.topMetres) - height;
  return (
    <svg viewBox={`${x0} ${-top} ${2 * reach} ${top + 2}`} className={classes.fitView} aria-hidden>
      {beside.map(({ positionId, obstacle, name }) => {
        const [from, to] =
          obstacle.kind === "circle"
            ? [obstacle.x - obstacle.diameter / 2, obstacle.x + obstacle.diameter / 2]
            : [obstacle.x0, obstacle.x1];
        return (
          <g key={positionId} className={classes.fitBody}>
            <rect x={mm(from)} y={-mm(obstacle.z1)} width={mm(to - from)} height={mm(obstacle.z1 - obstacle.z0)} />
            <text x={mm((from + to) / 2)} y={-mm(obstacle.z1) / 2}>
              {name}
            </text>
          </g>
        );
      })}
      <rect
        className={classes.fitCan}
        data-tight={!shown.fit.fits || undefined}
        x={left}
        y={-(bottom + height)}
        width={width}
        height={height}
      />
      <line className={classes.fitBoard} x1={x0} x2={x0 + 2 * reach} y1={0.4} y2={0.4} />
      {ceiling !== null && (
        <line className={classes.fitLid} x1={x0} x2={x0 + 2 * reach} y1={-mm(ceiling)} y2={-mm(ceiling)} />
      )}
    </svg>
  );
}
