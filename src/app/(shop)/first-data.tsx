import {
  type DehydrateOptions,
  defaultShouldDehydrateQuery,
  dehydrate,
  HydrationBoundary,
  QueryClient,
  type QueryKey,
} from '@tanstack/react-query';
import { headers } from 'next/headers';
import { cache, type ReactNode } from 'react';
import { seesCosts } from '@/http/require-role';
import { actorOf } from '@/services/access/identify-actor';
import { Listening } from '@/ui/frame/listening';

type Read = {
  key: QueryKey;
  read: () => Promise<unknown>;
  /** It follows when it is there; nothing waits for it. */
  isLater?: boolean;
};
/** A list that is read on page by page: its first page, and what stands for *from the beginning* in its query. */
type ReadPage = Read & { from: number | string };

/** What is still being read goes along as a promise. */
const withPending: DehydrateOptions = {
  shouldDehydrateQuery: (query) => defaultShouldDehydrateQuery(query) || query.state.status === 'pending',
};

/** Who asks for this page; looked up once a request. */
export const whoAsks = cache(async () => actorOf(await headers()));

/**
 * Hands a page's first data out with it: read here by the services themselves, put where the page's own queries look,
 * so that nothing has to be asked for before something is seen. What cannot be read is left to the page, which says so.
 * Who must not see what was paid asks for everything over HTTP, where it is taken out.
 * A page is rendered beside its layout, not after it: who is not signed in gets nothing here, whatever the layout does.
 */
export async function FirstData({
  lists,
  isFrame = false,
  children,
}: {
  lists: (Read | ReadPage)[];
  /** The frame is seen at once; what is typed into waits until the page listens. */
  isFrame?: boolean;
  children: ReactNode;
}) {
  const who = await whoAsks();
  if (!who) return null;
  const client = new QueryClient();
  await Promise.all(
    (isFrame || seesCosts(who.role) ? lists : []).map((one) => {
      const read =
        'from' in one
          ? client.prefetchInfiniteQuery({ queryKey: one.key, queryFn: one.read, initialPageParam: one.from })
          : client.prefetchQuery({ queryKey: one.key, queryFn: one.read });
      return one.isLater ? undefined : read;
    }),
  );
  return (
    <HydrationBoundary state={dehydrate(client, withPending)}>
      {isFrame ? children : <Listening>{children}</Listening>}
    </HydrationBoundary>
  );
}

export type SearchParams = Promise<Record<string, string | string[] | undefined>>;

/** Whether an address says nothing besides the page. */
export const isPlain = async (params: SearchParams): Promise<boolean> => Object.keys(await params).length === 0;
