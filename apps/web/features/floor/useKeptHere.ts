import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { keyOf } from "../../app/queries";
import { SESSION_KEY } from "../../app/session";

/** Whether a page opens on this device without a network: not known yet, it does, or this browser keeps nothing. */
export type KeptHere = "asking" | "kept" | "notHere";

/**
 * Keeps a floor lane's page on the device from when it was opened there. A browser keeps pages only of an address that
 * it trusts: this machine itself, or a certificate that it knows.
 */
export function useKeptHere(id: string): KeptHere {
  const client = useQueryClient();
  const [state, setState] = useState<KeptHere>("serviceWorker" in navigator ? "asking" : "notHere");
  useEffect(() => {
    if (!("serviceWorker" in navigator)) return;
    let isLeft = false;
    const keep = async () => {
      const { serviceWorker } = navigator;
      await serviceWorker.register("/sw.js");
      // from when it stands between this page and the server
      if (!serviceWorker.controller)
        await new Promise((resolve) => serviceWorker.addEventListener("controllerchange", resolve, { once: true }));
      // what was answered before anybody kept it is asked for once more
      await Promise.all([
        client.refetchQueries({ queryKey: SESSION_KEY }),
        client.refetchQueries({ queryKey: keyOf("/floor/lanes/:id", { id }) }),
      ]);
    };
    keep().then(
      () => isLeft || setState("kept"),
      () => isLeft || setState("notHere"),
    );
    return () => {
      isLeft = true;
    };
  }, [client, id]);
  return state;
}
