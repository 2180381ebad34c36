import { createHash, randomBytes } from 'node:crypto';
import { type Context, Hono } from 'hono';
import { refuse } from './answers';
import { waitForTokens } from './gate';
import { escapeHtml, page } from './page';
import type { Market, Seller } from './types';
import type { World } from './world';

type Grant = { seller: string; market: string; challenge: string; redirect: string; expires: number };
type Token = { seller: string; market: string; kind: 'access' | 'refresh'; expires: number };

const hour = 3_600_000;
const hash = (text: string) => createHash('sha256').update(text).digest('base64url');
const secret = () => randomBytes(24).toString('base64url');
const isLoopback = (address: string) => /^http:\/\/(127\.0\.0\.1|localhost)(:\d+)?\//.test(address);

/** The seller that a request speaks for, or the refusal. */
export function whoAsks(c: Context, world: World, market: Market): Seller | Response {
  const given = c.req.header('authorization')?.replace(/^Bearer /, '') ?? c.req.header('x-api-key') ?? '';
  if (market.auth === 'key') {
    const seller = world.store.all<Seller>(`sellers/${market.name}`).find((one) => one.apiKey === given);
    return seller ?? refuse(c, market, 401, 'This key is not valid.');
  }
  const token = world.store.get<Token>('tokens', hash(given));
  const isOld = token !== undefined && token.expires - hour < (world.accessFrom.get(market.name) ?? 0);
  if (!token || isOld || token.kind !== 'access' || token.market !== market.name || token.expires < world.now()) {
    return refuse(c, market, 401, 'The access token is not valid any more');
  }
  return world.seller(market.name, token.seller) ?? refuse(c, market, 401, 'No such seller');
}

async function issueTokens(world: World, market: Market, seller: string) {
  const access = secret();
  const refresh = secret();
  const now = world.now();
  await world.store.put<Token>('tokens', hash(access), {
    seller,
    market: market.name,
    kind: 'access',
    expires: now + hour,
  });
  await world.store.put<Token>('tokens', hash(refresh), {
    seller,
    market: market.name,
    kind: 'refresh',
    expires: now + 180 * 24 * hour,
  });
  return { access_token: access, refresh_token: refresh, token_type: 'Bearer', expires_in: hour / 1000, seller };
}

const signInForm = (market: Market, hidden: Record<string, string>, purpose: string, error = '') => `
<h1>${escapeHtml(purpose)}</h1>
${error ? `<p role="alert" class="bad">${escapeHtml(error)}</p>` : ''}
<form method="post">
  ${Object.entries(hidden)
    .map(([name, value]) => `<input type="hidden" name="${escapeHtml(name)}" value="${escapeHtml(value)}">`)
    .join('')}
  <p><label>Shop name on ${market.title}<br><input name="seller" autocomplete="off" required></label></p>
  <p><label>Password<br><input name="password" type="password" required></label></p>
  <p><button name="answer" value="allow">Sign in and allow</button> <button name="answer" value="deny" formnovalidate>Do not allow</button></p>
</form>`;

/** OAuth 2.0 authorisation code with PKCE (RFC 7636), refresh with rotation; or a page that shows the API key. */
export function accessRoutes(world: World, market: Market): Hono {
  const app = new Hono();
  const checkSeller = (name: string, password: string) => {
    const seller = world.seller(market.name, name);
    return seller && seller.password === password ? seller : null;
  };

  if (market.auth === 'key') {
    app.get('/account/key', (c) =>
      c.html(page(market, 'API key', signInForm(market, {}, 'Sign in to see your API key'))),
    );
    app.post('/account/key', async (c) => {
      const form = await c.req.parseBody();
      const seller = checkSeller(String(form.seller), String(form.password));
      if (!seller)
        return c.html(
          page(market, 'API key', signInForm(market, {}, 'Sign in to see your API key', 'Name or password is wrong')),
          401,
        );
      return c.html(
        page(
          market,
          'API key',
          `<h1>Your API key</h1><p>Programs that may act for <b>${escapeHtml(seller.name)}</b> need this key:</p><p><code id="api-key">${seller.apiKey}</code></p>`,
        ),
      );
    });
    return app;
  }

  app.get('/authorize', (c) => {
    const {
      redirect_uri = '',
      state = '',
      code_challenge = '',
      code_challenge_method,
      response_type,
      client_id = '',
    } = c.req.query();
    if (response_type !== 'code' || code_challenge_method !== 'S256' || !code_challenge || !isLoopback(redirect_uri)) {
      return c.html(page(market, 'Not possible', '<h1>This request for access is not complete</h1>'), 400);
    }
    return c.html(
      page(
        market,
        'Allow access',
        signInForm(
          market,
          { redirect_uri, state, code_challenge },
          `Allow ${client_id} to manage your listings and read your orders`,
        ),
      ),
    );
  });
  app.post('/authorize', async (c) => {
    const form = await c.req.parseBody();
    const hidden = {
      redirect_uri: String(form.redirect_uri),
      state: String(form.state),
      code_challenge: String(form.code_challenge),
    };
    if (!isLoopback(hidden.redirect_uri)) return c.text('bad redirect', 400);
    const back = new URL(hidden.redirect_uri);
    back.searchParams.set('state', hidden.state);
    if (form.answer === 'deny') {
      back.searchParams.set('error', 'access_denied');
      return c.redirect(back.toString());
    }
    const seller = checkSeller(String(form.seller), String(form.password));
    if (!seller)
      return c.html(
        page(
          market,
          'Allow access',
          signInForm(market, hidden, 'Sign in to allow access', 'Name or password is wrong'),
        ),
        401,
      );
    const code = secret();
    await world.store.put<Grant>('grants', hash(code), {
      seller: seller.name,
      market: market.name,
      challenge: hidden.code_challenge,
      redirect: hidden.redirect_uri,
      expires: world.now() + 60_000,
    });
    back.searchParams.set('code', code);
    return c.redirect(back.toString());
  });
  app.post('/token', async (c) => {
    const form = await c.req.parseBody();
    const fail = (error: string) => c.json({ error }, 400);
    if (form.grant_type === 'authorization_code') {
      const key = hash(String(form.code));
      const grant = world.store.get<Grant>('grants', key);
      await world.store.remove('grants', key);
      const fits =
        grant && grant.market === market.name && grant.expires > world.now() && grant.redirect === form.redirect_uri;
      if (!fits || hash(String(form.code_verifier)) !== grant.challenge) return fail('invalid_grant');
      return c.json(await issueTokens(world, market, grant.seller));
    }
    if (form.grant_type === 'refresh_token') {
      await waitForTokens(world, market);
      const key = hash(String(form.refresh_token));
      const token = world.store.get<Token>('tokens', key);
      if (!token || token.kind !== 'refresh' || token.market !== market.name || token.expires < world.now())
        return fail('invalid_grant');
      // The old one stays valid for two minutes: an answer that got lost must not lock the seller out. Some are stricter.
      const graceMs = world.odd(market.name).tokensOnce ? -1 : 120_000;
      await world.store.put<Token>('tokens', key, {
        ...token,
        expires: Math.min(token.expires, world.now() + graceMs),
      });
      return c.json(await issueTokens(world, market, token.seller));
    }
    return fail('unsupported_grant_type');
  });
  return app;
}
