import { Tasks } from '@/ui/tasks/tasks.tsx';

export default async function TasksPage({ params }: { params: Promise<{ who: string }> }) {
  const { who } = await params;
  return <Tasks key={who} who={who} />;
}
