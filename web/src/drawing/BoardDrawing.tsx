import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { useElementSize } from "@mantine/hooks";
import type { Board, FittedPartRow, Net, Position } from "@pale-cap/contract";
import { formatMarkedCapacitance, formatQuantity, type VerdictWord } from "@pale-cap/core";
import { netWords, verdictLabels } from "@pale-cap/wording";
import { Fragment, type KeyboardEvent, memo, type ReactNode, useMemo, useRef } from "react";
import { type ReactZoomPanPinchContentRef, TransformComponent, TransformWrapper } from "react-zoom-pan-pinch";
import { type BoardPhoto, Ground, Lid, Sections, Zones } from "./BoardGround";
import { type DrawnPart, layOut, stripePath } from "./boardGeometry";
import classes from "./drawing.module.css";
import { labelSpots, outlineNameScale } from "./labelSpots";
import { Movable, movableClass } from "./Movable";
import { sectionZones } from "./sectionZones";
import { VerdictShape } from "./VerdictGlyph";

/** How a lens colours one part. */
export interface PartLook {
  readonly verdict?: VerdictWord;
  /** A short word under the designator instead of the value. */
  readonly note?: string;
  readonly isFaded?: boolean;
  /** Something bad was seen on it: a notch at its edge, and said to screen readers. */
  readonly seen?: string;
  /** Drawn as an empty place: the part was taken out. */
  readonly isEmpty?: boolean;
}

/** What a lens that arranges the board does with its parts. */
export interface BoardArranging {
  readonly markedIds: ReadonlySet<string>;
  /** Shift and click: one more of the marked. */
  readonly onMark: (positionId: string) => void;
  /** `fromMetres` is where it was drawn: parts without a place stand in the tray. */
  readonly onMove: (
    positionId: string,
    byMetres: readonly [number, number],
    fromMetres: readonly [number, number],
  ) => void;
  /** Turns a part's stripe by a quarter. */
  readonly onTurn: (positionId: string) => void;
}

interface BoardDrawingProps {
  readonly board: Board;
  readonly nets: readonly Net[];
  readonly positions: readonly Position[];
  readonly fittedParts: readonly FittedPartRow[];
  readonly look: (positionId: string) => PartLook;
  readonly selectedId: string | undefined;
  /** Other parts of the selected part's bank: ringed faintly. */
  readonly bankIds: readonly string[];
  readonly onSelect: (positionId: string) => void;
  readonly arranging?: BoardArranging;
  /** The photo that lies beneath, where it is aligned and wanted. */
  readonly photo?: BoardPhoto;
}

/** One press of an arrow key, and with Shift. */
const nudgeMetres = 1e-3;
const fineNudgeMetres = 1e-4;
const arrows: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** The library would read out ids; the parts' own labels say where they are. */
const silent = { onDragStart: say, onDragOver: say, onDragEnd: say, onDragCancel: say };
function say(): undefined {
  return undefined;
}

const radiusOf = (diameterMetres: number, scale: number) => Math.max((diameterMetres * scale) / 2, 6);

const markingOf = (part: FittedPartRow | undefined) =>
  part?.capacitanceFarads != null ? formatMarkedCapacitance(part.capacitanceFarads) : "value unknown";

const outlineBox = (one: Position, scale: number) => {
  const width = (one.outlineWidthMetres ?? 0.01) * scale;
  const height = (one.outlineDepthMetres ?? 0.01) * scale;
  return { left: (one.xMetres ?? 0) * scale - width / 2, top: (one.yMetres ?? 0) * scale - height / 2, width, height };
};

const margin = 14;
/** Below this many pixels per metre neighbours' second lines would run into each other. */
const roomForValues = 3600;

