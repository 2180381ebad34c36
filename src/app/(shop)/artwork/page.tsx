import { findArtworks } from '@/services/artwork/find-artworks';
import { FirstData } from '../first-data';
import { Artworks } from './_artwork/artworks';

export const metadata = { title: 'Artwork' };

export default function ArtworkPage() {
  return (
    <FirstData lists={[{ key: ['artworks'], read: () => findArtworks({ limit: 48 }), from: 0 }]}>
      <Artworks />
    </FirstData>
  );
}
