import { z } from 'zod';
import { NettingError } from '../core/errors';
import { problemOf } from './problem';
import { readLimited } from './read-limited';

const told = async (error: unknown) => {
  const answer = problemOf(error);
  return { status: answer.status, headers: answer.headers, body: (await answer.json()) as Record<string, unknown> };
};

test('what a user can mend is said: the sentence, the field, the mend, when to try again', async () => {
  const { status, headers, body } = await told(
    new NettingError('market-busy', 'Pippet is busy', { field: 'price', fix: 'Wait', retryAfterMs: 1_500 }),
  );
  expect(status).toBe(503);
  expect(headers.get('retry-after')).toBe('2');
  expect(headers.get('content-type')).toBe('application/problem+json');
  expect(body).toMatchObject({ title: 'Pippet is busy', code: 'market-busy', field: 'price', fix: 'Wait' });
});

test('what a schema refuses is named field by field', async () => {
  const schema = z.object({ title: z.string().max(3, 'At most 3 characters'), price: z.number() });
  const { status, body } = await told(schema.safeParse({ title: 'long', price: 'x' }).error);
  expect(status).toBe(422);
  expect(body).toMatchObject({ title: 'title: At most 3 characters', field: 'title' });
  expect((body.errors as { field: string }[]).map((one) => one.field)).toEqual(['title', 'price']);
});

test('of a long list that is wrong throughout fifty are told', async () => {
  const wrong = z.array(z.string()).safeParse(Array.from({ length: 5_000 }, (_, at) => at)).error;
  const { body } = await told(wrong);
  expect(body.errors).toHaveLength(50);
});

test('our own fault is not dressed up and tells nothing of the inside', async () => {
  const { status, body } = await told(new Error('select * from secret_table failed'));
  expect(status).toBe(500);
  expect(JSON.stringify(body)).not.toContain('secret_table');
});

const request = (parts: Uint8Array[], length?: number) =>
  new Request('http://127.0.0.1/', {
    method: 'POST',
    body: new ReadableStream({
      start(controller) {
        for (const part of parts) controller.enqueue(part);
        controller.close();
      },
    }),
    headers: length === undefined ? {} : { 'content-length': String(length) },
    duplex: 'half',
  } as RequestInit);

test('a body is read up to its limit, whatever it says of its length', async () => {
  const part = new Uint8Array(600).fill(1);
  expect((await readLimited(request([part]), 1_000)).length).toBe(600);
  await expect(readLimited(request([part, part]), 1_000)).rejects.toThrow(NettingError);
  await expect(readLimited(request([part], 5_000), 1_000)).rejects.toThrow(NettingError);
  expect((await readLimited(new Request('http://127.0.0.1/', { method: 'POST' }), 10)).length).toBe(0);
});
