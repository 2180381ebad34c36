import { Postage } from './_postage/postage';

export const metadata = { title: 'Postage and rates' };

export default function PostagePage() {
  return <Postage />;
}
