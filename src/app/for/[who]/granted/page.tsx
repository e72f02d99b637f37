import { Granted } from '@/ui/sharing/requests/granted.tsx';

export default function GrantedPage() {
  return <Granted />;
}
