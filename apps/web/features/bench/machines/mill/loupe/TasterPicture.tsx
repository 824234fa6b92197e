import type { TipSeen } from "@probe-lane/core/bench";
import { TASTER_TURN_MM } from "@probe-lane/core/instruments";
import { MID } from "./lens";

const hand = (turns: number, length: number): string => {
  const angle = turns * 2 * Math.PI - Math.PI / 2;
  return `M${MID} ${MID}l${Math.cos(angle) * length} ${Math.sin(angle) * length}`;
};

/**
 * The taster's dial: the large hand goes round once a millimetre, the small one counts the turns. Both must stand at
 * zero.
 */
export function TasterPicture({ tip }: { tip: Extract<TipSeen, { kind: "dial" }> }) {
  const turns = tip.readsMm / TASTER_TURN_MM;
  const small = { x: MID, y: MID + 36 };
  const smallAngle = (turns / 8) * 2 * Math.PI - Math.PI / 2;
  return (
    <g>
      <circle cx={MID} cy={MID} r="86" fill="var(--panel)" stroke="var(--ink3)" />
      {Array.from({ length: 50 }, (_, step) => {
        const angle = (step / 50) * 2 * Math.PI - Math.PI / 2;
        const inner = step % 5 === 0 ? 68 : 75;
        return (
          <path
            key={step}
            d={`M${MID + Math.cos(angle) * inner} ${MID + Math.sin(angle) * inner}L${MID + Math.cos(angle) * 82} ${MID + Math.sin(angle) * 82}`}
            stroke={step === 0 ? "var(--expected)" : "var(--ink)"}
            strokeWidth={step === 0 ? 4 : step % 5 === 0 ? 1.6 : 0.7}
          />
        );
      })}
      {[10, 20, 30, 40].map((label) => {
        const angle = (label / 50) * 2 * Math.PI - Math.PI / 2;
        return (
          <text
            key={label}
            x={MID + Math.cos(angle) * 57}
            y={MID + Math.sin(angle) * 57 + 4}
            textAnchor="middle"
            fontSize="12"
            className="figures"
            fill="var(--ink2)"
          >
            {label * 2}
          </text>
        );
      })}
      <circle cx={small.x} cy={small.y} r="19" fill="var(--field)" stroke="var(--ink3)" />
      {[-2, -1, 0, 1].map((turn) => {
        const angle = (turn / 8) * 2 * Math.PI - Math.PI / 2;
        return (
          <path
            key={turn}
            d={`M${small.x + Math.cos(angle) * 13} ${small.y + Math.sin(angle) * 13}L${small.x + Math.cos(angle) * 18} ${small.y + Math.sin(angle) * 18}`}
            stroke={turn === 0 ? "var(--expected)" : "var(--ink)"}
            strokeWidth={turn === 0 ? 3 : 1.4}
          />
        );
      })}
      <path
        d={`M${small.x} ${small.y}l${Math.cos(smallAngle) * 14} ${Math.sin(smallAngle) * 14}`}
        stroke="var(--contact)"
        strokeWidth="2.5"
      />
      <path d={hand(turns, 66)} stroke="var(--contact)" strokeWidth="3.5" strokeLinecap="round" />
      <circle cx={MID} cy={MID} r="5" fill="var(--contact)" />
    </g>
  );
}
