import { useCallback, useEffect, useRef, useState } from 'react';
import type { ItemPatch } from '@/core/item/item';
import { ApiProblem, api } from '@/ui/data/api';
import { newKey } from '@/ui/data/new-key';
import { sentenceOf } from '@/ui/data/sentence';

const delayMs = 500;
const keyOf = (itemId: number) => `netting.unsaved.${itemId}`;

export type SaveState =
  | { kind: 'saved'; at: Date | null }
  | { kind: 'typing' }
  | { kind: 'saving' }
  | { kind: 'offline' }
  | { kind: 'refused'; message: string; field?: string };
export type Conflict = { field: string; mine: unknown; theirs: unknown };

type Kept = { baseVersion: number; patch: ItemPatch; key?: string };

/** An item that was stored just now, with what was said of it. */
export type Born = { id: number; sku: string; patch: ItemPatch };

function readKept(itemId: number): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(itemId)) ?? 'null') as Kept | null; // written by `keep` below
  } catch {
    return null;
  }
}

const without = (patch: ItemPatch, refused: ReadonlyMap<keyof ItemPatch, unknown>): ItemPatch =>
  refused.size === 0
    ? patch
    : Object.fromEntries(Object.entries(patch).filter(([field]) => !refused.has(field as keyof ItemPatch))); // keys of a patch

/** What was typed into a new sheet whose storing nobody heard of: stored now, or what is missing added to it. */
async function storeKept({ patch, key }: Kept, tell: (born: Born) => void): Promise<void> {
  try {
    const { id, sku, known } = await api('POST /items', { body: { fields: patch, key } });
    if (known) await api('PATCH /items/{id}', { params: { id }, body: { baseVersion: 1, patch } });
    localStorage.removeItem(keyOf(0));
    tell({ id, sku, patch });
  } catch {
    // It stays in this browser, and is tried again with the next new sheet.
  }
}

/**
 * Saves what is typed half a second after the last key. Until the server has answered, the unsaved part is also kept
 * in this browser: a closed tab or a lost connection loses nothing.
 * @param itemId 0 for one that is not stored yet: it is with the first thing that is said of it
 */
