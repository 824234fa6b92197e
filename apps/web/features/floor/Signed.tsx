import { initialsOf, type FloorState } from "@probe-lane/core/floor";
import { format } from "date-fns";
import { machineOf } from "./show";

/** Who signed what, when and at which machine; nothing where nobody has. */
export function Signed({ state: { signature, exercise } }: { state: FloorState }) {
  if (signature.state !== "given") return null;
  return (
    <>
      <b>
        Signed by {signature.by} ({initialsOf(signature.by)})
      </b>
      , {format(signature.atMs, "d MMM yyyy, HH:mm")}, at {machineOf(exercise)}: {signature.entries} entries, as they
      stand.
    </>
  );
}
