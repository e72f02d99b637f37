import { People } from '@/ui/people/people.tsx';

export default function PeoplePage() {
  return <People />;
}
