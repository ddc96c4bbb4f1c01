/** Seconds as people read a clip's time: 1:02.40. */
export function clock(seconds: number): string {
  const hundredths = Math.round(seconds * 100);
  const minutes = Math.floor(hundredths / 6000);
  const rest = (hundredths - minutes * 6000) / 100;
  return `${minutes}:${rest.toFixed(2).padStart(5, "0")}`;
}
