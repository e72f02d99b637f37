import { notFound } from 'next/navigation';
import { letterbox } from '@/server/operations/people/found-people.ts';
import { Letterbox } from '@/ui/people/letterbox.tsx';

export const dynamic = 'force-dynamic';

export default function LetterboxPage() {
  const letters = letterbox();
  if (!letters) notFound();
  return <Letterbox letters={letters} />;
}
