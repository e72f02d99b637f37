import { Messages } from '@/ui/messages/messages.tsx';

export default async function MessagesPage({ params }: { params: Promise<{ who: string }> }) {
  return <Messages who={(await params).who} />;
}
