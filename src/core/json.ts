import { z } from 'zod';

export type Json = string | number | boolean | null | Json[] | { [key: string]: Json };

/** Any JSON value, as such. */
export const jsonSchema: z.ZodType<Json> = z.json();

/** A record's own value: a word such as `constructor`, which every object knows, finds nothing. */
export const ownValue = <T>(record: Record<string, T>, key: string): T | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined;

/** Deep equality of JSON values; key order does not matter, absent and undefined are the same. */
export function sameJson(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (a === null || b === null || typeof a !== 'object' || typeof b !== 'object') return (a ?? null) === (b ?? null);
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  if (Array.isArray(a) && Array.isArray(b)) {
    return a.length === b.length && a.every((value, index) => sameJson(value, b[index]));
  }
  const left = a as Record<string, unknown>; // both are plain objects here
  const right = b as Record<string, unknown>;
  const keys = new Set([...Object.keys(left), ...Object.keys(right)]);
  for (const key of keys) if (!sameJson(left[key] ?? null, right[key] ?? null)) return false;
  return true;
}

/** Whether no text in it, and no name, holds half of a character: databases and other programs refuse those. */
export function isWellFormed(value: unknown): boolean {
  if (typeof value === 'string') return !/\p{Surrogate}/u.test(value);
  if (value === null || typeof value !== 'object') return true;
  return Object.entries(value).every(([name, one]) => isWellFormed(name) && isWellFormed(one));
}
