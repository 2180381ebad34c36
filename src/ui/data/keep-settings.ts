import type { Interface } from '@/http/interface';
import { api } from './api';
import type { Said } from './use-command';

type Some = NonNullable<Interface['PUT /settings']['body']>;

/** Keeps settings of the shop, and says so with the way back to what they were. */
export async function keepSettings(body: Some, text: string): Promise<Said> {
  const before: Record<string, unknown> = await api('GET /settings');
  await api('PUT /settings', { body });
  const was = Object.fromEntries(Object.keys(body).map((name) => [name, before[name]])) as Some; // as the server told them
  return { text, back: () => api('PUT /settings', { body: was }) };
}
