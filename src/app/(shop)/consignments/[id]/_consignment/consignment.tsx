'use client';

import { useQuery } from '@tanstack/react-query';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useTitle } from '@/ui/frame/use-title';
import { Choosing } from './choosing';
import { ConsignmentHead } from './consignment-head';
import { Packing } from './packing';
import { ShipmentCard } from './shipment-card';

/** A consignment from what goes with it to what has arrived. */
export function Consignment({ id }: { id: number }) {
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['consignment', id],
    queryFn: () => api('GET /consignments/{id}', { params: { id } }),
    // Two may pack at it.
    refetchInterval: 4_000,
  });
  useTitle(data?.name ?? '');
  if (isPending) return <Loading what="the consignment" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  if (!data) return null;
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-var(--frame))]">
      <ConsignmentHead consignment={data} />
      {data.state === 'choosing' || data.state === 'off' ? <Choosing consignment={data} /> : null}
      {data.state === 'packing' ? <Packing consignment={data} /> : null}
      {data.state === 'shipped' || data.state === 'settled' ? (
        <div className="min-h-0 flex-1 space-y-4 p-4 lg:overflow-y-auto">
          {data.shipments.map((one) => (
            <ShipmentCard key={one.id} shipment={one} consignment={data} />
          ))}
        </div>
      ) : null}
    </div>
  );
}
