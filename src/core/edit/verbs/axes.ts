import { z } from 'zod';
import { axisSchema, mostAxes } from '../../item/variations';
import type { Json } from '../../json';
import { quoted } from './set';
import { defineVerb } from './verb';

/** What items differ in, with the values: the table of combinations follows, and keeps what was written in it. */
export const axesVerb = defineVerb({
  name: 'set-axes',
  label: 'Set to these axes',
  kinds: ['axes'],
  schema: z.object({ verb: z.literal('set-axes'), axes: z.array(axisSchema).max(mostAxes) }).strict(),
  apply: ({ axes }) => ({ to: axes as Json }),
  say: ({ axes }) =>
    axes.length
      ? `set to ${quoted(axes.map(({ name, values }) => `${name}: ${values.join(', ')}`).join('; '))}`
      : 'taken away',
});
