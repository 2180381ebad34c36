import { Insights } from './_insights/insights';

export const metadata = { title: 'Insights' };

export default function InsightsPage() {
  return <Insights />;
}
