/** Said to everybody on the page when the server no longer knows who is there, and when it does again. */
export const SIGNED_OUT = "fitzle:signed-out";
export const SIGNED_IN = "fitzle:signed-in";

let signedIn = true;

export function sayWhetherSignedIn(is: boolean): void {
  if (is === signedIn) return;
  signedIn = is;
  window.dispatchEvent(new Event(is ? SIGNED_IN : SIGNED_OUT));
}
