import { z } from 'zod';
import { longestScan } from '../../core/barcode/read-scan';
import { intakeSettingsSchema } from '../../core/batch/settings';
import { conditionIds } from '../../core/item/condition';

/** One thing that is done at the scan field; carried out once, however often it is sent. */
export const intakeActSchema = z.discriminatedUnion('act', [
  z
    .object({
      act: z.literal('scan'),
      key: z.uuid(),
      text: z.string().min(1).max(1_000).describe(`As it came; of more than ${longestScan} signs the first are kept`),
      settings: intakeSettingsSchema,
    })
    .strict(),
  z.object({ act: z.literal('undo'), of: z.uuid() }).strict(),
  z
    .object({
      act: z.literal('answer'),
      of: z.uuid(),
      grade: z.enum(conditionIds).optional(),
      price: z.number().int().min(0).max(100_000_000_00).optional(),
      expiresOn: z.iso.date().optional(),
      /** The code, or the name, that was meant. */
      text: z.string().min(1).max(200).optional(),
      /** Which of the entries that were found it is. */
      entry: z.string().max(120).optional(),
    })
    .strict(),
]);
export type IntakeAct = z.infer<typeof intakeActSchema>;
export type ScanAct = Extract<IntakeAct, { act: 'scan' }>;
export type AnswerAct = Extract<IntakeAct, { act: 'answer' }>;
