import NextLink from 'next/link';
import type { ComponentProps } from 'react';

/**
 * A way to another page of ours. What a page shows is read when one goes there: fetched before, it would be of before,
 * and a list of items would have the page of each of them made on the server each time that it is seen.
 */
export const Link = (props: Omit<ComponentProps<typeof NextLink>, 'prefetch'>) => (
  <NextLink prefetch={false} {...props} />
);
