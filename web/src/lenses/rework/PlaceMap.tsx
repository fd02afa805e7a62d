import type { Board, Position } from "@pale-cap/contract";
import { stripePath } from "../../drawing/boardGeometry";
import classes from "./paper.module.css";

interface MappedPlace {
  readonly position: Position;
  readonly diameterMetres: number | null;
  readonly value: string;
  readonly negativeDegrees: number | null;
}

/** Value against place, black on paper: only what is worked on. */
export function PlaceMap({ board, places }: { readonly board: Board; readonly places: readonly MappedPlace[] }) {
  const drawn = places.filter((one) => one.position.xMetres !== null && one.position.yMetres !== null);
  const missing = places.filter((one) => !drawn.includes(one));
  const [width, depth] = [board.widthMetres * 1e3, board.depthMetres * 1e3];
  const scale = Math.max(width, depth) / 60;
  return (
    <section>
      {drawn.length > 0 && (
        <svg
          viewBox={`-1 -1 ${width + 2} ${depth + 2}`}
          className={classes.map}
          role="img"
          aria-label="Map of value against place"
        >
          <rect width={width} height={depth} className={classes.mapBoard} />
          {drawn.map(({ position, diameterMetres, value, negativeDegrees }) => {
            const [x, y] = [(position.xMetres ?? 0) * 1e3, (position.yMetres ?? 0) * 1e3];
            const radius = ((diameterMetres ?? position.outlineWidthMetres ?? 8e-3) * 1e3) / 2;
            return (
              <g key={position.id} transform={`translate(${x} ${y})`}>
                <circle r={radius} className={classes.mapPart} />
                {negativeDegrees !== null && (
                  <path d={stripePath(radius, negativeDegrees)} className={classes.mapStripe} />
                )}
                <text y={-radius - 0.6 * scale} fontSize={2.4 * scale} fontWeight={700}>
                  {position.designator}
                </text>
                <text y={radius + 2.2 * scale} fontSize={1.9 * scale}>
                  {value}
                </text>
              </g>
            );
          })}
        </svg>
      )}
      {missing.length > 0 && (
        <p>
          Not on the drawing: {missing.map((one) => `${one.position.designator} (${one.value})`).join(", ")}. Photograph
          them, or take them out one at a time.
        </p>
      )}
    </section>
  );
}
