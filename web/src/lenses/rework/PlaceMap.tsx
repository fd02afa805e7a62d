import type { Board, Position } from "@pale-cap/contract";
import { stripePath } from "../../drawing/boardGeometry";
import classes from "./paper.module.css";

interface MappedPlace {
  readonly position: Position;
  readonly diameterMetres: number | null;
  /** One below the other. */
  readonly lines: readonly string[];
  readonly negativeDegrees: number | null;
}

/** Value against place, black on paper: only what is worked on. */
export function PlaceMap(props: {
  readonly board: Board;
  readonly places: readonly MappedPlace[];
  /** What stays, by name alone, to find one's way. */
  readonly others: readonly Position[];
}) {
  const { board, places, others } = props;
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
          {others.map((one) => (
            <text
              key={one.id}
              x={(one.xMetres ?? 0) * 1e3}
              y={(one.yMetres ?? 0) * 1e3}
              className={classes.mapOther}
              fontSize={1.2 * scale}
            >
              {one.designator}
            </text>
          ))}
          {drawn.map(({ position, diameterMetres, lines, negativeDegrees }) => {
            const [x, y] = [(position.xMetres ?? 0) * 1e3, (position.yMetres ?? 0) * 1e3];
            const radius = ((diameterMetres ?? position.outlineWidthMetres ?? 8e-3) * 1e3) / 2;
            return (
              <g key={position.id} transform={`translate(${x} ${y})`}>
                <circle r={radius} className={classes.mapPart} />
                {negativeDegrees !== null && (
                  <path d={stripePath(radius, negativeDegrees)} className={classes.mapStripe} />
                )}
                <text y={-radius - 0.5 * scale} fontSize={1.7 * scale} fontWeight={700}>
                  {position.designator}
                </text>
                {lines.map((line, n) => (
                  <text key={line} y={radius + (1.5 + 1.4 * n) * scale} fontSize={1.3 * scale}>
                    {line}
                  </text>
                ))}
              </g>
            );
          })}
        </svg>
      )}
      {missing.length > 0 && (
        <p>
          Not on the drawing: {missing.map((one) => `${one.position.designator} (${one.lines.join(" ")})`).join(", ")}.
          Photograph them, or take them out one at a time.
        </p>
      )}
    </section>
  );
}
