/** A day in words, with the year where it is another one. */
export function day(iso: string): string {
  const when = new Date(iso);
  const other = when.getFullYear() !== new Date().getFullYear();
  return when.toLocaleDateString("en-GB", {
    day: "numeric",
    month: "long",
    ...(other ? { year: "numeric" } : {}),
  });
}

export function moment(iso: string): string {
  const when = new Date(iso);
  const time = when.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
  return `${when.toLocaleDateString("en-GB", { weekday: "long", day: "numeric", month: "long" })}, ${time}`;
}

export const shortDay = (iso: string) =>
  new Date(iso).toLocaleDateString("en-GB", { day: "numeric", month: "short" });
