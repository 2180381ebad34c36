import { createHash } from 'node:crypto';

export const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');
