'use client';
import Autocomplete, { createFilterOptions } from '@mui/material/Autocomplete';
import Dialog from '@mui/material/Dialog';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ContactWire } from '@/contract/contacts.ts';
import type { FrameAnswer } from '@/contract/frame.ts';
import type { SearchAnswer } from '@/contract/search.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import { dateText } from '@/core/time/index.ts';
import { useDueWords } from '../common/due-words.ts';
import { usePaused } from '../common/fetched/preview.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { said as refusalOf } from '../common/fetched/refusal.ts';
import { saveDraft } from '../common/fetched/saved-drafts.ts';
import { useFrame } from '../common/frame-context.tsx';
import { atText, clock, fullDay, whenText } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import { draftOf, type Meant, meantBy, meantWhen } from '../items/form/from-sentence.ts';
import { sendMeant, speaksAgainst } from '../items/form/item-sending.ts';
import { mainTarget, useBoardOf, useTargetNames, useTargets } from '../items/form/targets.tsx';
import { foundAt } from '../items/panels/found-at.ts';
import { type PlainGoal, useGoals } from './finder-goals.ts';
import { type NextOpening, useNextOpening } from './next-opening.ts';

/** However many people there are, a list stays short enough to look through; what one calls a thing elsewhere finds it too. */
const few = createFilterOptions<Goal>({ limit: 60, stringify: ({ label, also }) => `${label} ${also ?? ''}` });

/** Somewhere to go, or what typed words come to: `found` where it was found by words that need not stand in its line. */
interface Goal extends PlainGoal {
  readonly found?: 'items' | 'tasks' | 'contacts' | 'messages';
  /** What it would make, where it is a sentence that was read. */
  readonly meant?: Meant;
  /** The next time that works, and the form begun there. */
  readonly next?: NextOpening;
}

const NOBODY: never[] = [];

/** So long after the last stroke items are looked for. */
const PAUSE_MS = 150;

