import type { Observation } from "@probe-lane/core/bench";
import { Button, SideSheet } from "../../../../ui";
import type { OpenDialog } from "../act";
import type { BenchDialog, DialogProps } from "../kit";
import { Check } from "./Check";
import { Exchange } from "./Exchange";
import { HandIn, KeyMap, Speed } from "./Machine";
import { LoadProgram } from "../../program/LoadProgram";
import { ProgramOnSheet } from "../../program/OnSheet";
import { Words } from "./Words";

/** What every bench can open; a machine adds its own. */
const SHARED: Partial<Record<NonNullable<OpenDialog>, BenchDialog<Observation>>> = {
  speed: { title: "Start the spindle", Body: Speed },
  words: { title: "Words of the bench", Body: Words },
  keys: { title: "Keys of the bench", Body: KeyMap, isWide: true },
  handIn: { title: "Hand in this lane?", Body: HandIn },
  check: { title: "Check what you set", Body: Check },
  program: { title: "The shop’s store of programs", Body: LoadProgram },
  exchange: { title: "Registers in and out", Body: Exchange, isWide: true },
};

/** Dialogs that a watching instructor, or who has handed in, may open too. */
export const readOnlyDialogs = new Set<OpenDialog>(["keys", "words", "sheet", "exchange"]);

export function BenchDialogs({ open, ...props }: DialogProps & { open: OpenDialog }) {
  const shown = open === null ? undefined : (props.kit.dialogs[open] ?? SHARED[open]);
  return (
    <SideSheet
      title={shown?.title ?? ""}
      isOpen={shown !== undefined}
      onClose={props.onClose}
      isWide={shown?.isWide === true}
    >
      {shown ? <shown.Body {...props} /> : null}
      {open === "sheet" ? <ProgramOnSheet sheet={props.seen.sheet} /> : null}
      {open === "sheet" ? (
        <Button look="act" className="mt-3 px-4 py-2" onClick={props.onClose}>
          To the machine
        </Button>
      ) : null}
    </SideSheet>
  );
}
