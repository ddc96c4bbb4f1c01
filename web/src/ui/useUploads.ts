import { createContext, useContext } from "react";

export interface Uploads {
  /** Uploads files and, once they are read, fills these placements (["suited"]: every empty one they suit). */
  bring: (files: File[], targets: string[], tags?: string[]) => void;
  /** Has a file fetched from the web. */
  bringAddress: (address: string, targets: string[]) => void;
}

export const UploadsContext = createContext<Uploads>({
  bring: () => undefined,
  bringAddress: () => undefined,
});

export const useUploads = () => useContext(UploadsContext);
