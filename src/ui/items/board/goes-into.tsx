'use client';
import Button from '@mui/material/Button';
import { useQueryClient } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import { fromWallLenient, toWall, wallText } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { useActing, useActingWithToast } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { sentenceOf } from '../../common/fetched/refusal.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { clock, dayName, wallsOf } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { useLeaving } from '../../meetings/waiting.tsx';
import { useBlockText } from '../views/item-block.tsx';
import type { BoardLane } from './board-lanes.ts';
import type { WriteSeveral } from './item-writes.ts';
import { stepOf, usePicks } from './picks.tsx';

/** An item that was put down in another lane: what that would do is said before it is done. */
export interface GoesInto {
  readonly item: ItemWire;
  readonly from: BoardHead;
  readonly into: BoardLane;
  readonly start: number;
  readonly end: number;
  /** What is picked with it, it among them, and where each is: all of it goes, and moves by as much. */
  readonly several: readonly { readonly item: ItemWire; readonly from: BoardHead }[];
}

interface Going {
  goes: GoesInto;
  several: WriteSeveral;
  /** The item once the writes that were begun before are done. */
  asWritten: (item: ItemWire) => Promise<ItemWire>;
  onDone: () => void;
}

/** Says what is about to go into another calendar, and does it by one press. */
export function GoesIntoBar({ goes, several, asWritten, onDone }: Going) {
  return goes.several.length > 1 ? (
    <Several {...{ goes, several, onDone }} />
  ) : (
    <One {...{ goes, asWritten, onDone }} />
  );
}

/** Whether one who moved something there may move it back: as any item that is taken out of a calendar whole. */
const comesBack = ({ head }: BoardLane): boolean => head?.may.whole === true;

/** Several go at once, and come back at once: the act the other way, each to where it was. */
function Several({ goes, several, onDone }: Omit<Going, 'asWritten'>) {
  const { item, into, start, end } = goes;
  const t = useTranslations();
  const { style, toast } = useFrame();
  const client = useQueryClient();
  const picks = usePicks();
  const textOf = useBlockText();
  const { attempt, busy, refused } = useActing();
  const { attempt: takeBack } = useActingWithToast();
  const name = firstName(into.head?.owner.name ?? into.name);
  const going = goes.several.filter(({ from }) => from.calendar.key !== into.calendar);
  const by = start - wallsOf(item, style.zone).start;
  const move = async () => {
    const to = into.calendar;
    if (!to) return;
    const moveAll = async () => {
      const items = going.map(({ item }) => item);
      const answer = await several(items, { kind: 'into', to, ...stepOf(by) });
      picks.replace(answer.items);
      const home = new Map(going.map(({ item, from }) => [item.id, from.calendar.key]));
      const back = async () => {
        await takeBack(async () => {
          const items = answer.items.map(({ id, version }) => ({
            item: id,
            version: version ?? 0,
            to: home.get(id) ?? to,
          }));
          await call('changeSeveral', { body: { items, change: { kind: 'into', to, ...stepOf(-by) } } });
          picks.clear();
          toast({ text: t('board.undone') });
        });
        void client.invalidateQueries({ queryKey: KEYS.calendars });
      };
      toast({
        text: t('board.wentSeveral', { count: answer.written, name }),
        ...(comesBack(into) ? { undo: () => void back() } : {}),
      });
      onDone();
    };
    await attempt(moveAll, (why) => {
      const which = going.find((one) => one.item.id === (why.data as { item?: string } | undefined)?.item);
      const sentence = sentenceOf(why);
      return which ? t('picked.refusedOne', { title: textOf(which.item), sentence }) : sentence;
    });
    void client.invalidateQueries({ queryKey: KEYS.calendars });
  };
  const when = `${dayName(start)}, ${clock(start, style.hours)}–${clock(end, style.hours)}`;
  const from = [...new Set(going.map(({ from }) => firstName(from.owner.name)))].join(', ');
  const says = t('board.goesSeveral', { count: going.length, from, into: name, moved: by === 0 ? 'no' : 'yes', when });
  return <Says {...{ into, busy, onDone }} says={refused ?? says} onDo={() => void move()} />;
}

/** What is about to be done, for whom, and the press that does it. */
function Says(props: { says: string; into: BoardLane; busy: boolean; onDo: () => void; onDone: () => void }) {
  const { says, into, busy, onDo, onDone } = props;
  const t = useTranslations();
  const name = firstName(into.head?.owner.name ?? into.name);
  return (
    <div className={boardsCss.notice} role="alert">
      <span>{says}</span>
      <span className={`row ${boardsCss.push}`}>
        <Button variant="contained" loading={busy} onClick={onDo} autoFocus>
          {t('board.goesIntoDo', { own: into.head?.own ? 'yes' : 'no', name })}
        </Button>
        <Button variant="outlined" onClick={onDone}>
          {t('board.goesIntoLeave')}
        </Button>
      </span>
    </div>
  );
}

/** Says what moving an item into another calendar means, for whom and who hears of it, and does it by one press. */
function One({ goes, asWritten, onDone }: Omit<Going, 'several'>) {
  const { item, from, into, start, end } = goes;
  const t = useTranslations();
  const { style, toast } = useFrame();
  const leaving = useLeaving();
  const client = useQueryClient();
  const textOf = useBlockText();
  const { attempt, busy, refused } = useActing();
  const { attempt: takeBack } = useActingWithToast();
  const name = firstName(into.head?.owner.name ?? into.name);
  const zone = item.asSet?.zone && item.asSet.zone !== 'UTC' ? item.asSet.zone : style.zone;
  const text = (wall: number) => wallText(toWall(zone, fromWallLenient(style.zone, wall)));
  const was = wallsOf(item, style.zone);
  const at = (a: number, b: number) => ({ start: text(a), end: text(b), allDay: false, zone });
  const moved = start !== was.start || end !== was.end;
  const move = async () => {
    const to = into.calendar;
    if (!to) return;
    await attempt(async () => {
      const now = await asWritten(item);
      const answer = await call('moveMeeting', {
        params: { item: now.id },
        body: { to, version: now.version ?? 0, ...(moved ? { when: at(start, end) } : {}) },
      });
      const back = async () => {
        await takeBack(async () => {
          const version = answer.item?.version ?? 0;
          const when = moved ? { when: at(was.start, was.end) } : {};
          await call('moveMeeting', { params: { item: now.id }, body: { to: from.calendar.key, version, ...when } });
          toast({ text: t('board.undone') });
        });
        void client.invalidateQueries({ queryKey: KEYS.calendars });
      };
      if (answer.sending) leaving(answer.sending, into.head?.owner.name ?? '', into.head?.own === true);
      else toast({ text: t('panel.movedTo', { name }), ...(comesBack(into) ? { undo: () => void back() } : {}) });
      onDone();
    });
    void client.invalidateQueries({ queryKey: KEYS.calendars });
    void client.invalidateQueries({ queryKey: KEYS.meetings });
  };
  const says = t('board.goesInto', {
    title: textOf(item),
    from: firstName(from.owner.name),
    into: name,
    when: `${dayName(start)}, ${clock(start, style.hours)}–${clock(end, style.hours)}`,
    people: item.organiser ? (item.attendees?.length ?? 0) : 0,
  });
  return <Says {...{ into, busy, onDone }} says={refused ?? says} onDo={() => void move()} />;
}
