import type { RequestOf } from '@/ui/data/api';

/** Settles what differs, and says what was done. */
export type Settle = (body: NonNullable<RequestOf<'POST /drift/settle'>['body']>, said: string) => Promise<unknown>;
