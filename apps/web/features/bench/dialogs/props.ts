import type { Command, Observation } from "@probe-lane/core/bench";

export interface DialogProps {
  seen: Observation;
  send(command: Command): void;
  onClose(): void;
  isReadOnly: boolean;
}
