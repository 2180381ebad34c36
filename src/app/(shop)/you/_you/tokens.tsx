'use client';

import { useState } from 'react';
import { covers, roleNames, roles } from '@/core/access';
import type { Answer } from '@/http/interface';
import { ShownOnce } from '@/ui/controls/shown-once';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { useRole } from '@/ui/data/me';
import { submitted, useCommand } from '@/ui/data/use-command';

const touches = [['access']];

/** Programs that act in one's name over the HTTP interface. */
export function Tokens({ tokens }: { tokens: Answer<'GET /access'>['tokens'] }) {
  const mine = useRole();
  const [token, setToken] = useState('');
  const make = useCommand(
    async (form: FormData) => {
      const role = roles.find((one) => one === form.get('role'));
      const made = await api('POST /tokens', {
        body: { name: String(form.get('name')), role, days: Number(form.get('days')) },
      });
      setToken(made.token);
      return undefined;
    },
    { touches },
  );
  const end = useCommand(
    async (id: number) => {
      await api('DELETE /tokens/{id}', { params: { id } });
      return 'The token opens nothing any more';
    },
    { touches, tells: true },
  );
  return (
    <section aria-labelledby="tokens">
      <h2 id="tokens" className="mb-2 font-semibold">
        Programs
      </h2>
      {tokens.length === 0 ? <p className="quiet mb-2">No program has a token yet.</p> : null}
      <ul className="mb-3 space-y-1">
        {tokens.map((one) => (
          <li key={one.id} className="flex items-baseline gap-3">
            <span>{one.name}</span>
            <span className="quiet">
              {one.person}, {roleNames[one.role].toLowerCase()}, made <When at={one.madeAt} />
              {one.usedAt ? (
                <>
                  , used <When at={one.usedAt} />
                </>
              ) : (
                ', not used yet'
              )}
              {one.until ? (
                <>
                  , {Date.parse(one.until) > Date.now() ? 'ends' : 'ended'} <When at={one.until} />
                </>
              ) : (
                ', without an end: make it anew'
              )}
            </span>
            <button
              type="button"
              className="btn btn-xs"
              disabled={end.busy}
              onClick={() => {
                if (window.confirm(`End “${one.name}”? A program that uses it is refused at once.`))
                  void end.run(one.id);
              }}
            >
              End<span className="sr-only"> {one.name}</span>
            </button>
          </li>
        ))}
      </ul>
      <form className="flex flex-wrap items-end gap-3" onSubmit={submitted((form) => void make.run(form))}>
        <label className="flex flex-col text-[12px]">
          What it is for
          <input className="input input-sm w-56" name="name" required maxLength={80} autoComplete="off" />
        </label>
        <label className="flex flex-col text-[12px]">
          It may do
          <select className="select select-sm w-52" name="role" defaultValue={mine}>
            {roles
              .filter((one) => covers(mine, one))
              .map((one) => (
                <option key={one} value={one}>
                  all that {one === 'owner' ? 'an' : 'a'} {roleNames[one].toLowerCase()} may
                </option>
              ))}
          </select>
        </label>
        <label className="flex flex-col text-[12px]">
          It is good for
          <select className="select select-sm w-28" name="days" defaultValue="90">
            <option value="7">a week</option>
            <option value="90">90 days</option>
            <option value="366">a year</option>
          </select>
        </label>
        <button type="submit" className="btn btn-sm" disabled={make.busy}>
          Make a token
        </button>
        {make.problem ? (
          <p role="alert" className="text-error">
            {make.problem}
          </p>
        ) : null}
      </form>
      {token ? (
        <ShownOnce label="The token" value={token}>
          It is shown only now. Send it as “Authorization: Bearer …”.
        </ShownOnce>
      ) : null}
    </section>
  );
}
