import { Contacts } from '@/ui/contacts/contacts.tsx';

export default async function ContactsPage({ params }: { params: Promise<{ who: string }> }) {
  const { who } = await params;
  return <Contacts key={who} who={who} />;
}
