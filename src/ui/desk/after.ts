import type { DeskAct, DeskRowWire } from '@/contract/desk.ts';
import type { After } from './desk-day.tsx';
import type { Choice } from './step-to-send.ts';

/** What a step would do to the occurrence it is about, as the day draws it; `null` where the day stays as it is. */
export function afterOf(row: DeskRowWire, act: DeskAct | undefined, chosen: Choice | undefined): After | null {
  const [first] = row.items;
  switch (act) {
    case 'another': {
      const item = row.steps.find((step) => step.act === 'another')?.item;
      return item && chosen ? { item, start: chosen.start, gone: false } : null;
    }
    case 'take':
      return first && chosen ? { item: first.id, start: chosen.start, gone: false } : null;
    case 'declined':
    case 'off':
      return first ? { item: first.id, start: null, gone: true } : null;
    case 'accepted':
    case 'tentative':
      return first ? { item: first.id, start: null, gone: false } : null;
    case 'fix':
      return chosen ? { item: chosen.value, start: null, gone: false } : null;
    default:
      return null;
  }
}

/** To whom something goes for a step: names; nobody where nothing leaves. `null` where that isn't known before it is done. */
export function toldBy(row: DeskRowWire, act: DeskAct | undefined, own: string): readonly string[] | null {
  const [first] = row.items;
  const others = row.people.filter(({ address }) => address !== own).map(({ name }) => name);
  switch (act) {
    case 'accepted':
    case 'tentative':
    case 'declined':
      return [first?.organiser?.name ?? first?.organiser?.address ?? ''];
    case 'another':
      if (row.kind === 'answer') return [first?.organiser?.name ?? first?.organiser?.address ?? ''];
      return attendeesOf(row, row.steps.find((step) => step.act === 'another')?.item, own);
    case 'take':
    case 'off':
      return others;
    case 'keep':
      return row.about?.of === 'meeting'
        ? row.about.people
            .filter((one) => one.proposes)
            .slice(0, 1)
            .map(({ name }) => name)
        : [];
    case 'nudge':
      return row.about?.of === 'meeting'
        ? row.about.people.filter((one) => one.answer === 'needs-action').map(({ name }) => name)
        : [];
    case 'place':
    case 'link':
      return others;
    case 'again':
      return row.about?.of === 'letter' ? [row.about.to] : [];
    case 'left':
    case 'without':
    case 'longer':
    case 'mend':
    case 'notice':
    case 'whoCovers':
      return [];
    case 'cover':
      return row.about?.of === 'absence' ? [row.about.cover ?? ''] : [];
    default:
      return null;
  }
}

function attendeesOf(row: DeskRowWire, item: string | undefined, own: string): string[] {
  const attendees = row.items.find(({ id }) => id === item)?.attendees ?? [];
  return attendees.filter(({ address }) => address !== own).map(({ name, address }) => name ?? address);
}
