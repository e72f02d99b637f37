import { notFound } from 'next/navigation';
import { Parts } from './parts.tsx';

export const dynamic = 'force-dynamic';

/** Every part in every state, by day and by night: for whoever builds screens, and nowhere else. */
export default function PartsPage() {
  if (process.env.NODE_ENV === 'production') notFound();
  return <Parts />;
}
