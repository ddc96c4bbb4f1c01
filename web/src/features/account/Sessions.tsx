import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { endSessions, readSessions, type OwnSession } from "../../api/account";
import { Button } from "../../ui/Button";
import { Section } from "../../ui/Section";
import { Problem } from "../../ui/Trouble";

/** Where one is signed in, with a way to end each. */
export function Sessions() {
  const queries = useQueryClient();
  const sessions = useQuery({ queryKey: ["sessions"], queryFn: readSessions });
  const end = useMutation({
    mutationFn: endSessions,
    onSuccess: () => queries.invalidateQueries({ queryKey: ["sessions"] }),
  });
  const all = [...(sessions.data ?? [])].sort((a, b) => b.created_at - a.created_at);
  const others = all.filter((one) => !one.is_current);
  return (
    <Section title="Where you are signed in">
      <ul className="text-[14px]">
        {all.map((one) => (
          <li key={one.id} className="flex items-baseline gap-4 border-b border-hairline py-2">
            <span className="min-w-0">
              {device(one)}
              <span className="block text-[13px] text-soft">
                since {new Date(one.created_at * 1000).toLocaleString("en-GB")}, from {one.ip}
              </span>
            </span>
            <span className="ml-auto">
              {one.is_current ? (
                <span className="text-[13px] font-semibold text-fits">here, now</span>
              ) : (
                <Button look="bare" disabled={end.isPending} onClick={() => end.mutate([one.id])}>
                  End it
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
      {others.length > 1 && (
        <Button
          className="mt-3"
          disabled={end.isPending}
          onClick={() => end.mutate(others.map((one) => one.id))}
        >
          End all others
        </Button>
      )}
      {(sessions.error ?? end.error) && <Problem message={(sessions.error ?? end.error)!.message} />}
    </Section>
  );
}

const SYSTEMS = ["iPhone", "iPad", "Android", "Windows", "Macintosh", "CrOS", "Linux"];

/** The device that a browser says it runs on, or all that it says. */
function device({ user_agent: agent }: OwnSession): string {
  const found = SYSTEMS.find((name) => agent.includes(name));
  return found ? `A browser on ${found}` : agent.slice(0, 60) || "A browser";
}
