import { NothingHere } from '@/ui/common/nothing-here.tsx';

// Rendered on each request, so that its scripts carry the request's nonce.
export const dynamic = 'force-dynamic';

export default function NotFound() {
  return <NothingHere />;
}
