'use client';

import { Failed } from '@/ui/controls/states';

/**
 * A page that could not be drawn, also because it is of before an update: the frame stays, what is kept is not touched,
 * and it is fetched anew.
 */
export default function PageFailed() {
  const error = new Error('This page could not be shown. Nothing that is kept was changed');
  return <Failed error={error} retry={() => window.location.reload()} />;
}
