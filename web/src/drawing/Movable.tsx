import { useDraggable } from "@dnd-kit/core";
import type { ReactNode } from "react";

/** Class that keeps the board from being panned where a part is taken hold of. */
export const movableClass = "part-movable";

/** A part that follows the pointer while it is dragged, at any zoom. */
export function Movable(props: { readonly id: string; readonly zoom: number; readonly children: ReactNode }) {
  const { listeners, setNodeRef, transform } = useDraggable({ id: props.id });
  return (
    <g
      ref={(node) => setNodeRef(node as unknown as HTMLElement | null)}
      className={movableClass}
      transform={transform ? `translate(${transform.x / props.zoom} ${transform.y / props.zoom})` : undefined}
      {...listeners}
    >
      {props.children}
    </g>
  );
}
