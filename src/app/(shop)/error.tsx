'use client';

import { Failed } from '@/ui/controls/states';

/** A page that could not be drawn: the frame stays, and what is kept is not touched. */
export default function PageFailed({ reset }: { error: Error; reset: () => void }) {
  return <Failed error={new Error('This page could not be shown. Nothing that is kept was changed')} retry={reset} />;
}
