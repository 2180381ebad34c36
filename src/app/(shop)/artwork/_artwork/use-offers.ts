'use client';

import { useQuery } from '@tanstack/react-query';
import type { Answer } from '@/http/interface';
import { api } from '@/ui/data/api';

type Offers = Answer<'GET /artworks/offers'>;
/** Something that artwork is printed on at a marketplace. */
export type Product = Offers['products'][number];

const none: Offers = { grounds: [], products: [] };

/** Every ground and every product that artwork is printed on anywhere. */
export const useOffers = (): Offers =>
  useQuery({ queryKey: ['artwork-offers'], queryFn: () => api('GET /artworks/offers') }).data ?? none;
