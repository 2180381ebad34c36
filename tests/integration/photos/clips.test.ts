import { jpeg, publishItems, readyItem, sheet, stateOn, upload } from '../../support/items';
import { accountOf, call, marketListings, stack, until } from '../../support/stack';

const authorization = { authorization: `Bearer ${stack.token}` };
const clipOf = async (id: number) => (await call<{ item: { clip: string } }>('GET', `/items/${id}`)).body.item.clip;
const edit = (ids: number[], what: Record<string, unknown>, send = false) =>
  call<{ runId: number; title?: string }>('POST', '/edits', {
    selection: { kind: 'items', ids },
    steps: [{ field: 'clip', do: what }],
    send,
    title: 'Clip',
  });
const finished = (runId: number) =>
  until(
    async () =>
      (await call<{ tasks: { runId: number; state: string }[] }>('GET', '/tasks')).body.tasks.find(
        (one) => one.runId === runId,
      ),
    (task) => task?.state === 'done',
    240_000,
  );
/** Seconds of an MP4, by the time scale and the duration of its movie header. */
function secondsOf(mp4: Buffer): number {
  const at = mp4.indexOf('mvhd');
  return mp4.readUInt32BE(at + 20) / mp4.readUInt32BE(at + 16);
}

test('a clip of eight photos: made in the background, played, taken by the marketplace that shows clips, and taken back', async () => {
  const { id, sku } = (await readyItem()) as { id: number; sku: string };
  for (let at = 0; at < 7; at++) await upload(id, await jpeg(1_000 + at, ['#335577', '#773355', '#557733'][at % 3]));
  const oakhand = await accountOf('Oakhand');
  await publishItems([id], [oakhand]);
  await until(
    () => stateOn(id, oakhand),
    (state) => state === 'live',
  );
  const { body } = await edit([id], { verb: 'clip-make', photos: 8, seconds: 8 }, true);
  const hash = await until(
    () => clipOf(id),
    (clip) => clip !== '',
    120_000,
  );
  await finished(body.runId);
  const answer = await fetch(`${stack.base}/api/clips/${hash}`, { headers: authorization });
  const mp4 = Buffer.from(await answer.arrayBuffer());
  expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'video/mp4']);
  expect(secondsOf(mp4)).toBeGreaterThan(6);
  expect(secondsOf(mp4)).toBeLessThanOrEqual(8);
  expect(mp4.includes('avc1')).toBe(true);
  const part = await fetch(`${stack.base}/api/clips/${hash}`, { headers: { ...authorization, range: 'bytes=4-7' } });
  expect([part.status, await part.text()]).toEqual([206, 'ftyp']);

  const number = (await marketListings('oakhand', sku)).find((one) => one.state === 'live')?.id;
  const page = () => fetch(`${stack.markets}/oakhand/listing/${number}`).then((one) => one.text());
  const shown = await until(page, (html) => html.includes('<video'), 120_000);
  const film = /src="(\/oakhand\/clip\/[^"]+)"/.exec(shown)?.[1];
  expect((await fetch(`${stack.markets}${film}`)).headers.get('content-type')).toBe('video/mp4');
  await until(
    () => stateOn(id, oakhand),
    (state) => state === 'live',
  );

  // The same photos make the same film; taken back it is gone there, too.
  await call('POST', `/runs/${body.runId}/undo`, { send: true });
  expect(await clipOf(id)).toBe('');
  await until(page, (html) => !html.includes('<video'));
  await edit([id], { verb: 'clip-make', photos: 8, seconds: 8 });
  expect(
    await until(
      () => clipOf(id),
      (clip) => clip !== '',
    ),
  ).toBe(hash);
}, 480_000);

test('one photo makes no clip, and says so', async () => {
  const { id } = await readyItem();
  const { photos } = (await sheet(id)).item;
  expect(photos).toHaveLength(1);
  const preview = await call<{ rows: { refused: string | null }[] }>('POST', '/edits/preview', {
    selection: { kind: 'items', ids: [id] },
    steps: [{ field: 'clip', do: { verb: 'clip-make' } }],
  });
  expect(preview.body.rows[0]?.refused).toBe('A clip needs two photos or more');
  expect((await fetch(`${stack.base}/api/clips/${'a'.repeat(64)}`, { headers: authorization })).status).toBe(404);
  expect((await fetch(`${stack.base}/api/clips/${'a'.repeat(64)}`)).status).toBe(401);
});
