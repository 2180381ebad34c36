'use client';

import type { QueryKey } from '@tanstack/react-query';
import { api } from './api';
import { useCommand } from './use-command';

/** Stopping a piece of long work, and letting it go on from where it was. */
export function useTask(id: number | null | undefined, touches: QueryKey[]) {
  const deed = (verb: 'stop' | 'resume') => async () => {
    if (id) await api(`POST /tasks/{id}/${verb}`, { params: { id }, body: {} });
    return undefined;
  };
  const options = { touches: [...touches, ['tasks']], tells: true };
  return { stop: useCommand(deed('stop'), options), goOn: useCommand(deed('resume'), options) };
}
