import { Granted } from '@/ui/sharing/granted.tsx';

export default function GrantedPage() {
  return <Granted />;
}
