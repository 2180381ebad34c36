import type { Interface } from '@/http/interface';
import { api } from './api';

/** What can be removed and had back. */
export type RemovedKind = NonNullable<Interface['POST /removed/back']['body']>['kind'];

/** Has one of a kind back as it was, by the number that it had. */
export const bringBack = (kind: RemovedKind, id: number): Promise<unknown> =>
  api('POST /removed/back', { body: { kind, id } });
