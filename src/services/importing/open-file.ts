import { type FileRow, formats, type Layout } from '../../files';

/** A file that is being read here: where it has come to, and of which items and combinations rows were met in which line. */
export type OpenFile = { line: number; rows: AsyncIterator<FileRow>; met: Map<string, number> };

const open = new Map<number, OpenFile>();

/**
 * The file of a task at a line: as it was left, or from its beginning after a kill, with what was compared before passed
 * over.
 */
export async function openAt(taskId: number, path: string, layout: Layout, line: number): Promise<OpenFile> {
  const known = open.get(taskId);
  open.delete(taskId);
  if (known && known.line === line) return known;
  const table = await formats[layout.format].read(path, layout);
  const here: OpenFile = { line: 0, rows: table.rows[Symbol.asyncIterator](), met: new Map() };
  while (here.line < line) {
    const next = await here.rows.next();
    if (next.done) break;
    here.line = next.value.line;
  }
  return here;
}

/** Leaves a file open for the next step of the same task here. */
export const leaveOpen = (taskId: number, here: OpenFile): void => void open.set(taskId, here);

/** The next rows, fewer at the end. */
export async function nextRows(here: OpenFile, most: number): Promise<FileRow[]> {
  const rows: FileRow[] = [];
  while (rows.length < most) {
    const next = await here.rows.next();
    if (next.done) break;
    rows.push(next.value);
    here.line = next.value.line;
  }
  return rows;
}
