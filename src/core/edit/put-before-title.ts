import { z } from 'zod';
import { itemField } from '../field';
import type { EditableItem, Outcome } from './outcome';

const schema = z.object({ op: z.literal('title-before'), text: z.string().min(1).max(200) });

export const putBeforeTitle = {
  name: 'title-before',
  label: 'Put before the title',
  schema,
  apply(step: z.infer<typeof schema>, item: EditableItem): Outcome {
    if (item.title === undefined) return { kind: 'refused', why: 'Its title is not known' };
    const title = `${step.text}${item.title}`;
    const checked = itemField('title')?.schema.safeParse(title);
    if (checked && !checked.success)
      return { kind: 'refused', why: checked.error.issues[0]?.message ?? 'This cannot stand in a title' };
    return { kind: 'changed', item: { ...item, title } };
  },
} as const;
