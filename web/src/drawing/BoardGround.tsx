import type { Board } from "@pale-cap/contract";
import { formatQuantity, photoPlacement } from "@pale-cap/core";
import classes from "./drawing.module.css";
import type { SectionZone } from "./sectionZones";

/** A photo that lies beneath the drawing. */
export interface BoardPhoto {
  readonly address: string;
  readonly widthPixels: number;
  readonly heightPixels: number;
}

/** The board itself: a rectangle or its own outline, with the photo beneath the parts. */
export function Ground(props: {
  readonly board: Board;
  readonly photo: BoardPhoto | undefined;
  readonly scale: number;
}) {
  const { board, scale, photo } = props;
  const { underlay, outline } = board;
  const placed = underlay && photo ? photoPlacement(underlay) : null;
  const shape = outline ? (
    <polygon points={outline.map(([x, y]) => `${x * scale},${y * scale}`).join(" ")} />
  ) : (
    <rect width={board.widthMetres * scale} height={board.depthMetres * scale} rx="6" />
  );
  return (
    <>
      <clipPath id="board-outline">{shape}</clipPath>
      <g className={classes.board}>{shape}</g>
      {placed && photo && (
        <g clipPath="url(#board-outline)">
          <image
            href={photo.address}
            width={photo.widthPixels}
            height={photo.heightPixels}
            opacity="0.55"
            transform={`scale(${scale}) matrix(${placed.a} ${placed.b} ${-placed.b} ${placed.a} ${placed.e} ${placed.f})`}
          />
        </g>
      )}
    </>
  );
}

/** Sections as faint zones behind their parts, kept on the board; a pointer or a screen reader learns the name. */
export function Sections(props: {
  readonly zones: readonly SectionZone[];
  readonly scale: number;
  readonly board: Board;
}) {
  const { scale, board } = props;
  return props.zones.map((zone) => {
    const left = Math.max(zone.left, 0.001) * scale;
    const top = Math.max(zone.top, 0.001) * scale;
    const right = Math.min(zone.right, board.widthMetres - 0.001) * scale;
    const bottom = Math.min(zone.bottom, board.depthMetres - 0.001) * scale;
    return (
      <g key={zone.section} className={classes.section}>
        <title>{zone.label}</title>
        <rect x={left} y={top} width={Math.max(right - left, 0)} height={Math.max(bottom - top, 0)} rx="10" />
      </g>
    );
  });
}

/** Where the lid stands lower or higher than over the rest. */
export function Lid({ board, scale }: { readonly board: Board; readonly scale: number }) {
  return board.lidZones.map((zone) => (
    <g key={`${zone.xMetres} ${zone.yMetres} ${zone.heightMetres}`} className={classes.lid}>
      <rect
        x={zone.xMetres * scale}
        y={zone.yMetres * scale}
        width={zone.widthMetres * scale}
        height={zone.depthMetres * scale}
      />
      <text x={(zone.xMetres + zone.widthMetres) * scale - 6} y={(zone.yMetres + zone.depthMetres) * scale - 6}>
        lid {formatQuantity(zone.heightMetres, "mm").text}
      </text>
    </g>
  ));
}

export function Zones({
  width,
  depth,
  barrier,
  isOverPhoto,
}: {
  readonly width: number;
  readonly depth: number;
  readonly barrier: number;
  readonly isOverPhoto: boolean;
}) {
  return (
    <g>
      <path
        className={isOverPhoto ? classes.mainsTint : classes.mainsZone}
        d={`M6 0H${barrier}V${depth}H6a6 6 0 0 1-6-6V6a6 6 0 0 1 6-6z`}
      />
      <path className={classes.barrier} d={`M${barrier - 2} 4V${depth - 4}M${barrier + 2} 4V${depth - 4}`} />
      <text className={classes.zoneName} x="10" y="17">
        MAINS SIDE
      </text>
      {width - barrier > 110 && (
        <text className={classes.zoneName} x={width - 10} y="17" textAnchor="end">
          OUTPUT SIDE
        </text>
      )}
    </g>
  );
}
