import { Outbox } from './outbox';

export const metadata = { title: 'Outbox' };

export default function OutboxPage() {
  return <Outbox />;
}
