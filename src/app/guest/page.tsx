import { isDemo } from '@/server/operations/people/found-people.ts';
import { RequestWayIn } from '@/ui/people/request-way-in.tsx';

export const dynamic = 'force-dynamic';

export default function GuestPage() {
  return <RequestWayIn demo={isDemo()} />;
}
