import { useSyncExternalStore } from 'react';
import { api } from '@/ui/data/api';
import { problemOf, sendFile } from '@/ui/data/upload';

/** A file with its folders, as it was dropped. */
export type Dropped = { path: string; file: File };

/** How far a drop is: it goes on while one walks about in the application. */
export type Dropping = {
  total: number;
  done: number;
  /** Seconds left at the pace so far; null while nothing can be said. */
  secondsLeft: number | null;
  /** Why it stands still just now; it goes on by itself. */
  waits: string | null;
  isStopped: boolean;
};

const sideBySide = 3;
/** So often a file is tried that the server answers for and does not take; it is still wanted afterwards. */
const mostTries = 5;
/** The page is told so often at most: it stays free while hundreds of files come. */
const tellMs = 400;

type Work = {
  queue: { id: number; path: string; file: File }[];
  state: Dropping;
  running: number;
  began: number;
  ended: () => void;
};

const works = new Map<number, Work>();
const listeners = new Set<() => void>();
let told = 0;
let later: ReturnType<typeof setTimeout> | null = null;

/** What the page sees; a new object only when it is told. */
let seen = new Map<number, Dropping>();

/** Leaving the application ends what is under way; walking about in it does not. */
function onLeave(event: BeforeUnloadEvent): void {
  if (works.size > 0) event.preventDefault();
}

function tell(): void {
  const now = Date.now();
  if (now - told < tellMs) {
    if (later === null)
      later = setTimeout(() => {
        later = null;
        tell();
      }, tellMs);
    return;
  }
  told = now;
  seen = new Map([...works].map(([id, { state }]) => [id, { ...state }]));
  for (const one of listeners) one();
}

/** The way of a file into its drop; a lost connection is waited out. */
async function send(drop: number, { id, path, file }: Work['queue'][number], work: Work): Promise<void> {
  let tries = 0;
  for (let wait = 1_000; !work.state.isStopped; wait = Math.min(20_000, wait * 2)) {
    const answer = await sendFile(`/api/v1/photo-drops/${drop}/files/${id}`, file, path, 'PUT');
    // What is refused for itself is told with the drop; only what may pass by itself is tried again.
    if (answer && (answer.ok || [404, 409, 422].includes(answer.status) || ++tries > mostTries)) {
      work.state.waits = answer.ok ? null : await problemOf(answer, path);
      return;
    }
    work.state.waits = answer
      ? await problemOf(answer, path)
      : 'The connection is lost; it goes on as soon as it is back';
    tell();
    await new Promise((go) => setTimeout(go, wait));
  }
}

async function work(drop: number, all: Work): Promise<void> {
  all.running++;
  for (let next = all.queue.shift(); next && !all.state.isStopped; next = all.queue.shift()) {
    await send(drop, next, all);
    all.state.done++;
    const perOne = (Date.now() - all.began) / all.state.done;
    all.state.secondsLeft = Math.ceil(((all.state.total - all.state.done) * perOne) / 1_000);
    tell();
  }
  all.running--;
  if (all.running > 0) return;
  works.delete(drop);
  tell();
  all.ended();
}

const chunk = 500;
/** How large a file is has to be asked of the system, one after the other: so many are asked for at a stretch. */
const sizesAtOnce = 20;

/** Files as they are told of, by name and size; the page is let on in between. */
async function measured(files: readonly Dropped[]): Promise<{ path: string; bytes: number; file: File }[]> {
  const all: { path: string; bytes: number; file: File }[] = [];
  for (let at = 0; at < files.length; at += sizesAtOnce) {
    for (const { path, file } of files.slice(at, at + sizesAtOnce))
      all.push({ path: path.slice(-300), bytes: file.size, file });
    await new Promise((go) => setTimeout(go, 0));
  }
  return all;
}

/**
 * Brings files into a drop, a new one where none is said. The same folder dropped again goes on where it was.
 * @param ended when all of them are there
 * @returns the drop, as soon as the first files are noted
 */
export async function bringIn(
  files: readonly Dropped[],
  drop: number | undefined,
  ended: (drop: number) => void,
): Promise<number> {
  let id = drop;
  for (let at = 0; at < files.length; at += chunk) {
    const some = await measured(files.slice(at, at + chunk));
    const answer = await api('POST /photo-drops', {
      body: { drop: id, files: some.map(({ path, bytes }) => ({ path, bytes })) },
    });
    id = answer.drop;
    const here = answer.drop;
    const byName = new Map(some.map(({ path, bytes, file }) => [`${path}/${bytes}`, file]));
    const wanted = answer.wanted.flatMap(({ id: file, path, bytes }) => {
      const found = byName.get(`${path}/${bytes}`);
      return found ? [{ id: file, path, file: found }] : [];
    });
    const known = works.get(here) ?? {
      queue: [],
      state: { total: 0, done: 0, secondsLeft: null, waits: null, isStopped: false },
      running: 0,
      began: Date.now(),
      ended: () => ended(here),
    };
    known.queue.push(...wanted);
    known.state.total += wanted.length;
    works.set(here, known);
    window.addEventListener('beforeunload', onLeave);
    tell();
    while (known.running < sideBySide && (known.queue.length > 0 || known.running === 0)) void work(here, known);
  }
  return id ?? 0;
}

/** Stops bringing files in; what is there stays, and the same folder dropped again goes on. */
export function stopBringing(drop: number): void {
  const all = works.get(drop);
  if (all) all.state.isStopped = true;
  tell();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** How far a drop is in this window; undefined when nothing is under way. */
export const useDropping = (drop: number): Dropping | undefined =>
  useSyncExternalStore(
    subscribe,
    () => seen.get(drop),
    () => undefined,
  );

const entriesOf = (folder: FileSystemDirectoryEntry): Promise<FileSystemEntry[]> => {
  const reader = folder.createReader();
  const all: FileSystemEntry[] = [];
  return new Promise((resolve, reject) => {
    // A folder tells of its files a hundred at a time.
    const more = () =>
      reader.readEntries((some) => {
        if (some.length === 0) return resolve(all);
        all.push(...some);
        more();
      }, reject);
    more();
  });
};

async function walk(entry: FileSystemEntry, into: Dropped[]): Promise<void> {
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject)); // said by `isFile`
    into.push({ path: entry.fullPath.replace(/^\//, ''), file });
    return;
  }
  for (const one of await entriesOf(entry as FileSystemDirectoryEntry)) await walk(one, into); // the other kind there is
}

const isHidden = ({ path }: Dropped) => path.split('/').some((part) => part.startsWith('.'));

/** Everything that was dropped, folders with all that is in them. To be called while the event is handled. */
export function droppedFiles(transfer: DataTransfer): Promise<Dropped[]> {
  const entries = [...transfer.items].flatMap((item) => item.webkitGetAsEntry() ?? []);
  const plain = [...transfer.files].map((file): Dropped => ({ path: file.name, file }));
  return (async () => {
    if (entries.length === 0) return plain;
    const all: Dropped[] = [];
    for (const entry of entries) await walk(entry, all);
    return all.filter((one) => !isHidden(one));
  })();
}

/** Files that were chosen, a folder's with their paths. */
export const chosenFiles = (files: FileList | null): Dropped[] =>
  [...(files ?? [])]
    .map((file): Dropped => ({ path: file.webkitRelativePath || file.name, file }))
    .filter((one) => !isHidden(one));
