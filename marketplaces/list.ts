import { crateway } from './crateway/market';
import { glintfeed } from './glintfeed/market';
import { hallowick } from './hallowick/market';
import type { RoutedMarket } from './kit/routes';
import { lanesend } from './lanesend/market';
import { lotbarn } from './lotbarn/market';
import { oakhand } from './oakhand/market';
import { pippet } from './pippet/market';
import { selasar } from './selasar/market';
import { shopfront } from './shopfront/market';
import { swishel } from './swishel/market';
import { wallfolk } from './wallfolk/market';

/** The only list of marketplaces: a new one is its folder and a line here. */
export const markets: RoutedMarket[] = [
  hallowick,
  pippet,
  oakhand,
  swishel,
  lanesend,
  glintfeed,
  selasar,
  crateway,
  lotbarn,
  wallfolk,
  shopfront,
];
