/** What a file may be at most; past that it is refused with a word, and nothing of it is kept in memory. */
export const limits = {
  bytes: 200_000_000,
  /** What a packed file may unpack to. */
  unpackedBytes: 800_000_000,
  /** Of a spreadsheet's own list of texts, which is held in memory. */
  sharedTextBytes: 120_000_000,
  rows: 1_000_000,
  columns: 1_000,
  cell: 100_000,
  /** One row, or one record of JSON or XML. */
  rowBytes: 4_000_000,
  photos: 20_000,
  photoBytes: 60_000_000,
} as const;
