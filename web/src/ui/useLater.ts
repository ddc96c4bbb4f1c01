import { useEffect, useState } from "react";

/** A value once it has been the same for a moment: what somebody types is looked for when they pause. */
export function useLater<T>(value: T, ms = 250): T {
  const [later, setLater] = useState(value);
  useEffect(() => {
    const soon = setTimeout(() => setLater(value), ms);
    return () => clearTimeout(soon);
  }, [value, ms]);
  return later;
}
