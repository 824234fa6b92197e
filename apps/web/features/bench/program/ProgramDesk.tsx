import { memo } from "react";
import type { Command, Observation } from "@probe-lane/core/bench";
import type { OpenDialog } from "../lane/act";
import type { BenchKit, Control } from "../lane/kit";
import { LookUpPanel } from "./LookUpPanel";
import { ProgramPanel } from "./ProgramPanel";

/** The program and what is looked up of it, where the ledger lies otherwise. */
export const ProgramDesk = memo(function ProgramDesk(props: {
  seen: Observation;
  kit: BenchKit;
  send(command: Command): void;
  isReadOnly: boolean;
  open(dialog: OpenDialog): void;
  pointed: ReadonlySet<Control>;
}) {
  return (
    <div className="flex min-h-0 flex-col gap-2">
      <ProgramPanel {...props} />
      <LookUpPanel {...props} />
    </div>
  );
});
