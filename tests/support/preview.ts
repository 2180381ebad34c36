import { call } from './stack';

export type PreviewValue = {
  field: string;
  label: string;
  value: unknown;
  shown: string;
  origin: string;
  how?: string;
  lost?: string[];
  issues: { code: string; message: string; blocks: boolean; fix: { kind: string; label: string } }[];
};
export type AccountPreview = {
  accountId: number;
  market: string;
  name: string;
  state: string;
  refusal: string | null;
  ready: boolean;
  template: { name: string; tiedWith: string[] } | null;
  values: PreviewValue[];
  titles: { text: string; lost: string[]; why: string }[];
  preview: { heading: string | null; text: string | null; html: string | null; photos: { ratio: number | null }[] };
};

/** What one account would get of an item. */
export async function previewOn(itemId: number, market: string): Promise<AccountPreview> {
  const { body } = await call<{ accounts: AccountPreview[] }>('GET', `/items/${itemId}/preview`);
  const found = body.accounts.find((one) => one.market === market);
  if (!found) throw new Error(`no account on ${market}: ${JSON.stringify(body).slice(0, 300)}`);
  return found;
}

export const valueFor = (preview: AccountPreview, field: string): PreviewValue => {
  const found = preview.values.find((one) => one.field === field);
  if (!found) throw new Error(`${preview.name} has no field ${field}`);
  return found;
};

export type Violation = {
  accountId: number;
  code: string;
  field: string;
  message: string;
  how: string;
  choices: { id: string; label: string }[];
  live: number;
  drafts: number;
  items: { id: number }[];
};
export type Rules = {
  from: number | null;
  to: number;
  changes: { path: string; from: unknown; to: unknown }[];
  live: number;
  violations: Violation[];
};

export const rulesOf = async (market: string): Promise<Rules> =>
  (await call<Rules>('GET', `/rules?market=${market}`)).body;
export const fix = (violation: Violation, value?: string, send = false) =>
  call<{ listings: number; left: number; queued: number }>('POST', '/fixes', {
    accountId: violation.accountId,
    code: violation.code,
    field: violation.field,
    message: violation.message,
    ...(value === undefined ? {} : { value }),
    send,
  });
