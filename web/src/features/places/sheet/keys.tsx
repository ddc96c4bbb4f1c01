import type { ReactNode } from "react";

import { CutFields, GroundFields, SeenFields, VeilFields } from "./LookFields";
import { CapacityFields, MotionFields, NamingFields, TransparencyFields, WeightFields } from "./FileFields";
import { FormatFields } from "./FormatFields";
import { SizeFields } from "./SizeFields";
import { UploadFields } from "./UploadFields";
import type { Draft } from "./useDraft";
import { ZoneFields } from "./ZoneFields";

export const ASKED = [
  "size",
  "formats",
  "max_bytes",
  "transparency",
  "motion",
  "capacity",
  "fields",
  "naming",
] as const;
export const SEEN = ["cut", "veil", "covered", "windows", "seen", "grounds"] as const;
export type Key = (typeof ASKED)[number] | (typeof SEEN)[number];

/** What each key is called, and what it is made of. */
export const FIELDS: Record<Key, { title: string; fields: (draft: Draft) => ReactNode }> = {
  size: { title: "Size", fields: (draft) => <SizeFields draft={draft} /> },
  formats: { title: "Formats", fields: (draft) => <FormatFields draft={draft} /> },
  max_bytes: { title: "Weight", fields: (draft) => <WeightFields draft={draft} /> },
  transparency: { title: "Transparency", fields: (draft) => <TransparencyFields draft={draft} /> },
  motion: { title: "Motion", fields: (draft) => <MotionFields draft={draft} /> },
  capacity: { title: "How many files", fields: (draft) => <CapacityFields draft={draft} /> },
  fields: { title: "What it asks for beside the file", fields: (draft) => <UploadFields draft={draft} /> },
  naming: { title: "File name", fields: (draft) => <NamingFields draft={draft} /> },
  cut: { title: "Cut", fields: (draft) => <CutFields draft={draft} /> },
  veil: { title: "Veil", fields: (draft) => <VeilFields draft={draft} /> },
  covered: { title: "Covered zones", fields: (draft) => <ZoneFields draft={draft} of="covered" /> },
  windows: { title: "Windows", fields: (draft) => <ZoneFields draft={draft} of="windows" /> },
  seen: { title: "Sizes seen", fields: (draft) => <SeenFields draft={draft} /> },
  grounds: { title: "Grounds", fields: (draft) => <GroundFields draft={draft} /> },
};
