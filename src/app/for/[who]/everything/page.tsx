import { Everything } from '@/ui/sharing/everything.tsx';

/** All of whoever one works for, or of somebody else (`?of=`). */
export default async function EverythingPage(props: {
  params: Promise<{ who: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { who } = await props.params;
  const { of } = await props.searchParams;
  const whose = typeof of === 'string' ? of : who;
  return <Everything key={whose} who={whose} />;
}
