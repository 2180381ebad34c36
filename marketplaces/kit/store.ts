import { open, type RootDatabase } from 'lmdb';

/** Collections of JSON documents, held in memory and written through to disk; a write is durable when awaited. */
export class Store {
  readonly #db: RootDatabase;
  readonly #collections = new Map<string, Map<string, unknown>>();

  constructor(folder: string) {
    this.#db = open({ path: folder, compression: false, noMemInit: true });
    for (const { key, value } of this.#db.getRange({})) {
      const [collection, id] = key as [string, string]; // every key is written as such a pair below
      this.#collection(collection).set(id, value);
    }
  }

  #collection(name: string): Map<string, unknown> {
    let map = this.#collections.get(name);
    if (!map) {
      map = new Map();
      this.#collections.set(name, map);
    }
    return map;
  }

  get<T>(collection: string, id: string): T | undefined {
    return this.#collection(collection).get(id) as T | undefined; // a collection holds one type, known to its caller
  }

  all<T>(collection: string): T[] {
    return [...this.#collection(collection).values()] as T[]; // as above
  }

  async put<T>(collection: string, id: string, value: T): Promise<T> {
    this.#collection(collection).set(id, value);
    await this.#db.put([collection, id], value);
    return value;
  }

  async remove(collection: string, id: string): Promise<void> {
    this.#collection(collection).delete(id);
    await this.#db.remove([collection, id]);
  }

  close(): Promise<void> {
    return this.#db.close();
  }
}