/** The board to scale from above: cans with their stripe, other parts as outlines, zones from mains to output side. */
export function BoardDrawing(props: BoardDrawingProps) {
  const { ref, width, height } = useElementSize();
  const { board } = props;
  const layout = useMemo(
    () => layOut(board, props.positions, props.fittedParts),
    [board, props.positions, props.fittedParts],
  );
  const zones = useMemo(() => sectionZones(props.nets, props.positions), [props.nets, props.positions]);
  const scale = Math.max(
    Math.min((width - 2 * margin) / board.widthMetres, (height - 2 * margin) / layout.heightMetres),
    100,
  );
  const boardWidth = board.widthMetres * scale;
  const boardDepth = board.depthMetres * scale;
  const spots = useMemo(
    () =>
      labelSpots(
        layout.cans.map(({ position, part, ...can }) => ({
          id: position.id,
          x: can.xMetres * scale,
          y: can.yMetres * scale,
          radius: radiusOf(can.diameterMetres, scale),
          name: position.designator,
          value: props.look(position.id).note ?? markingOf(part),
        })),
        layout.outlines.map((one) => outlineBox(one, scale)),
      ),
    [layout, scale, props.look],
  );
  const barrier = board.barrierMetres === null ? null : board.barrierMetres * scale;
  const left = Math.max(margin, (width - boardWidth) / 2);
  const top = Math.max(margin, (height - layout.heightMetres * scale) * 0.3);
  const { arranging } = props;
  const zoomed = useRef<ReactZoomPanPinchContentRef>(null);
  const zoom = () => zoomed.current?.state.scale ?? 1;
  // A click is not a drag: a hand that shakes moves nothing.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  function move(id: string, by: readonly [number, number]) {
    const can = layout.cans.find((one) => one.position.id === id);
    const outline = layout.outlines.find((one) => one.id === id);
    arranging?.onMove(id, by, [can?.xMetres ?? outline?.xMetres ?? 0, can?.yMetres ?? outline?.yMetres ?? 0]);
  }
  const onDragEnd = ({ active, delta }: DragEndEvent) =>
    move(String(active.id), [delta.x / zoom() / scale, delta.y / zoom() / scale]);
  const held = (id: string, drawn: ReactNode) =>
    arranging ? (
      <Movable key={id} id={id} zoom={zoom()}>
        {drawn}
      </Movable>
    ) : (
      <Fragment key={id}>{drawn}</Fragment>
    );
  function onKey(event: KeyboardEvent, id: string) {
    const arrow = arrows[event.key];
    if (!arranging || event.altKey || event.ctrlKey || event.metaKey) return;
    const step = event.shiftKey ? fineNudgeMetres : nudgeMetres;
    if (arrow) move(id, [arrow[0] * step, arrow[1] * step]);
    else if (event.key === "r") arranging.onTurn(id);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
  return (
    <div ref={ref} className={classes.stage}>
      {width > 0 && (
        <DndContext
          sensors={sensors}
          onDragEnd={onDragEnd}
          accessibility={{ restoreFocus: false, announcements: silent }}
        >
          <TransformWrapper
            ref={zoomed}
            minScale={1}
            maxScale={6}
            doubleClick={{ disabled: true }}
            wheel={{ step: 0.1 }}
            panning={{ excluded: [movableClass] }}
          >
            <TransformComponent wrapperClass={classes.viewport}>
              <svg width={width} height={height} role="group" aria-label={`Board ${board.name ?? ""}, from above`}>
                <g transform={`translate(${left} ${top})`}>
                  <Ground board={board} scale={scale} photo={props.photo} />
                  {barrier !== null && (
                    <g clipPath={board.outline ? "url(#board-outline)" : undefined}>
                      <Zones
                        width={boardWidth}
                        depth={boardDepth}
                        barrier={barrier}
                        isOverPhoto={props.photo !== undefined}
                      />
                    </g>
                  )}
                  <Sections zones={zones} scale={scale} board={board} />
                  <Lid board={board} scale={scale} />
                  {layout.outlines.map((one) =>
                    held(
                      one.id,
                      <Outline
                        position={one}
                        scale={scale}
                        verdict={props.look(one.id).verdict}
                        isFaded={props.look(one.id).isFaded}
                        isSelected={one.id === props.selectedId}
                        onSelect={props.onSelect}
                        onKey={arranging ? onKey : undefined}
                      />,
                    ),
                  )}
                  {layout.cans.map((can) => {
                    const { id, netId } = can.position;
                    const spot = spots.get(id);
                    return held(
                      id,
                      <Can
                        can={can}
                        scale={scale}
                        labelX={spot?.x ?? 0}
                        labelY={spot?.y ?? 0}
                        hasValue={spot?.hasValue ?? false}
                        {...props.look(id)}
                        isSelected={id === props.selectedId}
                        isMarked={arranging?.markedIds.has(id) ?? false}
                        isBank={props.bankIds.includes(id)}
                        section={netWords(props.nets.find((one) => one.id === netId))}
                        onSelect={props.onSelect}
                        onMark={arranging?.onMark}
                        onKey={arranging ? onKey : undefined}
                      />,
                    );
                  })}
                </g>
              </svg>
            </TransformComponent>
          </TransformWrapper>
        </DndContext>
      )}
    </div>
  );
}

