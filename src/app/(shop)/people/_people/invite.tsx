'use client';

import { useState } from 'react';
import { type Role, roleNames, roles } from '@/core/access';
import type { Answer } from '@/http/interface';
import { ShownOnce } from '@/ui/controls/shown-once';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';

const touches = [['people']];

/** A link by which one person joins; shown once, good once, for a day. */
export function Invite({ invitations }: { invitations: Answer<'GET /people'>['invitations'] }) {
  const [made, setMade] = useState<{ link: string; forWhom: string } | null>(null);
  const [role, setRole] = useState<Role>('seller');
  const make = useCommand(
    async (form: FormData) => {
      const forWhom = String(form.get('forWhom'));
      const { link } = await api('POST /people/invite', { body: { role, forWhom } });
      setMade({ link, forWhom });
      return undefined;
    },
    { touches },
  );
  const withdraw = useCommand(
    async (id: number) => {
      await api('DELETE /invitations/{id}', { params: { id } });
      return 'The link opens nothing any more';
    },
    { touches, tells: true },
  );
  return (
    <section aria-labelledby="invite">
      <h2 id="invite" className="mb-2 font-semibold">
        Invite somebody
      </h2>
      <form className="flex flex-wrap items-end gap-3" onSubmit={submitted((form) => void make.run(form))}>
        <label className="flex flex-col text-[12px]">
          Whom
          <input className="input input-sm w-56" name="forWhom" required maxLength={120} autoComplete="off" />
        </label>
        <label className="flex flex-col text-[12px]">
          As
          <select
            className="select select-sm w-32"
            value={role}
            onChange={({ target }) => setRole(roles.find((one) => one === target.value) ?? 'packer')}
          >
            {roles.map((one) => (
              <option key={one} value={one}>
                {roleNames[one]}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="btn btn-sm" disabled={make.busy}>
          Make a link
        </button>
        {make.problem ? (
          <p role="alert" className="text-error">
            {make.problem}
          </p>
        ) : null}
      </form>
      {made ? (
        <ShownOnce label={`Link for ${made.forWhom}`} value={made.link}>
          Give this to {made.forWhom}. It is shown only now, and good once, until this time tomorrow.
        </ShownOnce>
      ) : null}
      {invitations.length > 0 ? (
        <ul className="mt-3 space-y-1" aria-label="Open invitations">
          {invitations.map((one) => (
            <li key={one.id} className="flex items-center gap-3">
              <span>{one.forWhom}</span>
              <span className="quiet">
                {roleNames[one.role]}, invited by {one.byName}, good until <When at={one.expiresAt} />
              </span>
              <button
                type="button"
                className="btn btn-xs"
                disabled={withdraw.busy}
                onClick={() => void withdraw.run(one.id)}
              >
                Withdraw<span className="sr-only"> the invitation of {one.forWhom}</span>
              </button>
            </li>
          ))}
        </ul>
      ) : null}
    </section>
  );
}
