import type { Board } from "@pale-cap/contract";
import classes from "./inspect.module.css";
import type { PlacedDesignator } from "./positionsCsv";

/** Where a list would put its parts: on the outline, as it will be drawn; those that are known full, those of the lower side as rings. */
export function PlacementPreview(props: {
  readonly board: Pick<Board, "widthMetres" | "depthMetres" | "outline">;
  readonly rows: readonly PlacedDesignator[];
  readonly isKnown: (row: PlacedDesignator) => boolean;
}) {
  const { board, rows, isKnown } = props;
  const { widthMetres: width, depthMetres: depth, outline } = board;
  const xs = [0, width, ...rows.map((one) => one.xMetres)];
  const ys = [0, depth, ...rows.map((one) => one.yMetres)];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const [right, bottom] = [Math.max(...xs), Math.max(...ys)];
  const unit = Math.max(right - left, bottom - top) / 100;
  const corners = outline ?? [
    [0, 0],
    [width, 0],
    [width, depth],
    [0, depth],
  ];
  return (
    <svg
      className={classes.placement}
      viewBox={`${left - 2 * unit} ${top - 2 * unit} ${right - left + 4 * unit} ${bottom - top + 4 * unit}`}
      role="img"
      aria-label={`Where ${rows.length} parts would lie`}
    >
      <polygon
        points={corners.map((one) => one.join(",")).join(" ")}
        fill="var(--panel)"
        stroke="var(--ink)"
        strokeWidth={unit * 0.5}
      />
      {rows.map((one) => (
        <g key={one.designator}>
          <circle
            cx={one.xMetres}
            cy={one.yMetres}
            r={unit}
            fill={one.side === "bottom" ? "none" : isKnown(one) ? "var(--accent)" : "var(--unknown)"}
            stroke={isKnown(one) ? "var(--accent)" : "var(--unknown)"}
            strokeWidth={unit * 0.4}
          />
          {rows.length <= 40 && (
            <text x={one.xMetres + unit * 1.4} y={one.yMetres + unit} fontSize={unit * 3.2} fill="var(--ink)">
              {one.designator}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
