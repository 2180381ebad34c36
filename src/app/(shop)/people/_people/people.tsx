'use client';

import { useQuery } from '@tanstack/react-query';
import { type Role, roleNames, roles } from '@/core/access';
import type { Answer } from '@/http/interface';
import { AsFile } from '@/ui/controls/as-file';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Failed, Loading, PageHead } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { Invite } from './invite';

type Told = Answer<'GET /people'>;
type Person = Told['people'][number];
const touches = [['people']];
const isRole = (text: string): text is Role => roles.some((role) => role === text);

/** Who works here, as what, who is invited, and what was done about it. */
export function People() {
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['people'],
    queryFn: () => api('GET /people'),
  });
  return (
    <>
      <PageHead title="People">
        <AsFile of="GET /people/file" what="What was done, and who signed in," />
      </PageHead>
      {isPending ? <Loading what="the people" /> : null}
      {isLoadingError ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data ? (
        <div className="grid max-w-5xl grid-cols-[minmax(0,1fr)] gap-8 p-4">
          <Here people={data.people} />
          <Invite invitations={data.invitations} />
          <Events
            id="done"
            head="What was done"
            events={data.events}
            none="Nobody was invited or let go, and no account was connected yet. Who changed an item stands in its own history."
          />
          <Events
            id="sign-ins"
            head="Who signed in"
            events={data.signIns}
            none="Nobody has signed in since this is kept."
          />
        </div>
      ) : null}
    </>
  );
}

function Here({ people }: { people: Person[] }) {
  const change = useCommand(
    async (person: Person, role: Role) => {
      await api('POST /people/role', { body: { id: person.id, role } });
      return `${person.name} is ${roleNames[role].toLowerCase()} now`;
    },
    { touches, tells: true },
  );
  const remove = useCommand(
    async (person: Person) => {
      await api('POST /people/remove', { body: { id: person.id } });
      return `${person.name} cannot sign in any more`;
    },
    { touches, tells: true },
  );
  const columns: Column<Person>[] = [
    { id: 'name', head: 'Name', names: true, cell: (one) => one.name },
    { id: 'email', head: 'E-mail address', cell: (one) => one.email },
    {
      id: 'role',
      head: 'Role',
      cell: (one) => (
        <select
          className="select select-sm"
          aria-label={`Role of ${one.name}`}
          value={one.role}
          disabled={change.busy}
          onChange={({ target }) => {
            if (isRole(target.value)) void change.run(one, target.value);
          }}
        >
          {roles.map((role) => (
            <option key={role} value={role}>
              {roleNames[role]}
            </option>
          ))}
        </select>
      ),
    },
    { id: 'two', head: 'Second step', cell: (one) => (one.twoStep ? 'on' : <span className="quiet">off</span>) },
    {
      id: 'seen',
      head: 'Last seen',
      cell: (one) => (one.seenAt ? <When at={one.seenAt} /> : <span className="quiet">not signed in</span>),
    },
    {
      id: 'go',
      head: 'Let go',
      isHeard: true,
      align: 'right',
      cell: (one) => (
        <button
          type="button"
          className="btn btn-xs"
          disabled={remove.busy}
          onClick={() => {
            if (
              window.confirm(`Let ${one.name} go? Sessions and tokens end at once. What was done stays in the history.`)
            )
              void remove.run(one);
          }}
        >
          Let go<span className="sr-only"> {one.name}</span>
        </button>
      ),
    },
  ];
  return (
    <section aria-labelledby="here">
      <h2 id="here" className="mb-2 font-semibold">
        Who works here
      </h2>
      <DataTable rows={people} columns={columns} idOf={(one) => one.id} look="part" />
      <dl className="quiet mt-2 grid grid-cols-[auto_1fr] gap-x-3 text-[12px]">
        <dt>Owner</dt>
        <dd>everything</dd>
        <dt>Seller</dt>
        <dd>everything but people and connecting accounts</dd>
        <dt>Packer</dt>
        <dd>takes in, photographs, counts, labels and sends in; does not see what was paid for anything</dd>
      </dl>
    </section>
  );
}

function Events({ id, head, events, none }: { id: string; head: string; events: Told['events']; none: string }) {
  return (
    <section aria-labelledby={id}>
      <h2 id={id} className="mb-2 font-semibold">
        {head}
      </h2>
      {events.length === 0 ? (
        <p className="quiet">{none}</p>
      ) : (
        <ol className="grid grid-cols-[auto_auto_1fr] gap-x-4 gap-y-1">
          {events.map((one) => (
            <li key={one.id} className="contents">
              <span className="quiet">
                <When at={one.at} />
              </span>
              <span>{one.byName}</span>
              <span>{one.what}</span>
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
