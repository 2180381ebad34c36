import { config } from '../../config';
import { fetchPicture } from '../../photos/fetch-picture';

/** A picture of a listing. The marketplaces' own address is one that the shop is connected with anyhow, wherever it lies. */
export const theirPicture = (url: string): Promise<Buffer> =>
  fetchPicture(url, { trusts: new URL(config.marketsUrl).origin });
