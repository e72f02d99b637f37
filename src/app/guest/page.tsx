import { isDemo } from '@/server/operations/people/found-people.ts';
import { AskWayIn } from '@/ui/people/ask-way-in.tsx';

export const dynamic = 'force-dynamic';

export default function GuestPage() {
  return <AskWayIn demo={isDemo()} />;
}
