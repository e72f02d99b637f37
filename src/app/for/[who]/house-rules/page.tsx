import { HouseRules } from '@/ui/house-rules/house-rules.tsx';

export default function HouseRulesPage() {
  return <HouseRules />;
}