const Outline = memo(function Outline(props: {
  readonly position: Position;
  readonly scale: number;
  readonly verdict?: VerdictWord | undefined;
  readonly isFaded?: boolean | undefined;
  readonly isSelected: boolean;
  readonly onSelect: (positionId: string) => void;
  readonly onKey?: (event: KeyboardEvent, positionId: string) => void;
}) {
  const { position, scale, verdict } = props;
  const { left, top, width, height: depth } = outlineBox(position, scale);
  const [x, y] = [left + width / 2, top + depth / 2];
  const isSink = position.kind === "heat-sink";
  const high =
    position.outlineHeightMetres === null ? null : `${formatQuantity(position.outlineHeightMetres, "mm").text} high`;
  return (
    <g
      transform={`translate(${x} ${y})`}
      className={classes.part}
      role="button"
      tabIndex={0}
      aria-label={[position.designator, high, position.kind, verdict && verdictLabels[verdict]]
        .filter(Boolean)
        .join(", ")}
      aria-pressed={props.isSelected}
      onClick={(event) => {
        event.currentTarget.focus({ preventScroll: true });
        props.onSelect(position.id);
      }}
      onKeyDown={(event) => {
        props.onKey?.(event, position.id);
        if (event.key !== "Enter" && event.key !== " ") return;
        event.preventDefault();
        props.onSelect(position.id);
      }}
    >
      <rect
        className={isSink ? classes.sink : classes.outline}
        data-selected={props.isSelected || undefined}
        x={-width / 2}
        y={-depth / 2}
        width={width}
        height={depth}
        rx="2"
      />
      <text
        className={classes.outlineName}
        textAnchor="middle"
        y="4"
        transform={`scale(${outlineNameScale(position.designator, width)})`}
      >
        {position.designator}
      </text>{" "}
      {verdict && !props.isFaded && (
        <g transform={`translate(${-width / 2} ${-depth / 2}) scale(0.8)`}>
          <circle r="8.6" fill="var(--board)" />
          <VerdictShape verdict={verdict} />
        </g>
      )}
      {high !== null && depth > 30 && (
        <text className={classes.outlineHeight} textAnchor="middle" y="17">
          {high}
        </text>
      )}
    </g>
  );
});

interface CanProps extends PartLook {
  readonly can: DrawnPart;
  readonly scale: number;
  readonly labelX: number;
  readonly labelY: number;
  readonly hasValue: boolean;
  readonly isSelected: boolean;
  readonly isMarked: boolean;
  readonly isBank: boolean;
  readonly section: string;
  readonly onSelect: (positionId: string) => void;
  readonly onMark?: (positionId: string) => void;
  readonly onKey?: (event: KeyboardEvent, positionId: string) => void;
}

const Can = memo(function Can(props: CanProps) {
  const { can, scale, verdict } = props;
  const { position, part } = can;
  const radius = radiusOf(can.diameterMetres, scale);
  const marking = markingOf(part);
  const volts = part?.ratedVolts != null ? ` ${part.ratedVolts} V` : "";
  const stripe = part?.stripeDegrees ?? position.boardNegativeDegrees;
  const glyphScale = Math.min(1, (radius * 0.62) / 8);
  // What is seen comes first, as it is seen: who speaks to the screen says just that.
  const label = [
    position.designator,
    props.note,
    marking + volts,
    props.section,
    verdict && verdictLabels[verdict],
    props.seen,
    props.isEmpty && "taken out",
    props.isMarked && "marked",
    !can.isPlaced && "not placed yet",
  ];
  return (
    <g
      transform={`translate(${can.xMetres * scale} ${can.yMetres * scale})`}
      className={classes.can}
      role="button"
      tabIndex={0}
      aria-label={label.filter(Boolean).join(", ")}
      aria-pressed={props.isSelected}
      data-faded={props.isFaded || undefined}
      onClick={(event) => {
        // Panning keeps the pointer from moving the focus: keys would go on into the field that was left.
        event.currentTarget.focus({ preventScroll: true });
        if (event.shiftKey && props.onMark) props.onMark(position.id);
        else props.onSelect(position.id);
      }}
      onKeyDown={(event) => {
        props.onKey?.(event, position.id);
        if (event.key === "Enter" || event.key === " ") {
          event.preventDefault();
          if (event.shiftKey && props.onMark) props.onMark(position.id);
          else props.onSelect(position.id);
        }
      }}
    >
      <circle className={classes.focusRing} r={radius + 9} />
      {props.isSelected && <circle className={classes.selected} r={radius + 6} />}
      {props.isMarked && <circle className={classes.marked} r={radius + 3} />}
      {props.isBank && !props.isSelected && <circle className={classes.bank} r={radius + 5} />}
      <circle className={props.isEmpty ? classes.emptyPlace : classes.sleeve} r={radius} />
      {!props.isEmpty && stripe !== null && <path className={classes.stripe} d={stripePath(radius, stripe)} />}
      {verdict && (
        <g transform={`scale(${glyphScale})`}>
          <VerdictShape verdict={verdict} />
        </g>
      )}
      {props.seen && (
        <path className={classes.notch} d="M0-6 6 5H-6Z" transform={`translate(${radius * 0.8} ${-radius * 0.8})`} />
      )}
      <text
        className={classes.designator}
        data-tight={scale < roomForValues || undefined}
        textAnchor="middle"
        x={props.labelX}
        y={props.labelY}
      >
        {position.designator}
      </text>{" "}
      {scale >= roomForValues && (props.hasValue || props.note) && (
        <text className={classes.value} textAnchor="middle" x={props.labelX} y={props.labelY + 13}>
          {props.note ?? marking}
        </text>
      )}
    </g>
  );
});
