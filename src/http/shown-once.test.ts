import type { z } from 'zod';
import { endpoints } from './endpoints';

test('what answers with a key says so, so that the answer is kept nowhere', () => {
  const secret = /^(token|key|secret|link|password|code)$/;
  const named = endpoints
    .filter((one) => one.method !== 'GET')
    .filter((one) =>
      Object.keys((one.answer as unknown as Partial<z.ZodObject>).shape ?? {}).some((name) => secret.test(name)),
    )
    .filter((one) => !('isShownOnce' in one && one.isShownOnce))
    .map((one) => `${one.method} ${one.path}`);
  // The name of a field of one's own, which is no secret.
  expect(named).toEqual(['PUT /custom-fields']);
});
