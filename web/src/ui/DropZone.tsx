import { useState, type CSSProperties, type DragEvent, type ReactNode } from "react";

import { droppedFiles } from "./droppedFiles";
import { useLimits } from "./useLimits";
import { useUploads } from "./useUploads";

interface Props {
  targets: string[];
  children: ReactNode;
  className?: string;
  over?: string;
  style?: CSSProperties;
  /** What is done with the files instead, where they are no artwork; false where they are. */
  instead?: (files: File[]) => boolean;
}

/** A part of the screen that takes dropped files; the innermost zone under the pointer gets them. */
export function DropZone({ targets, children, className = "", over = "", style, instead }: Props) {
  const [hovered, setHovered] = useState(false);
  const { bring } = useUploads();
  const { files_of_a_folder } = useLimits();
  const hasFiles = (event: DragEvent) => event.dataTransfer.types.includes("Files");
  return (
    <div
      style={style}
      data-targets={targets.join(",")}
      className={`${className} ${hovered ? over : ""}`}
      onDragOver={(event) => {
        if (!hasFiles(event)) return;
        event.preventDefault();
        event.stopPropagation();
        event.dataTransfer.dropEffect = "copy";
        setHovered(true);
      }}
      onDragLeave={() => setHovered(false)}
      onDrop={(event) => {
        if (!hasFiles(event)) return;
        event.preventDefault();
        event.stopPropagation();
        setHovered(false);
        if (instead?.([...event.dataTransfer.files])) return;
        void droppedFiles(event.dataTransfer, files_of_a_folder).then((batches) => {
          for (const { folder, files } of batches) bring(files, targets, folder ? [folder] : []);
        });
      }}
    >
      {children}
    </div>
  );
}
