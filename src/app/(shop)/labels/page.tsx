import { Labels } from './_labels/labels';

export const metadata = { title: 'Labels' };

export default function LabelsPage() {
  return <Labels />;
}