export function useAutosave(
  itemId: number,
  version: number,
  /** Told at once what is on disk now, so that the page never shows, or builds on, what was before. */
  onSaved: (patch: ItemPatch, version: number | null) => void,
  /** Told once a new one is stored: at once, or by `kept` what had been typed into another sheet before. */
  onBorn: (born: Born, kept: boolean) => void,
) {
  const [state, setState] = useState<SaveState>({ kind: 'saved', at: null });
  const [conflicts, setConflicts] = useState<Conflict[]>([]);
  const [patch, setPatch] = useState<ItemPatch>({});
  const waiting = useRef<ItemPatch>({});
  const base = useRef(version);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const busy = useRef(false);
  const running = useRef<Promise<void>>(Promise.resolve());
  /** Set below: what is left over after a save is saved a moment later. */
  const later = useRef<() => void>(() => undefined);
  /** While two versions of a field wait for a choice nothing is sent: leaving the field must not ask again. */
  const undecided = useRef(false);
  /** What was refused stays here until it is written anew; the rest is saved without it. */
  const refused = useRef(new Map<keyof ItemPatch, SaveState>());
  const saved = useRef(onSaved);
  saved.current = onSaved;
  const told = useRef(onBorn);
  told.current = onBorn;
  /** The number of a new one, and by which it is stored once, however often it is sent. */
  const born = useRef(0);
  const key = useRef('');
  const idNow = useCallback(() => itemId || born.current, [itemId]);

  useEffect(() => {
    // While something is unsaved the base stays: it says what the change was made on.
    if (Object.keys(waiting.current).length === 0) base.current = Math.max(base.current, version);
  }, [version]);

  const keep = useCallback(() => {
    if (idNow() === 0) key.current ||= newKey();
    try {
      if (Object.keys(waiting.current).length)
        localStorage.setItem(
          keyOf(idNow()),
          JSON.stringify({ baseVersion: base.current, patch: waiting.current, key: key.current }),
        );
      else localStorage.removeItem(keyOf(idNow()));
    } catch {
      // The browser has no room for it: it is still on the page, and on its way to the server.
    }
    setPatch({ ...waiting.current });
  }, [idNow]);

  const send = useCallback(
    async (keepalive: boolean, isAsked = false) => {
      if (timer.current) clearTimeout(timer.current);
      timer.current = null;
      const sent = without(waiting.current, refused.current);
      const isNew = idNow() === 0;
      if (busy.current || undecided.current || (Object.keys(sent).length === 0 && !(isNew && isAsked))) return;
      busy.current = true;
      setState({ kind: 'saving' });
      let again = false;
      try {
        if (isNew) {
          key.current ||= newKey();
          const { id, sku } = await api('POST /items', { body: { fields: sent, key: key.current }, keepalive });
          born.current = id;
          base.current = 1;
          localStorage.removeItem(keyOf(0));
          told.current({ id, sku, patch: sent }, false);
        } else {
          const answer = await api('PATCH /items/{id}', {
            params: { id: idNow() },
            body: { baseVersion: base.current, patch: sent },
            keepalive,
          });
          base.current = answer.version;
          saved.current(sent, answer.version);
        }
        for (const field of Object.keys(sent) as (keyof ItemPatch)[])
          if (waiting.current[field] === sent[field]) delete waiting.current[field]; // keys of a patch
        waiting.current = { ...waiting.current };
        keep();
        again = Object.keys(without(waiting.current, refused.current)).length > 0;
        const [first] = refused.current.values();
        setState(again ? { kind: 'typing' } : (first ?? { kind: 'saved', at: new Date() }));
      } catch (error) {
        if (error instanceof ApiProblem && error.code === 'conflict') {
          undecided.current = true;
          setConflicts(
            error.errors.map(({ field, message }) => ({
              field,
              mine: sent[field as keyof ItemPatch],
              theirs: JSON.parse(message) as unknown,
            })),
          ); // the server names fields of the item and their values as JSON
          setState({ kind: 'refused', message: error.message });
        } else if (error instanceof ApiProblem && error.code !== 'offline' && error.status < 500) {
          const field = error.field?.replace(/^(?:patch|fields)\./, '');
          const state: SaveState = { kind: 'refused', message: sentenceOf(error), field };
          const name = field?.split('.')[0] as keyof ItemPatch; // a field of the patch that was sent, if any
          if (Object.hasOwn(sent, name)) refused.current.set(name, state);
          again = Object.hasOwn(sent, name) && Object.keys(sent).length > 1;
          setState(state);
        } else {
          setState({ kind: 'offline' });
          timer.current = setTimeout(() => later.current(), 3_000);
        }
      } finally {
        busy.current = false;
        if (again) timer.current = setTimeout(() => later.current(), delayMs);
      }
    },
    [idNow, keep],
  );

  /** Saves what is waiting, after what is on its way already: once it is done, everything typed before is on disk. */
  const flush = useCallback(
    (keepalive = false): Promise<void> => {
      const before = running.current;
      const next = keepalive ? send(true) : before.then(() => send(false));
      running.current = next.catch(() => undefined);
      return next;
    },
    [send],
  );

  /** Saves what is waiting, and stores a new item even if nothing was typed yet: its number. */
  const settle = useCallback(async (): Promise<number> => {
    const next = running.current.then(() => send(false, true));
    running.current = next.catch(() => undefined);
    await next;
    const id = idNow();
    if (id === 0) throw new Error('The item could not be stored: try again');
    return id;
  }, [idNow, send]);

  const change = useCallback(
    (part: ItemPatch) => {
      waiting.current = { ...waiting.current, ...part };
      for (const field of Object.keys(part)) refused.current.delete(field as keyof ItemPatch); // keys of a patch
      keep();
      setState({ kind: 'typing' });
      if (timer.current) clearTimeout(timer.current);
      timer.current = setTimeout(() => void flush(), delayMs);
    },
    [flush, keep],
  );

  const resolve = useCallback(
    (field: string, take: 'mine' | 'theirs') => {
      const name = field as keyof ItemPatch; // a field named by the server
      if (take === 'theirs') delete waiting.current[name];
      waiting.current = { ...waiting.current };
      setConflicts((all) => {
        const left = all.filter((one) => one.field !== field);
        if (left.length === 0) {
          // Having compared both, the change is made on what is there now.
          base.current = Number.MAX_SAFE_INTEGER;
          void api('GET /items/{id}', { params: { id: idNow() } }).then(({ item }) => {
            base.current = item.version;
            undecided.current = false;
            if (Object.keys(waiting.current).length) void flush();
            else setState({ kind: 'saved', at: new Date() });
            keep();
            saved.current({}, null);
          });
        }
        return left;
      });
    },
    [flush, idNow, keep],
  );

  useEffect(() => {
    const kept = readKept(itemId);
    if (itemId === 0 && kept?.key && Object.keys(kept.patch).length)
      void storeKept(kept, (one) => told.current(one, true));
    else if (kept && Object.keys(kept.patch).length) {
      base.current = kept.baseVersion;
      waiting.current = kept.patch;
      keep();
      void flush();
    }
    const leave = () => void flush(true);
    window.addEventListener('pagehide', leave);
    document.addEventListener('visibilitychange', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      document.removeEventListener('visibilitychange', leave);
      void flush(true);
    };
  }, [itemId, flush, keep]);

  later.current = () => void flush();
  return { state, conflicts, unsaved: patch, change, flush, settle, resolve };
}
