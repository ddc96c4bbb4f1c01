import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";

import { signIn } from "../../api/account";
import { signOut } from "../../api/actions";
import type { Schemas } from "../../api/client";
import { SIGNED_IN, SIGNED_OUT } from "../../api/session";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";
import { CodeFields, useCode } from "./CodeForm";
import { PasswordField } from "./PasswordField";

/** Asks for the password where the session ended; what was on the screen stays, what is unsaved is sent afterwards. */
export function SignInAgain({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const [ended, setEnded] = useState(false);
  const [password, setPassword] = useState("");
  useEffect(() => {
    const end = () => setEnded(true);
    const begin = () => setEnded(false);
    window.addEventListener(SIGNED_OUT, end);
    window.addEventListener(SIGNED_IN, begin);
    return () => {
      window.removeEventListener(SIGNED_OUT, end);
      window.removeEventListener(SIGNED_IN, begin);
    };
  }, []);
  const back = () => {
    setPassword("");
    void queries.invalidateQueries();
  };
  const enter = useMutation({
    mutationFn: () => signIn(me.email, password),
    onSuccess: (step) => step === "in" && back(),
  });
  const code = useCode(() => {
    enter.reset();
    back();
  });
  const second = enter.data === "code";
  const leave = async () => {
    await signOut().catch(() => undefined);
    location.assign("/");
  };
  return (
    <Dialog.Root open={ended}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-[var(--shade)]" />
        <Dialog.Content
          onEscapeKeyDown={(event) => event.preventDefault()}
          onInteractOutside={(event) => event.preventDefault()}
          className="fixed top-1/4 left-1/2 z-50 w-[min(400px,90vw)] -translate-x-1/2 border border-ink bg-sheet p-6"
        >
          <Dialog.Title className="text-lg">You were signed out.</Dialog.Title>
          <Dialog.Description className="mt-1 text-soft">
            Everything stays as it is on this page; what is not saved yet is sent once you are back.
          </Dialog.Description>
          <form
            className="mt-4"
            onSubmit={(event) => {
              event.preventDefault();
              if (second) code.submit();
              else enter.mutate();
            }}
          >
            {second ? (
              <CodeFields code={code} />
            ) : (
              <>
                <input type="hidden" autoComplete="username" value={me.email} readOnly />
                <PasswordField label={`Password of ${me.email}`} value={password} type={setPassword} />
                {enter.error && (
                  <div className="mb-4">
                    <Problem message={enter.error.message} />
                  </div>
                )}
                <div className="flex justify-between gap-3">
                  <Button look="bare" type="button" onClick={() => void leave()}>
                    I am somebody else
                  </Button>
                  <Button look="next" type="submit" disabled={enter.isPending}>
                    Sign in and go on
                  </Button>
                </div>
              </>
            )}
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
