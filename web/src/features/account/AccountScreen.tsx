import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";

import { sessionQuery } from "../../api/queries";
import { Wordmark } from "../../ui/Header";
import { Invitations } from "./Invitations";
import { NewPassword } from "./NewPassword";
import { Sessions } from "./Sessions";
import { TwoSteps } from "./TwoSteps";
import { Who } from "./Who";

/** Everything about one's own account: name, address, password, two steps, where one is signed in. */
export function AccountScreen() {
  const me = useQuery(sessionQuery()).data;
  if (!me) return null;
  return (
    <main className="mx-auto max-w-5xl px-7 py-5">
      <Link to="/" aria-label="Fitzle, to the wall">
        <Wordmark />
      </Link>
      <h1 className="mt-4 text-[26px] leading-9">Your account</h1>
      <div className="mt-5 grid gap-x-14 gap-y-9 md:grid-cols-2">
        <div className="grid content-start gap-y-9">
          <Who me={me} />
          <NewPassword />
        </div>
        <div className="grid content-start gap-y-9">
          <TwoSteps confirmed={me.confirmed} />
          <Sessions />
          {me.invites && <Invitations />}
        </div>
      </div>
    </main>
  );
}
