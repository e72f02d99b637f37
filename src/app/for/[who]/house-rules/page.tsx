import { Journeys } from '@/ui/people/journeys.tsx';
import { HouseRules } from '@/ui/sharing/house-rules.tsx';

export default function HouseRulesPage() {
  return <HouseRules after={<Journeys />} />;
}
