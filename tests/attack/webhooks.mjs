import { createHmac } from 'node:crypto';

/** Events that nobody signed, that somebody else signed, that are old, said twice, huge or none. */
export async function forgedWebhooks({ base, call }) {
  const holes = [];
  const { accounts } = (await call('GET', '/accounts')).body;
  const sales = async () => (await call('GET', '/sales?limit=200')).body.sales.length;
  const before = await sales();
  const now = Math.floor(Date.now() / 1_000);
  const body = JSON.stringify({ type: 'sale', data: { order: 'forged-1', listing: '1', quantity: 1 } });
  const signed = (secret, id, at, text) =>
    `v1,${createHmac('sha256', secret).update(`${id}.${at}.${text}`).digest('base64')}`;
  const forms = [
    {},
    { 'webhook-id': 'a', 'webhook-timestamp': String(now), 'webhook-signature': 'v1,' },
    { 'webhook-id': 'a', 'webhook-timestamp': String(now), 'webhook-signature': signed('', 'a', now, body) },
    { 'webhook-id': 'a', 'webhook-timestamp': String(now), 'webhook-signature': signed('secret', 'a', now, body) },
    { 'webhook-id': 'a', 'webhook-timestamp': '0', 'webhook-signature': signed('secret', 'a', 0, body) },
    { 'webhook-id': 'a', 'webhook-timestamp': '1e99', 'webhook-signature': `v1,${'A'.repeat(5_000)}` },
    { 'webhook-id': '../..', 'webhook-timestamp': '-1', 'webhook-signature': 'v2,x v1,y v1,z' },
  ];
  const keys = [
    'nobody',
    '1',
    '%2e%2e%2f',
    "' or 1=1 -- ",
    'a'.repeat(4_000),
    ...accounts.map((one) => String(one.id)),
  ];
  let sent = 0;
  for (const key of keys)
    for (const headers of forms) {
      sent++;
      const answer = await fetch(`${base}/api/webhooks/${encodeURIComponent(key)}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', ...headers },
        body,
      });
      if (answer.status < 400 || answer.status >= 500)
        holes.push(`a forged event for ${key.slice(0, 20)} was answered with ${answer.status}`);
    }
  const after = await sales();
  if (after !== before) holes.push(`${after - before} sales came of it`);
  return {
    id: 'A4 forged events',
    ok: holes.length === 0,
    text: `${sent} events at ${keys.length} addresses, none believed, ${holes.length} holes`,
    holes,
  };
}
