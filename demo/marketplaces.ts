/** What the demo's people do at the marketplaces: they use the same pages and forms as anybody. */

const form = (fields: Record<string, string>) => ({
  method: 'POST',
  headers: { 'content-type': 'application/x-www-form-urlencoded' },
  body: new URLSearchParams(fields),
  redirect: 'manual' as const,
});

/** Signs in on the consent page and allows access; returns what the marketplace sends back in the address. */
export async function allowAccess(authorizeUrl: string, seller: string): Promise<Record<string, string>> {
  const page = await fetch(authorizeUrl);
  const html = await page.text();
  const hidden = Object.fromEntries(
    [...html.matchAll(/<input type="hidden" name="([^"]+)" value="([^"]*)">/g)].map((hit) => [
      hit[1] ?? '',
      (hit[2] ?? '').replace(/&amp;/g, '&'),
    ]),
  );
  const answer = await fetch(
    authorizeUrl.split('?')[0] ?? authorizeUrl,
    form({ ...hidden, seller, password: 'shop-password', answer: 'allow' }),
  );
  const back = answer.headers.get('location');
  if (!back) throw new Error(`${authorizeUrl} did not send anybody back (${answer.status})`);
  return Object.fromEntries(new URL(back).searchParams);
}

/** Reads an account's key from its page. */
export async function readKey(keyPage: string, seller: string): Promise<string> {
  const html = await (await fetch(keyPage, form({ seller, password: 'shop-password', answer: 'allow' }))).text();
  const key = /<code id="api-key">([^<]+)<\/code>/.exec(html)?.[1];
  if (!key) throw new Error(`${keyPage} shows no key`);
  return key;
}

/** Something that buyers, chance or the marketplace do. */
export async function control(
  marketsUrl: string,
  market: string,
  action: string,
  body: Record<string, unknown>,
): Promise<Record<string, unknown>> {
  const answer = await fetch(`${marketsUrl}/control/api/${market}/${action}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  const json: unknown = await answer.json();
  if (!answer.ok) throw new Error(`${market}/${action}: ${JSON.stringify(json)}`);
  return json as Record<string, unknown>; // the control interface always answers with an object
}
