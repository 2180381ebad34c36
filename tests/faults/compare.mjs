import { theirs } from '../support/drive.mjs';

/** Marketplaces on which a piece has no number of units of its own. */
const withoutQuantity = ['glintfeed', 'wallfolk'];

/**
 * Every marketplace's own list against what shall be there: each knot once, with the price and the number of units
 * that its sheet says, and nothing else.
 * @param knots item × account that were queued to be made
 */
export async function compare(settings, call, accounts, knots) {
  const problems = { lost: [], doubled: [], wrong: [] };
  const sheets = new Map();
  for (const { itemId } of knots)
    if (!sheets.has(itemId)) sheets.set(itemId, (await call('GET', `/items/${itemId}`)).body);
  for (const account of accounts) {
    const here = knots.filter((knot) => knot.accountId === account.id);
    const list = (await theirs(settings, account.market)).filter(
      (one) => one.seller === account.remoteName && (one.state === 'live' || one.state === 'review'),
    );
    const known = new Set();
    for (const { itemId } of here) {
      const { item, columns } = sheets.get(itemId);
      const column = columns.find((one) => one.accountId === account.id);
      const value = (field) => column.fields.find((one) => one.field === field)?.value;
      const name = `${item.sku} on ${account.name}`;
      // Some never take a stock number twice: it carries a mark there when it is made again.
      const there = list.filter(
        (one) => one.summary.reference === item.sku || one.summary.reference.startsWith(`${item.sku}-`),
      );
      for (const one of there) known.add(one.id);
      const gone = item.quantity < 1;
      if (there.length > 1) problems.doubled.push(name);
      if (there.length === 0 && !gone)
        problems.lost.push(`${name} (${column.state}: ${column.lastError?.message ?? ''})`);
      if (there.length === 1 && gone) problems.wrong.push(`${name} is live with nothing in stock`);
      if (there.length !== 1 || gone) continue;
      const { price, quantity } = there[0].summary;
      const wrongPrice =
        typeof value('price') === 'number' && account.market !== 'glintfeed' && price !== value('price');
      const wrongQuantity = !withoutQuantity.includes(account.market) && quantity !== value('quantity');
      if (wrongPrice || wrongQuantity)
        problems.wrong.push(`${name}: ${price}/${quantity} instead of ${value('price')}/${value('quantity')}`);
    }
    for (const one of list)
      if (!known.has(one.id)) problems.doubled.push(`${one.summary.reference} unknown on ${account.name}`);
  }
  return problems;
}

/** A line of the report. */
export const verdict = (id, problems, more, right = true) => ({
  id,
  ok: right && problems.lost.length + problems.doubled.length + problems.wrong.length === 0,
  lost: problems.lost.length,
  doubled: problems.doubled.length,
  wrong: problems.wrong.length,
  text: `${problems.lost.length} lost, ${problems.doubled.length} doubled, ${problems.wrong.length} wrong; ${more}${[
    ...problems.lost,
    ...problems.doubled,
    ...problems.wrong,
  ]
    .slice(0, 8)
    .map((one) => `\n       ${one}`)
    .join('')}`,
});