/** The command palette: everything one can go to or begin, by typing. */
export function FinderDialog({ open, setOpen }: { open: boolean; setOpen: (open: boolean) => void }) {
  const t = useTranslations('finder');
  const router = useRouter();
  const { frame, principal } = useFrame();
  const [typed, setTyped] = useState('');
  const { found, looked } = useFound(open ? typed : '');
  const { style, now, toast } = useFrame();
  const client = useQueryClient();
  const errors = useTranslations();
  const people = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}), enabled: open });

  const places = useQuery({
    queryKey: KEYS.journeys,
    queryFn: () => call('listJourneys', {}),
    enabled: open && frame.me.inside,
    staleTime: 300_000,
    retry: false,
  });
  const { calendars, pending } = useTargets(open);
  const namesOf = useTargetNames();
  const boardOf = useBoardOf();
  // A name is none before it is known whose there are.
  const meant =
    typed.trim() === '' || !principal || people.isPending || pending
      ? null
      : meantBy(typed, {
          now: now(),
          style,
          people: people.data?.people ?? [],
          places: placesOf(places.data?.journeys ?? []),
          calendars: namesOf(calendars, principal.handle),
        });
  const target = meant?.into ?? (principal && mainTarget(principal));
  /** Whose calendar it goes into, and which of theirs, for its sentences. */
  const goesInto = target && {
    own: target.owner.own ? 'yes' : 'no',
    name: firstName(target.owner.name),
    further: target.main ? 'no' : 'yes',
    calendar: target.name,
  };
  const next = useNextOpening(
    open ? typed : '',
    principal,
    people.data?.people ?? [],
    placesOf(places.data?.journeys ?? []),
  );
  const nextWords = next && {
    count: next.request.length,
    own: next.principal.own ? 'yes' : 'no',
    name: firstName(next.principal.name),
    people: next.names.join(', '),
    has: next.names.length > 0 ? 'yes' : 'no',
    place: next.request.place || 'none',
  };
  const openings: Goal[] =
    next && nextWords
      ? [
          {
            label: t(next.all ? 'find' : 'next', {
              ...nextWords,
              state: next.found === undefined ? 'looking' : next.found === null ? 'none' : 'found',
              time: next.found
                ? `${fullDay(next.found.start)}, ${clock(next.found.start, style.hours)}–${clock(next.found.end, style.hours)}`
                : '',
            }),
            goal: next.screen,
            next,
          },
        ]
      : [];
  const said: Goal[] =
    meant && goesInto && !next
      ? [
          {
            label: t('said', {
              ...goesInto,
              title: meant.sentence.title,
              what: [
                meantWhen(meant, style),
                meant.values.place,
                meant.people.length > 0
                  ? t('saidWith', { people: meant.people.map((p) => p.name ?? p.address).join(', ') })
                  : null,
                meant.values.visibility ? errors(`visibilities.${meant.values.visibility}`) : null,
                meant.values.shows ? errors(`statuses.${meant.values.shows}`) : null,
                meant.sentence.rule ? t('saidRepeats') : null,
              ]
                .filter(Boolean)
                .join(', '),
            }),
            goal: 'said',
            meant,
          },
        ]
      : [];
  /** Opens the form with what was meant, or, by Ctrl or Command with Enter, saves it as it was read back. */
  const make = async (what: Meant, atOnce: boolean) => {
    if (!target || !goesInto) return;
    setOpen(false);
    setTyped('');
    const draft = draftOf(what, target, boardOf(target));
    if (!atOnce || what.people.length > 0 || what.values.repeat === 'said') {
      saveDraft(draft);
      router.push(draft.href);
      return;
    }
    const calendar = target.key;
    const refresh = () => client.invalidateQueries({ queryKey: KEYS.calendar(calendar) });
    try {
      // Saved unseen is only what nothing speaks against.
      if (await speaksAgainst(calendar, what, style.zone)) {
        saveDraft(draft);
        router.push(draft.href);
        toast({ text: t('saidAgainst', { title: what.sentence.title }) });
        return;
      }
      const { undo } = await sendMeant(calendar, what, style.zone);
      toast({
        text: t('saidSaved', { ...goesInto, title: what.sentence.title }),
        undo: () =>
          void call('undo', { body: { undo } })
            .then(() => toast({ text: errors('board.undone') }))
            .catch((error) => toast({ text: refusalOf(error, errors('common.unreachable')).sentence }))
            .finally(refresh),
      });
      await refresh();
    } catch (error) {
      // What was typed is kept, as any form is.
      saveDraft(draft);
      toast({ text: refusalOf(error, errors('common.unreachable')).sentence });
    }
  };
  // Beneath what was found, and with it: coming first it would be pushed away from under a press.
  const weeks: Goal[] =
    looked && principal
      ? [
          {
            label: t('weeks', {
              words: typed.trim(),
              own: principal.own ? 'yes' : 'no',
              name: firstName(principal.name),
            }),
            goal: `/for/${principal.handle}/calendar?${new URLSearchParams({ find: typed.trim() })}`,
            found: 'items',
          },
        ]
      : [];
  const options: readonly Goal[] = useGoals(people.data?.people ?? NOBODY);

  const shown = [
    ...openings,
    ...said,
    ...few([...options], { inputValue: typed, getOptionLabel: ({ label }) => label }),
    ...found,
    ...weeks,
  ];
  /** Whether a line was chosen by arrow or mouse since the last stroke. Until then Enter takes the first line, even one that has just come. */
  const chosen = useRef(false);
  const take = (option: Goal) => {
    if (option.meant) {
      void make(option.meant, false);
      return;
    }
    setOpen(false);
    setTyped('');
    const found = option.next?.found;
    if (found && option.next && !option.next.all) {
      const { principal } = option.next;
      const key = `next ${found.start}`;
      const to = new URLSearchParams({ week: dateText(found.start), kept: key });
      const href = `/for/${principal.handle}/calendar?${to}`;
      const { name, colour } = principal;
      saveDraft({ key, title: '', owner: name, colour, href, data: found.form });
      router.push(href);
      return;
    }
    if (option.act) void option.act();
    else router.push(option.goal);
  };

  return (
    <Dialog
      open={open}
      onClose={() => setOpen(false)}
      fullWidth
      maxWidth="sm"
      aria-label={t('title')}
      slotProps={{ paper: { sx: { border: '1px solid var(--line)', p: 1.5, alignSelf: 'flex-start', mt: 8 } } }}
    >
      <Autocomplete
        open
        disablePortal
        autoHighlight
        options={shown}
        filterOptions={(all) => all}
        groupBy={(o) => (o.found ? t(o.found) : '')}
        onInputChange={(_, text) => {
          setTyped(text);
          chosen.current = false;
        }}
        onHighlightChange={(_, __, reason) => {
          chosen.current ||= reason === 'keyboard' || reason === 'mouse';
        }}
        getOptionKey={(o) => (o.next ? 'next' : `${o.goal} ${o.label}`)}
        noOptionsText={t('none')}
        // The list is all there is here: leaving it is leaving the whole.
        onClose={(_, reason) => {
          if (reason === 'escape') setOpen(false);
        }}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          const atOnce = event.ctrlKey || event.metaKey;
          const [first] = shown;
          if (!(atOnce && meant) && (chosen.current || !first)) return;
          event.preventDefault();
          (event as { defaultMuiPrevented?: boolean }).defaultMuiPrevented = true;
          if (atOnce && meant) void make(meant, true);
          else if (first) take(first);
        }}
        onChange={(_, option) => {
          if (option) take(option);
        }}
        slotProps={{
          listbox: { sx: { maxHeight: 320 } },
          paper: { sx: { border: 0, position: 'static' } },
          popper: { sx: { position: 'static !important', transform: 'none !important', width: '100% !important' } },
        }}
        renderInput={(params) => (
          <TextField
            {...params}
            autoFocus
            placeholder={t('placeholder')}
            slotProps={{
              ...params.slotProps,
              htmlInput: { ...params.slotProps?.htmlInput, 'aria-label': t('title') },
            }}
          />
        )}
      />
    </Dialog>
  );
}

