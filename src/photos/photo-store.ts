/** Files by key. Four methods and no path, so that another store can take its place. */
export type PhotoStore = {
  has(key: string): Promise<boolean>;
  read(key: string): Promise<Buffer>;
  write(key: string, bytes: Buffer): Promise<void>;
  /** Also when it is not there. */
  remove(key: string): Promise<void>;
};
