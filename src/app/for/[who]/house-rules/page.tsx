import { HouseRules } from '@/ui/sharing/house-rules.tsx';

export default function HouseRulesPage() {
  return <HouseRules />;
}
