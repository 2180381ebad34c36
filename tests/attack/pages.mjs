const places = [
  '/sign-in',
  '/setup',
  '/invited/nobody',
  '/phone/nobody',
  '/',
  '/people',
  '/nowhere',
  '/items/999999999',
];
const wanted = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'referrer-policy': 'same-origin',
};

/** What pages and answers say to browsers, and what a page of somebody else can make a browser do. */
export async function pagesAndForgery({ base, email, password }) {
  const holes = [];
  const nonces = new Set();
  for (const place of places) {
    const answer = await fetch(`${base}${place}`, { redirect: 'manual' });
    for (const [name, value] of Object.entries(wanted))
      if (answer.headers.get(name) !== value) holes.push(`${place}: ${name} is ${answer.headers.get(name)}`);
    const policy = answer.headers.get('content-security-policy') ?? '';
    const nonce = /'nonce-([^']+)'/.exec(policy)?.[1];
    if (!nonce || nonces.has(nonce)) holes.push(`${place}: no number used once`);
    if (/script-src[^;]*'unsafe-(inline|eval)'/.test(policy)) holes.push(`${place}: any script may run`);
    nonces.add(nonce);
    const html = await answer.text();
    for (const [tag] of html.matchAll(/<script\b[^>]*>/g))
      if (!tag.includes(`nonce="${nonce}"`) && !/\ssrc="\/_next\//.test(tag))
        holes.push(`${place}: a script without the number: ${tag.slice(0, 80)}`);
    if (/\son\w+="/.test(html.replace(/<script[\s\S]*?<\/script>/g, ''))) holes.push(`${place}: a handler in the page`);
  }
  const data = (await fetch(`${base}/api/health`)).headers;
  if (!data.get('content-security-policy')?.includes("default-src 'none'")) holes.push('data may run something');
  if (
    (await fetch(`${base}/api/health`, { headers: { 'x-forwarded-proto': 'https' } })).headers.has(
      'strict-transport-security',
    )
  )
    holes.push('a stranger’s word was believed about TLS');

  const signIn = await fetch(`${base}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: base },
    body: JSON.stringify({ email, password }),
  });
  const cookies = signIn.headers.getSetCookie();
  if (!signIn.ok || cookies.length === 0) holes.push(`signing in was answered with ${signIn.status}`);
  for (const one of cookies)
    if (!/httponly/i.test(one) || !/samesite=(lax|strict)/i.test(one))
      holes.push(`a cookie is open: ${one.split('=')[0]}`);
  const cookie = cookies.map((one) => one.split(';')[0]).join('; ');
  const origins = [
    'http://shop.example',
    'null',
    `${base}.shop.example`,
    base.replace('http', 'https'),
    `http://shop.example#${base}`,
  ];
  let forged = 0;
  for (const origin of origins)
    for (const host of [null, 'shop.example']) {
      forged++;
      const answer = await fetch(`${base}/api/v1/searches`, {
        method: 'POST',
        headers: { cookie, origin, 'content-type': 'application/json', ...(host ? { 'x-forwarded-host': host } : {}) },
        body: '{}',
      });
      if (answer.status !== 403) holes.push(`a request from ${origin} was answered with ${answer.status}`);
    }
  const plain = await fetch(`${base}/api/v1/searches`, {
    method: 'POST',
    headers: { cookie, 'content-type': 'text/plain', origin: base },
    body: '{}',
  });
  if (plain.status !== 422) holes.push(`a form’s kind of body was answered with ${plain.status}`);
  return {
    id: 'A7 what browsers are told, and requests of others',
    ok: holes.length === 0,
    text: `${places.length} pages, ${nonces.size} numbers, ${forged} forged requests, ${holes.length} holes`,
    holes,
  };
}
