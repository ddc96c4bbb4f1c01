import { createContext } from "react";

/** Whether all proofs that move play together; else each only while it is looked at. */
export const PlayTogether = createContext(false);
