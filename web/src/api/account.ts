import { csrfToken, Failure, failureOf } from "./client";
import { sayWhetherSignedIn } from "./session";

/** What django-allauth answers below /api/account; only what the pages use of it. */
interface Answer<Data = unknown> {
  data: Data;
  meta?: { secret?: string; totp_svg?: string };
}

interface Flows {
  data?: { flows?: { id: string; is_pending?: boolean }[] };
  meta?: { is_authenticated?: boolean; secret?: string; totp_svg?: string };
}

export interface MailAddress {
  email: string;
  primary: boolean;
  verified: boolean;
}

export interface OwnSession {
  id: number;
  user_agent: string;
  ip: string;
  /** Seconds since 1970. */
  created_at: number;
  is_current: boolean;
}

async function ask<Data>(
  method: string,
  path: string,
  body?: object,
  headers: Record<string, string> = {},
): Promise<Answer<Data>> {
  let answer: Response;
  try {
    answer = await fetch(`/api/account/browser/v1/${path}`, {
      method,
      body: body && JSON.stringify(body),
      headers: { "Content-Type": "application/json", "X-CSRFToken": csrfToken(), ...headers },
      credentials: "same-origin",
    });
  } catch {
    throw new Failure("The server cannot be reached. Look at your connection, and try again.", 0, null);
  }
  const told: unknown = await answer.json().catch(() => null);
  if (answer.ok) return told as Answer<Data>;
  throw failureOf(answer.status, told);
}

const pending = (error: unknown, id: string) =>
  error instanceof Failure &&
  ((error.body as Flows | null)?.data?.flows ?? []).some((flow) => flow.id === id && flow.is_pending);

/** Signs in; "code" where the account asks for a second step. */
export async function signIn(email: string, password: string): Promise<"in" | "code"> {
  try {
    await ask("POST", "auth/login", { email, password });
  } catch (error) {
    if (pending(error, "mfa_authenticate")) return "code";
    throw error;
  }
  sayWhetherSignedIn(true);
  return "in";
}

/** The second step: a code of the telephone, or one of the recovery codes. */
export async function giveCode(code: string): Promise<void> {
  await ask("POST", "auth/2fa/authenticate", { code });
  sayWhetherSignedIn(true);
}

export const signUp = (given: { email: string; password: string; business: string; invitation: string }) =>
  ask("POST", "auth/signup", given);

export const askForNewPassword = (email: string) => ask("POST", "auth/password/request", { email });

/** Sets a new password by the link of a mail; whoever does it is asked to sign in then. */
export async function setNewPassword(key: string, password: string): Promise<void> {
  await passingSignedOut(ask("POST", "auth/password/reset", { key, password }));
}

/** Confirms a mail address by the link that was sent to it. */
export async function confirmAddress(key: string): Promise<void> {
  await passingSignedOut(ask("POST", "auth/email/verify", { key }));
}

/** Some answers say 401 for "done, and nobody is signed in". */
async function passingSignedOut(asked: Promise<unknown>): Promise<void> {
  try {
    await asked;
  } catch (error) {
    if (!(error instanceof Failure && error.status === 401)) throw error;
  }
}

export const changePassword = (current_password: string, new_password: string) =>
  ask("POST", "account/password/change", { current_password, new_password });

export const readAddresses = async () => (await ask<MailAddress[]>("GET", "account/email")).data;

export const changeAddress = (email: string) => ask("POST", "account/email", { email });

export const sendLinkAgain = (email: string) => ask("PUT", "account/email", { email });

export const givePassword = (password: string) => ask("POST", "auth/reauthenticate", { password });

/** The secret for the telephone as letters and as a picture. */
export async function beginTwoSteps(): Promise<{ secret: string; picture: string }> {
  try {
    await ask("GET", "account/authenticators/totp");
  } catch (error) {
    const meta = error instanceof Failure ? (error.body as Flows | null)?.meta : undefined;
    if (meta?.secret) return { secret: meta.secret, picture: meta.totp_svg ?? "" };
    throw error;
  }
  throw new Error("Two steps are on already. Load the page again.");
}

export const finishTwoSteps = (code: string) => ask("POST", "account/authenticators/totp", { code });

export const endTwoSteps = () => ask("DELETE", "account/authenticators/totp");

export const readTwoSteps = async () =>
  (await ask<{ type: string }[]>("GET", "account/authenticators")).data.some((one) => one.type === "totp");

export const readRecoveryCodes = async () =>
  (await ask<{ unused_codes: string[] }>("GET", "account/authenticators/recovery-codes")).data.unused_codes;

export const makeRecoveryCodes = async () =>
  (await ask<{ unused_codes: string[] }>("POST", "account/authenticators/recovery-codes", {})).data
    .unused_codes;

export const readSessions = async () => (await ask<OwnSession[]>("GET", "auth/sessions")).data;

export const endSessions = async (sessions: number[]) =>
  (await ask<OwnSession[]>("DELETE", "auth/sessions", { sessions })).data;
