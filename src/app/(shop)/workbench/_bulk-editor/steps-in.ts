import { type Step, stepSchema } from '@/core/edit/step';

/** The steps that an address asks for; none where it asks for something else. */
export function stepsIn(text: string | null): Step[] {
  if (text === null) return [];
  try {
    const read = stepSchema.array().max(20).safeParse(JSON.parse(text));
    return read.success ? read.data : [];
  } catch {
    return [];
  }
}
