/** What the first column of a file is called, so that it leads back to what was written out. */
export const exportHeader = (name: string, exportId: number): string => `${name} (export ${exportId})`;

/** Which export a file was written out as, by what its first column is called. */
export function exportNamed(headers: readonly string[]): number | null {
  for (const header of headers) {
    const hit = /\(export (\d{1,9})\)$/i.exec(header.trim());
    if (hit?.[1]) return Number(hit[1]);
  }
  return null;
}
