/** Files that came together, with the folder that they lay in (empty: none). */
export interface Batch {
  folder: string;
  files: File[];
}

const HIDDEN = /^(\.|__MACOSX$|Thumbs\.db$|desktop\.ini$)/i;

/** What was dropped: files as they are, folders with all that lies in them, at any depth; at most so many. */
export async function droppedFiles(transfer: DataTransfer, most: number): Promise<Batch[]> {
  // Both must be asked for now: after the event they are gone.
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry?.() ?? null);
  const files = [...transfer.files];
  if (!entries.some((entry) => entry?.isDirectory)) return [{ folder: "", files }];
  const found: [string, File][] = [];
  for (const entry of entries) if (entry) await walk(entry, "", found, most);
  return batches(found);
}

/** What was chosen in a dialog for folders. */
export const chosenFolder = (files: File[], most: number): Batch[] =>
  batches(
    files
      .filter((file) => !file.webkitRelativePath.split("/").some((name) => HIDDEN.test(name)))
      .slice(0, most)
      .map((file) => [file.webkitRelativePath.split("/").at(-2) ?? "", file]),
  );

function batches(found: [string, File][]): Batch[] {
  const byFolder = new Map<string, File[]>();
  for (const [folder, file] of found) byFolder.set(folder, [...(byFolder.get(folder) ?? []), file]);
  return [...byFolder].map(([folder, files]) => ({ folder, files }));
}

async function walk(
  entry: FileSystemEntry,
  folder: string,
  found: [string, File][],
  most: number,
): Promise<void> {
  if (HIDDEN.test(entry.name) || found.length >= most) return;
  if (entry.isFile) {
    found.push([folder, await fileOf(entry as FileSystemFileEntry)]);
    return;
  }
  for (const inner of await entriesOf((entry as FileSystemDirectoryEntry).createReader()))
    await walk(inner, entry.name, found, most);
}

const fileOf = (entry: FileSystemFileEntry) =>
  new Promise<File>((resolve, reject) => entry.file(resolve, reject));

/** All entries of a folder: a reader gives a hundred at a time, and none at its end. */
async function entriesOf(reader: FileSystemDirectoryReader): Promise<FileSystemEntry[]> {
  const all: FileSystemEntry[] = [];
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((resolve, reject) =>
      reader.readEntries(resolve, reject),
    );
    if (some.length === 0) return all;
    all.push(...some);
  }
}
