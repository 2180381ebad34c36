import { Workbench } from './_bulk-editor/workbench';

export const metadata = { title: 'Workbench' };

export default function WorkbenchPage() {
  return <Workbench />;
}
