'use client';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { heardBy, type InvitedPerson, type Said } from '../../meetings/heard.ts';
import { type Draft, type Values, whenOf } from './item-values.ts';

/** What a form would say to others: how many, and how many of them are outside. */
export interface Sends {
  readonly to: number;
  readonly outside: number;
  readonly maySpeak: boolean;
}

/**
 * Whom a form asks, beside its fields: those who are on the meeting, until others are chosen. Of what somebody else calls, `theirs` says
 * who does: what is theirs can't be typed over.
 */
export function useItemPeople(
  draft: Draft,
  head: BoardHead,
  forward: boolean,
  savedPeople: readonly InvitedPerson[] | null,
) {
  const item = draft.kind === 'change' ? draft.item.id : null;
  const query = useQuery({
    queryKey: KEYS.meeting(item),
    queryFn: () => call('readMeeting', { params: { item: item ?? '' } }),
    enabled: item !== null && !forward,
    retry: false,
  });
  const directory = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}), staleTime: 60_000 });
  const [chosen, setChosen] = useState<readonly InvitedPerson[] | null>(savedPeople);
  const [tellAll, setTellAll] = useState(false);
  const meeting = query.data ?? null;
  // Whoever puts a change forward begins with those the item shows them.
  const shown = forward && draft.kind === 'change' ? (draft.item.attendees ?? []) : [];
  const standing: InvitedPerson[] =
    meeting?.part === 'organiser'
      ? meeting.people.map(({ address, name, role, group }) => ({ address, name, role, group }))
      : shown.map(({ address, name, role }) => ({ address, name, role: role ?? 'must', group: null }));
  const people = chosen ?? standing;
  const inside = new Set(directory.data?.people.map((p) => p.address));
  const owner = directory.data?.people.find((p) => p.handle === head.owner.handle)?.address ?? '';
  const theirs = meeting?.part === 'attendee' ? (meeting.organiser?.name ?? meeting.organiser?.address ?? '') : null;

  const saidBy = (v: Values, who: readonly InvitedPerson[]): Said => ({
    when: whenOf(v),
    rule: `${v.repeat} ${v.repeatUntil}`,
    title: v.title,
    place: v.place,
    link: v.link,
    notes: v.notes,
    people: who,
  });
  const sends = (before: Values, now: Values): Sends | null => {
    if (theirs !== null || forward || (people.length === 0 && standing.length === 0)) return null;
    const was = item === null ? null : saidBy(before, standing);
    const to = heardBy(was, saidBy(now, people), meeting, tellAll);
    if (to.length === 0) return null;
    const isOutside = (address: string) => directory.data !== undefined && !inside.has(address);
    return {
      to: to.length,
      outside: to.filter(isOutside).length,
      maySpeak: head.may.speak,
    };
  };
  return { people, setPeople: setChosen, touched: chosen !== null, owner, theirs, sends, tellAll, setTellAll, meeting };
}
