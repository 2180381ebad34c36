import { NotThere } from '@/ui/controls/states';

export default function NotFound() {
  return <NotThere />;
}
