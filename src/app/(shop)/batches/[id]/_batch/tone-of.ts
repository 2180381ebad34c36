import type { LineView } from '@/services/intake/line-view';
import type { Sound } from '@/ui/scan/sounds';

/** How a piece stands, in one word: what it sounds like, its colour, and what is written beside it. */
export type Tone = { sound: Sound; words: string; edge: string; ink: string };

const tone = (sound: Sound, words: string, colour: 'info' | 'success' | 'warning' | 'error' | 'quiet'): Tone => ({
  sound,
  words,
  edge: {
    info: 'border-info',
    success: 'border-success',
    warning: 'border-warning',
    error: 'border-error',
    quiet: 'border-base-300',
  }[colour],
  ink: { info: 'text-info', success: 'text-success', warning: 'text-warning', error: 'text-error', quiet: 'quiet' }[
    colour
  ],
});

/** What is most worth knowing of a piece, right after its scan and when its details have come. */
export function toneOf(line: LineView): Tone {
  if (line.isUndone) return tone('command', 'Taken back', 'quiet');
  if (line.kind === 'none') return tone('broken', 'No code', 'error');
  if (line.kind === 'stock') return tone('known', 'In stock already', 'info');
  if (line.leave) return tone('leave', 'Leave it', 'error');
  if (line.needs.length) return tone('needs', line.finding === 'unknown' ? 'Not found' : 'Needs a word', 'warning');
  if (line.finding === 'looking') return tone('taken', 'Looking it up …', 'quiet');
  if (line.finding === 'unknown') return tone('unknown', 'Not found', 'warning');
  return tone('found', line.finding === 'known' ? 'Known in another condition' : 'New', 'success');
}
