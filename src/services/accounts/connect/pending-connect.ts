export const callbackPath = '/api/connect/callback';

export type Pending = { market: string; verifier: string; expires: number; userId: string };
