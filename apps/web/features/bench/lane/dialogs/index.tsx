import type { Observation } from "@probe-lane/core/bench";
import { memo, lazy, Suspense } from "react";
import { Button, SideSheet } from "../../../../ui";
import type { OpenDialog } from "../act";
import type { BenchDialog, DialogProps } from "../kit";
import { Check } from "./Check";
import { HandIn, KeyMap, Speed } from "./Machine";

// what is seldom opened is fetched when it is
const Words = lazy(async () => ({ default: (await import("./Words")).Words }));
const Exchange = lazy(async () => ({ default: (await import("./Exchange")).Exchange }));
const LoadProgram = lazy(async () => ({ default: (await import("../../program/LoadProgram")).LoadProgram }));
const ProgramOnSheet = lazy(async () => ({ default: (await import("../../program/OnSheet")).ProgramOnSheet }));

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

export const BenchDialogs = memo(function BenchDialogs({ open, ...props }: DialogProps & { open: OpenDialog }) {
  const shown = open === null ? undefined : (props.kit.dialogs[open] ?? SHARED[open]);
  return (
    <SideSheet
      title={shown?.title ?? ""}
      isOpen={shown !== undefined}
      onClose={props.onClose}
      isWide={shown?.isWide === true}
    >
      <Suspense fallback={<p className="text-ink2">Fetching …</p>}>{shown ? <shown.Body {...props} /> : null}</Suspense>
      {open === "sheet" && props.seen.sheet.program !== undefined ? (
        <Suspense fallback={null}>
          <ProgramOnSheet sheet={props.seen.sheet} />
        </Suspense>
      ) : null}
      {open === "sheet" ? (
        <Button look="act" className="mt-3 px-4 py-2" onClick={props.onClose}>
          To the machine
        </Button>
      ) : null}
    </SideSheet>
  );
});
