/** Whether a key goes to a field and not to the screen. */
export const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.matches("input, textarea, select, [contenteditable]");
