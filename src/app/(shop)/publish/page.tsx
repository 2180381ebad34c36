import { PublishPage as Publish } from './_plan/publish';

export const metadata = { title: 'Publish' };

export default function PublishPage() {
  return <Publish />;
}
