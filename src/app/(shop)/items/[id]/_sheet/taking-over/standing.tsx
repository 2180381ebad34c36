import { type Standing as Stands, standingLabels } from '@/core/item/standing';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

/** That an item was put away, with the way back. */
export function Standing({ itemId, standing, saved }: { itemId: number; standing: Stands; saved: () => void }) {
  const putBack = useCommand(
    async () => {
      const selection = { kind: 'items' as const, ids: [itemId] };
      const steps = [
        { field: 'standing', where: { on: 'item' as const }, do: { verb: 'set' as const, value: 'active' } },
      ];
      await api('POST /edits', {
        body: { selection, steps, send: false, title: 'standing set to “In the inventory”' },
      });
      saved();
      return 'It is back in the inventory';
    },
    { touches: [['items'], ['stages']] },
  );
  if (standing === 'active') return null;
  return (
    <div role="status" className="flex items-center gap-3 border-b border-base-300 bg-base-200 px-4 py-1.5">
      <span>
        {standingLabels[standing]}: it stands in no list and is offered nowhere. Its number and its sales are kept.
      </span>
      <button type="button" className="btn btn-sm" disabled={putBack.busy} onClick={() => void putBack.run()}>
        Put back
      </button>
      {putBack.problem ? (
        <span role="alert" className="text-error">
          {putBack.problem}
        </span>
      ) : null}
    </div>
  );
}
