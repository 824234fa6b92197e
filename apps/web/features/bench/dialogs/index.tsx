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
import { AxisHeight } from "./AxisHeight";
import { Fit } from "./Fit";
import { ChangeTool, Recall, Tighten } from "./HandTurning";
import { MeasureTurned, Shims, Turret, TurningGap } from "./Turning";
import type { DialogProps } from "./props";

const DIALOGS = {
  drawer: { title: "Instrument drawer", Body: Drawer },
  speed: { title: "Start the spindle", Body: Speed },
  keys: { title: "Keys of the bench", Body: KeyMap },
  handIn: { title: "Hand in this lane?", Body: HandIn },
  sheet: { title: "Exercise sheet", Body: Sheet },
  probe: { title: "Ask the spindle probe", Body: Probe },
  setter: { title: "Ask the plunger setter", Body: Setter },
  beam: { title: "Ask the beam setter", Body: Beam },
  measure: { title: "Measure beside the machine", Body: Measure },
  gap: { title: "What goes under the tip?", Body: Gap },
  ready: { title: "Get ready", Body: Ready },
  check: { title: "Check what you set", Body: Check },
  exchange: { title: "Registers in and out", Body: Exchange },
  turningGap: { title: "What goes between tool and part?", Body: TurningGap },
  shims: { title: "Shim the holder", Body: Shims },
  recall: { title: "Recall a row of the library", Body: Recall },
  changeTool: { title: "Change a worn tool", Body: ChangeTool },
  axisHeight: { title: "How high does the axis stand?", Body: AxisHeight },
  fit: { title: "Which tool does for the part?", Body: Fit },
  tighten: { title: "Tighten the clamp", Body: Tighten },
} as const;

/** The same keys open what a lathe has instead. */
const CARRIERS = { turret: "Turret", readout: "Tool post", gang: "Gang slide" } as const;
const TURNED = { title: "Measure the part", Body: MeasureTurned } as const;

export type OpenDialog = keyof typeof DIALOGS | null;
const WIDE = new Set<OpenDialog>(["keys", "exchange", "sheet", "axisHeight", "fit"]);

/** Dialogs that a watching instructor, or who has handed in, may open too. */
export const readOnlyDialogs = new Set<OpenDialog>(["keys", "sheet", "exchange"]);

export function BenchDialogs({ open, ...props }: DialogProps & { open: OpenDialog }) {
  const isLathe = props.seen.lathe !== null;
  const { title = "", Body = null } =
    open === null
      ? {}
      : isLathe && open === "drawer"
        ? { title: CARRIERS[props.seen.sheet.lathe?.control ?? "turret"], Body: Turret }
        : isLathe && open === "measure"
          ? TURNED
          : DIALOGS[open];
  return (
    <Dialog
      title={title}
      isOpen={open !== null}
      onClose={props.onClose}
      width={WIDE.has(open) || (isLathe && open === "drawer") ? "max-w-2xl" : "max-w-md"}
    >
      {Body ? <Body {...props} /> : null}
    </Dialog>
  );
}
