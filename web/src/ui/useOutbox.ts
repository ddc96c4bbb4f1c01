import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState, useSyncExternalStore } from "react";

import type { Schemas } from "../api/client";
import { SIGNED_IN } from "../api/session";
import { Outbox, type Delivery, type Shown } from "./outbox";

export interface Sending<W> extends Shown<W> {
  push: (wanted: W, base: number) => void;
  tryNow: () => void;
  forgetTrouble: () => void;
  release: () => void;
}

/** The outbox of one document; `place` names it, in a word that no other document has. */
export function useOutbox<W>(place: string, delivery: Delivery<W>): Sending<W> {
  const queries = useQueryClient();
  const [outbox] = useState(() => {
    const person = queries.getQueryData<Schemas["Me"]>(["session"])?.email ?? "";
    return new Outbox<W>(`fitzle/unsent/${person}/${place}/`);
  });
  const shown = useSyncExternalStore(outbox.subscribe, () => outbox.shown);
  useEffect(() => {
    outbox.deliverBy(delivery);
  });
  useEffect(() => {
    outbox.start();
    window.addEventListener("online", outbox.start);
    window.addEventListener(SIGNED_IN, outbox.start);
    return () => {
      outbox.stop();
      window.removeEventListener("online", outbox.start);
      window.removeEventListener(SIGNED_IN, outbox.start);
    };
  }, [outbox]);
  return {
    ...shown,
    push: (wanted, base) => outbox.push(wanted, base),
    tryNow: outbox.start,
    forgetTrouble: outbox.forgetTrouble,
    release: () => outbox.release(),
  };
}
