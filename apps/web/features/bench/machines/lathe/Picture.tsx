import type { TurningSeen } from "@probe-lane/core/bench";
import { useElementSize } from "../../../../app/useElementSize";
import type { PictureProps } from "../../lane/kit";
import { TurningLoupe, TurningScene } from "./TurningScene";
import { turningFacts, turningSensation } from "./view";

/** The half section; beside it the tip under a glass, what it feels like, and the sheet in a few lines. */
export function LathePicture({ send: _send, isReadOnly: _isReadOnly, ...view }: PictureProps<TurningSeen>) {
  const { seen, machine } = view;
  const { ref, width, height } = useElementSize();
  const { strong, soft, isContact } = turningSensation(seen, machine);
  return (
    <>
      <div ref={ref} className="min-w-0 flex-1 overflow-hidden">
        {width > 0 ? <TurningScene {...view} width={width} height={height} /> : null}
      </div>
      <div className="flex w-[168px] shrink-0 xl:w-[212px] flex-col gap-2 border-l border-rule-soft p-2">
        <TurningLoupe seen={seen} machine={machine} />
        <p className="text-center" aria-live="polite">
          <b data-testid="sensation" className={`block text-base leading-5 ${isContact ? "text-contact" : ""}`}>
            {strong}
          </b>
          <span className="text-xs text-ink2">{soft}</span>
        </p>
        <ul className="mt-auto text-xs leading-5 text-ink2">
          {turningFacts(seen).map(([name, size]) => (
            <li key={name}>
              {name} <span className="figures">{size}</span>
            </li>
          ))}
        </ul>
      </div>
    </>
  );
}
