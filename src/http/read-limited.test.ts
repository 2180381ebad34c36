import { readForm, withForm } from './read-limited';

const post = (body: string) => new Request('http://x/', { method: 'POST', body, headers: { cookie: 'a=b' } });
const endless = () =>
  new Request('http://x/', {
    method: 'POST',
    duplex: 'half',
    body: new ReadableStream({ pull: (to) => to.enqueue(new Uint8Array(10_000)) }),
  } as RequestInit); // the types of this library do not know `duplex`

test('a short form is read, what is no JSON is nothing', async () => {
  expect(await readForm(post('{"a":1}'))).toEqual({ a: 1 });
  expect(await readForm(post('{"a":'))).toBeNull();
});

test('a form without end is not read to its end', async () => {
  await expect(readForm(endless())).rejects.toThrow('At most 64 kB');
  await expect(withForm(endless())).rejects.toThrow('At most 64 kB');
});

test('what is handed on says what it said, and what has to be said besides', async () => {
  const made = await withForm(post('{"a":1,"keep":false}'), { keep: true });
  expect(await made.json()).toEqual({ a: 1, keep: true });
  expect(made.headers.get('cookie')).toBe('a=b');
  expect(await (await withForm(post('"text"'))).json()).toEqual({});
});
