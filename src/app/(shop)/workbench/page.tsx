import { Workbench } from './_bench/workbench';

export const metadata = { title: 'Workbench' };

export default function WorkbenchPage() {
  return <Workbench />;
}
