import { z } from 'zod';
import { quoted } from './set';
import { defineVerb } from './verb';

export const fillVerb = defineVerb({
  name: 'fill',
  label: 'Fill from a pattern',
  kinds: ['text', 'rich'],
  schema: z.object({ verb: z.literal('fill'), pattern: z.string().min(1, 'Type a pattern').max(20_000) }).strict(),
  apply({ pattern }, _value, { variables, engines }) {
    const { text, problem } = engines.render(pattern, variables());
    if (problem === null) return { to: text.trim() };
    return { refused: problem.kind === 'missing' ? `It has no ${problem.what.replace(/_/g, ' ')}` : problem.what };
  },
  say: ({ pattern }) => `filled from ${quoted(pattern)}`,
});
