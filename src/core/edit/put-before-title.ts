import { z } from 'zod';
import type { EditableItem, Outcome } from './outcome';

const schema = z.object({ op: z.literal('title-before'), text: z.string().min(1).max(200) });

export const putBeforeTitle = {
  name: 'title-before',
  label: 'Put before the title',
  schema,
  apply: (step: z.infer<typeof schema>, item: EditableItem): Outcome =>
    item.title === undefined
      ? { kind: 'refused', why: 'Its title is not known' }
      : { kind: 'changed', item: { ...item, title: `${step.text}${item.title}` } },
} as const;
