import { z } from 'zod';

/** What may stand in braces in an address of one's own, and the item's field that it is. */
export const lookUpParts = ['barcode', 'title', 'brand', 'model', 'sku'] as const;
type Facts = Record<(typeof lookUpParts)[number], string>;

/** An address somewhere else, with parts of an item in braces: `https://books.example/find?q={barcode}`. */
export const lookUpSchema = z
  .object({
    name: z.string().trim().min(1, 'A name for the look-up').max(40),
    address: z
      .string()
      .trim()
      .max(500)
      .superRefine((text, context) => {
        const say = (message: string) => context.addIssue({ code: 'custom', message });
        const stranger = [...text.matchAll(/\{([^}]*)\}/g)].find(
          ([, part]) => !(lookUpParts as readonly string[]).includes(part ?? ''),
        );
        if (stranger) say(`There is no ${stranger[0]}; there are ${lookUpParts.map((part) => `{${part}}`).join(', ')}`);
        else if (!/^https?:\/\/[^/{}\s]+(\/\S*|\?\S*)?$/i.test(text))
          say('An address begins with http:// or https:// and a name');
      }),
  })
  .strict();
export type LookUp = z.infer<typeof lookUpSchema>;

/** The address for an item; null where nothing is known of it that the address asks for. */
export function lookUpAddress({ address }: LookUp, facts: Facts): string | null {
  const asked = lookUpParts.filter((part) => address.includes(`{${part}}`));
  if (asked.length && asked.every((part) => facts[part].trim() === '')) return null;
  return address.replace(/\{(\w+)\}/g, (_, part: keyof Facts) => encodeURIComponent(facts[part] ?? ''));
}
