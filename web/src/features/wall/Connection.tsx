import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { connectionQuery, endConnection, saveConnection } from "../../api/deliveryQueries";
import { Button } from "../../ui/Button";
import { Problem } from "../../ui/Trouble";

const FIELD =
  "mt-0.5 block min-h-8 w-full min-w-0 border-b border-ink bg-transparent text-[13px] text-ink placeholder:text-soft";

/** Where files of a destination are uploaded to: a storage of one's own that speaks the S3 protocol. */
export function Connection({ workspace, destination }: { workspace: string; destination: string }) {
  const queries = useQueryClient();
  const known = useQuery(connectionQuery(workspace, destination));
  const [open, setOpen] = useState(false);
  const refresh = () => queries.invalidateQueries({ queryKey: [workspace] });
  const save = useMutation({
    mutationFn: (form: FormData) =>
      saveConnection(workspace, destination, {
        adapter: "s3",
        address: String(form.get("address")),
        folder: String(form.get("folder")),
        account: String(form.get("account")),
        secret: String(form.get("secret")),
      }),
    onSuccess: async () => {
      setOpen(false);
      await refresh();
    },
  });
  const end = useMutation({ mutationFn: () => endConnection(workspace, destination), onSuccess: refresh });
  const trouble = save.error ?? end.error;
  return (
    <div className="border-t border-hairline pt-3">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="text-soft">
          {known.data ? `Uploads go to ${known.data.folder}` : "Files are saved and uploaded by hand"}
        </span>
        <Button look="bare" aria-expanded={open} onClick={() => setOpen(!open)}>
          {known.data ? "Change" : "Connect a storage"}
        </Button>
        {known.data && (
          <Button look="bare" disabled={end.isPending} onClick={() => end.mutate()}>
            Disconnect
          </Button>
        )}
      </p>
      {open && (
        <form
          className="mt-2 grid gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            save.mutate(new FormData(event.currentTarget));
          }}
        >
          <label className="text-soft">
            Its address (S3 protocol)
            <input name="address" type="url" required defaultValue={known.data?.address} className={FIELD} />
          </label>
          <label className="text-soft">
            Bucket, and folder in it
            <input
              name="folder"
              required
              placeholder="pictures/shop"
              defaultValue={known.data?.folder}
              className={FIELD}
            />
          </label>
          <label className="text-soft">
            Key
            <input name="account" autoComplete="off" defaultValue={known.data?.account} className={FIELD} />
          </label>
          <label className="text-soft">
            Secret
            <input name="secret" type="password" autoComplete="off" className={FIELD} />
          </label>
          <Button type="submit" disabled={save.isPending}>
            Upload there from now on
          </Button>
        </form>
      )}
      {trouble && <Problem message={trouble.message} />}
    </div>
  );
}
