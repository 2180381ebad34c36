import { findSights } from '@/services/artwork/find-sights';
import { FirstData } from '../../first-data';
import { Gallery } from './_gallery/gallery';

export const metadata = { title: 'Artwork on products' };

export default function GalleryPage() {
  return (
    <FirstData lists={[{ key: ['sights'], read: () => findSights({ limit: 24 }), from: 0 }]}>
      <Gallery />
    </FirstData>
  );
}