/** The places of some journeys. */
const placesOf = (journeys: readonly (readonly [string, string, number])[]): string[] => [
  ...new Set([...journeys.map(([a]) => a), ...journeys.map(([, b]) => b)]),
];

/**
 * Items, tasks, contacts and mails whose words hold what is typed, in every calendar, list, address book and folder one may look into: where each
 * is, whose, and when. `looked` is true once the search for exactly these words has ended.
 */
function useFound(typed: string): { readonly found: Goal[]; readonly looked: boolean } {
  const { frame, style } = useFrame();
  const dueWords = useDueWords();
  const words = typed.trim();
  const settled = usePaused(words, PAUSE_MS);
  const query = useQuery({
    queryKey: KEYS.found(settled),
    queryFn: () => call('search', { query: { words: settled, everywhere: '1' } }),
    enabled: settled.length >= 2 && words.length >= 2,
    placeholderData: (before) => before,
    retry: false,
  });
  if (words.length < 2) return { found: [], looked: false };
  const looked = settled === words && !query.isPending && !query.isPlaceholderData;
  const answer = query.data as SearchAnswer | undefined;
  const tasks = (answer?.tasks ?? []).map(({ task, owner, of }) => ({
    label: [task.title, dueWords(task), of, owner.name].filter(Boolean).join(' · '),
    goal: taskAt(frame, owner.handle, task),
    found: 'tasks' as const,
  }));
  const items = (answer?.found ?? []).map((one) => ({
    label: [one.item.title, whenText(one.item, style), one.item.place, one.owner.name].filter(Boolean).join(' · '),
    goal: foundAt(one, frame, style),
    found: 'items' as const,
  }));
  const contacts = (answer?.contacts ?? []).map(({ contact, owner, of }) => ({
    label: [contact.name, contact.organisation, contact.phones?.[0]?.value, of, owner.name].filter(Boolean).join(' · '),
    goal: contactAt(frame, owner.handle, contact),
    found: 'contacts' as const,
  }));
  const messages = (answer?.messages ?? []).map(({ owner, folder, message }) => ({
    label: [message.subject || message.firstLine, message.from, atText(message.at, style), owner.name]
      .filter(Boolean)
      .join(' · '),
    goal: messageAt(frame, owner.handle, folder.key, message.id),
    found: 'messages' as const,
  }));
  return { found: [...contacts, ...tasks, ...messages, ...items], looked };
}

/** Where a message is opened: with its owner's for whoever acts for them, else among one's own. */
function messageAt({ me, principals }: FrameAnswer, owner: string, folder: string, message: string | null): string {
  const who = principals.some((p) => p.handle === owner) ? owner : me.handle;
  return `/for/${who}/messages?${new URLSearchParams({ folder, ...(message === null ? {} : { message }) })}`;
}

/** Where a contact is opened: with its owner's books for whoever acts for them, else among one's own. */
function contactAt({ me, principals }: FrameAnswer, owner: string, { book, id }: ContactWire): string {
  const who = principals.some((p) => p.handle === owner && p.contacts) ? owner : me.handle;
  return `/for/${who}/contacts?${new URLSearchParams({ list: book, contact: id })}`;
}

/** Where a task is opened: with its owner's lists for whoever acts for them, else among one's own. */
function taskAt({ me, principals }: FrameAnswer, owner: string, { list, id, done }: TaskWire): string {
  const who = principals.some((p) => p.handle === owner && p.tasks) ? owner : me.handle;
  return `/for/${who}/tasks?${new URLSearchParams({ list, task: id, ...(done ? { done: '1' } : {}) })}`;
}
