import { Dialog } from "../../../ui";
import { Beam, Setter } from "./Setters";
import { Check } from "./Check";
import { Drawer } from "./Drawer";
import { Exchange } from "./Exchange";
import { Gap, Ready } from "./Hands";
import { HandIn, KeyMap, Speed } from "./Machine";
import { Measure } from "./Measure";
import { Probe } from "./Probe";
import { Sheet } from "./Sheet";
import type { DialogProps } from "./props";

const DIALOGS = {
  drawer: { title: "Instrument drawer", Body: Drawer }, speed: { title: "Start the spindle", Body: Speed }, keys: { title: "Keys of the bench", Body: KeyMap },
  handIn: { title: "Hand in this lane?", Body: HandIn }, sheet: { title: "Exercise sheet", Body: Sheet }, probe: { title: "Ask the spindle probe", Body: Probe },
  setter: { title: "Ask the plunger setter", Body: Setter }, beam: { title: "Ask the beam setter", Body: Beam }, measure: { title: "Measure beside the machine", Body: Measure },
  gap: { title: "What goes under the tip?", Body: Gap }, ready: { title: "Get ready", Body: Ready }, check: { title: "Check what you set", Body: Check },
  exchange: { title: "Registers in and out", Body: Exchange },
} as const;

export type OpenDialog = keyof typeof DIALOGS | null;
const WIDE = new Set<OpenDialog>(["keys", "exchange", "sheet"]);

/** Dialogs that a watching instructor, or who has handed in, may open too. */
export const readOnlyDialogs = new Set<OpenDialog>(["keys", "sheet", "exchange"]);

export function BenchDialogs({ open, ...props }: DialogProps & { open: OpenDialog }) {
  const { title = "", Body = null } = open ? DIALOGS[open] : {};
  return (
    <Dialog title={title} isOpen={open !== null} onClose={props.onClose} width={WIDE.has(open) ? "max-w-2xl" : "max-w-md"}>
      {Body ? <Body {...props} /> : null}
    </Dialog>
  );
}
