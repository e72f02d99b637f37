import { notFound } from 'next/navigation';
import { traffic } from '@/server/operations/messages/traffic.ts';
import { Correspondents } from '@/ui/messages/correspondents.tsx';

export const dynamic = 'force-dynamic';

export default function CorrespondentsPage() {
  const list = traffic();
  if (!list) notFound();
  return <Correspondents traffic={list} />;
}
