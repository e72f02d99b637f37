import type { DeskAct, DeskRowWire } from '@/contract/desk.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import type { DeskRow } from '@/core/desk/index.ts';
import { causeOf, type Gathered } from './desk.ts';
import type { SeenItem } from './item-facts.ts';

type Step = { readonly act: DeskAct; readonly item?: string };

/** The steps of a row that the viewer may take, numbered from the best (docs/desk.md). */
export function stepsOf(gathered: Gathered, row: DeskRow): DeskRowWire['steps'] {
  return actsOf(gathered, row).map((step, i) => ({ n: i + 1, ...step }));
}

function actsOf({ seen, known }: Gathered, row: DeskRow): readonly Step[] {
  const items = row.items.flatMap((id) => seen.get(id) ?? []);
  const [first] = items;
  const item = first ? { item: first.view.id } : {};
  switch (row.kind) {
    case 'answer':
      return [{ act: 'accepted' }, { act: 'tentative' }, { act: 'declined' }, { act: 'another', ...item }];
    case 'refused':
      return [
        { act: 'another', ...item },
        { act: 'without' },
        ...(first?.view.may?.remove ? [{ act: 'off' } as const] : []),
      ];
    case 'proposal':
      return [{ act: 'take' }, { act: 'keep' }, { act: 'another', ...item }];
    case 'silent':
      return [{ act: 'nudge' }, { act: 'another', ...item }];
    case 'unset':
      return [{ act: 'place' }, { act: 'link' }];
    case 'clash':
    case 'journey': {
      const moved = leastTold(items);
      return moved ? [{ act: 'another', item: moved.view.id }, { act: 'left' }] : [{ act: 'left' }];
    }
    case 'hold':
      return [{ act: 'fix' }, { act: 'longer' }, { act: 'free' }];
    case 'wish':
      return [{ act: 'left' }];
    case 'suggestion':
      return [{ act: 'yes' }, { act: 'no' }];
    case 'ask':
      return [{ act: 'answerAsk' }];
    case 'claim':
      return [{ act: 'count' }, { act: 'left' }];
    case 'letter':
      return [{ act: 'again' }, { act: 'left' }];
    case 'mail':
      return [{ act: 'reply' }, { act: 'left' }];
    case 'task':
      return [{ act: 'done' }, { act: 'tomorrow' }];
    case 'grant':
      return [...(row.due === null ? [] : [{ act: 'extend' } as const]), { act: 'left' }, { act: 'takeAccess' }];
    case 'open':
      return [{ act: 'mend' }, { act: 'left' }];
    case 'away': {
      const about = known.get(causeOf(row.key).cause)?.about;
      const named = about?.of === 'absence' && about.cover !== null && about.mayCover;
      return [
        ...(row.because.some(({ why }) => why === 'notice') ? [{ act: 'notice' } as const] : []),
        ...(row.because.some(({ why }) => why === 'cover') ? [{ act: named ? 'cover' : 'whoCovers' } as const] : []),
        { act: 'left' },
      ];
    }
    default:
      return [{ act: 'left' }];
  }
}

/** Of what may be moved and is called here, the one of which the fewest people are told; of two such the shorter. */
function leastTold(items: readonly SeenItem[]): SeenItem | undefined {
  const told = (view: ItemWire): number => (view.attendees ?? []).length;
  return items
    .filter(({ view, fact }) => view.may?.change && !view.asSet?.fixed && !fact.allDay)
    .filter(({ view }) => view.organiser == null || view.calledHere === true)
    .sort((a, b) => told(a.view) - told(b.view) || a.fact.end - a.fact.start - (b.fact.end - b.fact.start))[0];
}
