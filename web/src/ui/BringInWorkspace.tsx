import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { useNavigate } from "react-router";

import { bringInWorkspace } from "../api/actions";
import { Button } from "./Button";
import { Problem } from "./Trouble";

/** Takes the ZIP of a workspace that was saved, and opens what comes out of it. */
export function BringInWorkspace({ done }: { done?: () => void }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const input = useRef<HTMLInputElement>(null);
  const [share, setShare] = useState(0);
  const bring = useMutation({
    mutationFn: (file: File) => bringInWorkspace(file, setShare),
    onSuccess: async ({ slug }) => {
      await queries.invalidateQueries({ queryKey: ["session"] });
      done?.();
      await navigate(`/w/${slug}`);
    },
  });
  const words = share < 1 ? `Sending it, ${Math.round(share * 100)} %` : "Unpacking it…";
  return (
    <>
      <input
        ref={input}
        type="file"
        hidden
        accept=".zip,application/zip"
        aria-label="A saved workspace"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = "";
          if (file) bring.mutate(file);
        }}
      />
      <Button look="bare" disabled={bring.isPending} onClick={() => input.current?.click()}>
        {bring.isPending ? words : "Bring in a saved workspace"}
      </Button>
      {bring.error && <Problem message={bring.error.message} onDismiss={bring.reset} />}
    </>
  );
}
