'use client';

import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { PlanCard } from './plan-card';
import type { View } from './view';

/** The plans beside each other: asked for, asked again, compared, one taken. */
export function Plans({ consignment }: { consignment: View }) {
  const { id, plans, planId, state, units } = consignment;
  const touches = [['consignment', id], ['consignments']];
  const ask = useCommand(
    async (again?: string) => {
      await api('POST /consignments/{id}/plans', { params: { id }, body: again ? { again } : {} });
      return undefined;
    },
    { touches },
  );
  const take = useCommand(
    async (plan: string) => {
      const { shipments } = await api('POST /consignments/{id}/take', { params: { id }, body: { plan } });
      return shipments === 1
        ? 'One shipment, its units are set aside'
        : `${shipments} shipments, their units are set aside`;
    },
    { touches },
  );
  const last = plans.at(-1);
  const isOpen = state === 'choosing';
  const total = (plan: View['plans'][number]) =>
    plan.costs.placing + plan.costs.labelling + plan.costs.prep + (plan.costs.postage ?? 0);
  const cheapest = plans.length > 1 ? Math.min(...plans.map(total)) : null;
  return (
    <section aria-label="Plans" className="space-y-3">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="mr-auto font-semibold">Where it goes</h2>
        {isOpen ? (
          <>
            {last ? (
              <button
                type="button"
                className="btn btn-sm"
                disabled={ask.busy}
                onClick={() => void ask.run(last.planId)}
              >
                Another split
              </button>
            ) : null}
            <button
              type="button"
              className={`btn btn-sm ${plans.length ? '' : 'btn-primary'}`}
              disabled={ask.busy || units.length === 0}
              onClick={() => void ask.run()}
            >
              Ask for a plan
            </button>
          </>
        ) : null}
      </div>
      {ask.busy ? <p className="quiet">Asking which warehouse takes what …</p> : null}
      {ask.problem || take.problem ? (
        <p role="alert" className="text-error">
          {ask.problem || take.problem}
        </p>
      ) : null}
      {plans.length === 0 && !ask.busy ? (
        <p className="quiet">
          The marketplace says which units go to which warehouse, and what that costs. Ask again for another split, then
          take the one that suits you.
        </p>
      ) : null}
      {plans.map((plan, index) => (
        <PlanCard
          key={plan.planId}
          plan={plan}
          number={index + 1}
          total={total(plan)}
          isCheapest={total(plan) === cheapest}
          isTaken={plan.planId === planId}
          take={isOpen && !take.busy ? () => void take.run(plan.planId) : null}
        />
      ))}
    </section>
  );
}
