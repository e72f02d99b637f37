import { Settings } from '@/ui/frame/settings.tsx';

export default function SettingsPage() {
  return <Settings />;
}
