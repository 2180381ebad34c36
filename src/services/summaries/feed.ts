import { config } from '../../config';
import { atomOf } from '../../core/summary';
import { hashOf } from '../access/token-hash';
import { lastSummaries } from './make-summary';
import { readSummarySettings } from './summary-settings';

/** The feed, for whoever has its key; null for everybody else. */
export async function feedFor(key: string): Promise<string | null> {
  const { feed } = await readSummarySettings();
  if (feed === null || feed !== hashOf(key)) return null;
  const { baseUrl } = config;
  const self = `${baseUrl}/api/feed/${key}`;
  return atomOf(await lastSummaries(), { self, home: baseUrl, host: new URL(baseUrl).hostname });
}
