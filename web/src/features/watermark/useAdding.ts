import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";

import { addPicture, watermarkQuery } from "../../api/watermarkQueries";

const AT_ONCE = 3; // files on their way at the same time

export interface Adding {
  /** Files that are not there yet. */
  left: number;
  trouble: string[];
  add: (files: File[]) => void;
  forget: () => void;
}

/** Sends dropped files one by one, a few at a time; one that is refused does not stop the others. */
export function useAdding(workspace: string, watermark: string): Adding {
  const queries = useQueryClient();
  const waiting = useRef<File[]>([]);
  const running = useRef(0);
  const [left, setLeft] = useState(0);
  const [trouble, setTrouble] = useState<string[]>([]);
  const sendThem = useCallback(async () => {
    running.current += 1;
    for (let file = waiting.current.shift(); file; file = waiting.current.shift()) {
      const { name } = file;
      try {
        const newest = await addPicture(workspace, watermark, file);
        queries.setQueryData(watermarkQuery(workspace, watermark).queryKey, newest);
      } catch (error) {
        setTrouble((all) => [...all, `${name}: ${(error as Error).message}`]);
      }
      setLeft((count) => count - 1);
    }
    running.current -= 1;
    if (running.current === 0) void queries.invalidateQueries({ queryKey: [workspace, "watermarks"] });
  }, [queries, workspace, watermark]);
  const add = useCallback(
    (files: File[]) => {
      waiting.current.push(...files);
      setLeft((count) => count + files.length);
      for (let free = AT_ONCE - running.current; free > 0; free -= 1) void sendThem();
    },
    [sendThem],
  );
  return { left, trouble, add, forget: () => setTrouble([]) };
}
