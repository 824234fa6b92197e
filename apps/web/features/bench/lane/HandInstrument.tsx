import type { ReactNode } from "react";

const WIDTH = 150;
const HEIGHT = 54;
/** The piece between the jaws, and the line along which it is measured. */
const PIECE = { left: 34, right: 70, top: 22, bottom: 50 } as const;
const steel = { fill: "var(--steel)", stroke: "var(--ink)", strokeWidth: 1 } as const;

/** The piece that is measured, cut through: round ones have a middle. */
function Piece({ isRound }: { isRound: boolean }) {
  const { left, right, top, bottom } = PIECE;
  const piece = { fill: "var(--stock)", stroke: "var(--ink)", strokeWidth: 1 };
  if (!isRound) return <rect x={left} y={top} width={right - left} height={bottom - top} {...piece} />;
  const [x, y, r] = [(left + right) / 2, (top + bottom) / 2 - 1, (right - left) / 2];
  return (
    <>
      <circle cx={x} cy={y} r={r} {...piece} />
      <path d={`M${x - 4} ${y}h8M${x} ${y - 4}v8`} stroke="var(--ink2)" />
    </>
  );
}

const Marks = ({ from, to, y, step }: { from: number; to: number; y: number; step: number }) => (
  <path
    d={Array.from({ length: Math.floor((to - from) / step) }, (_, at) => `M${from + at * step} ${y}v4`).join("")}
    stroke="var(--ink)"
    strokeWidth="0.7"
  />
);

const pictures: Record<string, (isRound: boolean) => ReactNode> = {
  caliper: (isRound) => (
    <>
      <Piece isRound={isRound} />
      <rect x="8" y="4" width="138" height="9" {...steel} />
      <Marks from={16} to={142} y={4.5} step={6} />
      <path d={`M20 13h14v37l-6 -8z`} {...steel} />
      <path d={`M70 2h34v15h-20l-6 0v25l-8 8z`} {...steel} />
      <rect x="82" y="5" width="19" height="8" rx="1" fill="var(--field)" stroke="var(--ink)" strokeWidth="0.7" />
    </>
  ),
  micrometer: (isRound) => (
    <>
      <Piece isRound={isRound} />
      <path d="M34 30v12h-10q-14 0 -14 -20t20 -20h50q16 0 16 20v6h-12v-8q0 -8 -8 -8h-42q-10 0 -10 10t6 8z" {...steel} />
      <rect x="70" y="33" width="14" height="6" {...steel} />
      <rect x="84" y="30" width="24" height="12" {...steel} />
      <Marks from={88} to={108} y={31} step={4} />
      <rect x="108" y="27" width="28" height="18" rx="1.5" {...steel} />
      <path d="M112 28v16M116 28v16M120 28v16" stroke="var(--ink)" strokeWidth="0.7" />
      <rect x="136" y="32" width="10" height="8" rx="2" {...steel} />
    </>
  ),
  rule: (isRound) => (
    <>
      <Piece isRound={isRound} />
      <rect x="30" y="6" width="116" height="15" {...steel} />
      <Marks from={34} to={144} y={17} step={4} />
    </>
  ),
  boreGauge: () => (
    <>
      <path d="M8 20h20v32h-20zM78 20h20v32h-20z" fill="var(--stock)" stroke="var(--ink)" />
      <path d="M50 2h6v28h-6z" {...steel} />
      <rect x="28" y="30" width="50" height="9" rx="4" {...steel} />
      <path d="M28 34.500h-1M78 34.500h1" stroke="var(--contact)" strokeWidth="2" />
    </>
  ),
};

/** A hand instrument where it was used last, across the piece; it shows no figure but the reading beside it. */
export function HandInstrument({ instrument, isRound }: { instrument: string; isRound: boolean }) {
  const picture = pictures[instrument];
  if (!picture) return null;
  return (
    <svg width={WIDTH} height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden className="my-1 max-w-full">
      {picture(isRound)}
    </svg>
  );
}
