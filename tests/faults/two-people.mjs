/**
 * R5: two people write the same field of the same item at the same moment while a bulk edit runs over all. One of the
 * two is told; the bulk edit's prices and the winner's words both stand, and the history names every change.
 */
export async function twoPeople(call, items) {
  const trouble = [];
  let told = 0;
  for (const { id } of items) {
    const before = (await call('GET', `/items/${id}`)).body.item;
    const write = (who) =>
      call('PATCH', `/items/${id}`, { baseVersion: before.version, patch: { notes: `${who} was here` } });
    const [first, second, bulk] = await Promise.all([
      write('Ada'),
      write('Bo'),
      call('POST', '/edits', {
        selection: { kind: 'items', ids: [id] },
        steps: [{ field: 'price', do: { verb: 'set', value: before.price + 100 } }],
        send: false,
      }),
    ]);
    const after = (await call('GET', `/items/${id}`)).body.item;
    const won = [first, second].filter((one) => one.status === 200);
    told += [first, second].filter((one) => one.status === 409).length;
    const winner = won.length === 1 ? (first.status === 200 ? 'Ada' : 'Bo') : null;
    if (won.length > 1) trouble.push(`${before.sku}: both were taken`);
    if (winner && after.notes !== `${winner} was here`) trouble.push(`${before.sku}: the taken words are gone`);
    if (bulk.status >= 400 || after.price !== before.price + 100) trouble.push(`${before.sku}: the bulk edit is gone`);
    const { history } = (await call('GET', `/items/${id}/history`)).body;
    const changes = history.filter((one) => one.kind === 'change');
    if (!changes.some((one) => one.field === 'price' && one.to === before.price + 100))
      trouble.push(`${before.sku}: the history misses the price`);
  }
  return {
    id: 'R5 two people and a bulk edit',
    ok: trouble.length === 0 && told > 0,
    text: `${trouble.length} changes lost unseen on ${items.length} items, ${told} times somebody was told${trouble.map((one) => `\n       ${one}`).join('')}`,
  };
}
