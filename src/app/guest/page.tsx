import { isDemo } from '@/server/operations/people/found-people.ts';
import { AskWayIn } from '@/ui/guest/ask-way-in.tsx';

export const dynamic = 'force-dynamic';

export default function GuestPage() {
  return <AskWayIn demo={isDemo()} />;
}
