import { z } from 'zod';
import { newKey } from './new-key';

test('keys are of 128 bits, none twice, also where the browser has no randomUUID', () => {
  const before = crypto.randomUUID;
  Object.assign(crypto, { randomUUID: undefined });
  try {
    const keys = Array.from({ length: 1_000 }, newKey);
    expect(new Set(keys).size).toBe(1_000);
    for (const key of keys) expect(z.uuidv4().safeParse(key).success).toBe(true);
  } finally {
    Object.assign(crypto, { randomUUID: before });
  }
});
