import type { PhotoMark } from "@pale-cap/contract";

/** One pen mark over a photo of so many pixels: a pale edge under the ink keeps it readable on any ground. */
export function PhotoMarkShape(props: { readonly mark: PhotoMark; readonly size: readonly [number, number] }) {
  const { mark, size } = props;
  const [width, height] = size;
  const unit = Math.max(width, height) / 100;
  const [x, y] = [mark.x * width, mark.y * height];
  switch (mark.kind) {
    case "dot":
      return (
        <circle cx={x} cy={y} r={unit * 1.3} fill="var(--pen)" stroke="var(--pen-edge)" strokeWidth={unit * 0.5} />
      );
    case "arrow":
      return <Arrow from={[x, y]} to={[(mark.toX ?? 0) * width, (mark.toY ?? 0) * height]} unit={unit} />;
    case "text":
      return (
        <text
          x={x}
          y={y}
          fontSize={unit * 3.4}
          fontWeight={700}
          fill="var(--pen)"
          stroke="var(--pen-edge)"
          strokeWidth={unit * 0.9}
          paintOrder="stroke"
        >
          {mark.text}
        </text>
      );
  }
}

function Arrow(props: {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly unit: number;
}) {
  const { from, to, unit } = props;
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const barb = (turn: number) =>
    `${to[0] - unit * 3.2 * Math.cos(angle + turn)} ${to[1] - unit * 3.2 * Math.sin(angle + turn)}`;
  const line = `M${from[0]} ${from[1]}L${to[0]} ${to[1]}M${barb(0.45)}L${to[0]} ${to[1]}L${barb(-0.45)}`;
  return (
    <>
      <path d={line} fill="none" stroke="var(--pen-edge)" strokeWidth={unit * 1.5} strokeLinecap="round" />
      <path d={line} fill="none" stroke="var(--pen)" strokeWidth={unit * 0.8} strokeLinecap="round" />
    </>
  );
}
