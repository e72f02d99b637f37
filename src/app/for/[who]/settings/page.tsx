import { Settings } from '@/ui/settings/settings.tsx';

export default function SettingsPage() {
  return <Settings />;
}
