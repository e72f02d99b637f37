import { Messages } from '@/ui/messages/messages.tsx';

export default function MessagesPage() {
  return <Messages />;
}
