'use client';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { DeskAnswer } from '@/contract/desk.ts';
import type { LiveMessage } from '@/contract/items/live.ts';
import { Follower } from './follow.ts';
import { KEYS } from './query-keys.ts';
import { refetchOnce } from './refetch-once.ts';

/** What shows by somebody's access what is in calendars, lists and folders, whichever they are. */
const SEEN_BY_ACCESS = [
  KEYS.found(),
  KEYS.everyTask,
  KEYS.everyContact,
  KEYS.everyonesMessages,
  KEYS.everythings,
  KEYS.desks,
  KEYS.accessRequests,
  KEYS.suggestions,
] as const;

export type LiveState =
  | { readonly kind: 'connecting' }
  | { readonly kind: 'live' }
  | { readonly kind: 'off'; readonly since: number };
type Note = LiveMessage | { kind: 'state'; state: LiveState } | { kind: 'ask' };
const LIVE = { kind: 'state', state: { kind: 'live' } } as const satisfies Note;

/**
 * Keeps a window's data live. One window of a browser holds the stream and passes on what it hears, so that many windows
 * don't use up the connections; when it closes, another takes over. After every reconnection everything is asked again; at the beginning only
 * where the server no longer knows what the window was told since its `page` was made.
 */
export function useLive(me: string, page: string | null): LiveState {
  const client = useQueryClient();
  const [state, setState] = useState<LiveState>({ kind: 'connecting' });
  // The page that was loaded; what is rendered anew later brings a name of its own, which nobody needs.
  const [loaded] = useState(page);
  useEffect(() => {
    const follower = new Follower(client, (calendar) => KEYS.calendar(calendar));
    const stop = follower.begin();
    const channel = new BroadcastChannel(`paramo-live-${me}`);
    const ended = new AbortController();
    let source: EventSource | null = null;
    let current: LiveState = { kind: 'connecting' };
    let leading = false;
    /** The name of the page, until a stream has taken up what was kept for it. */
    let remaining = loaded;

    const stand = (next: LiveState) => {
      current = next;
      setState(next);
    };
    const hear = (note: Note) => {
      if (note.kind === 'state') {
        // What is not on the screen may be older than a change missed meanwhile: it goes, and is asked for when wanted.
        if (note.state.kind === 'live' && current.kind !== 'live') {
          follower.forget();
          client.removeQueries({ type: 'inactive' });
          void refetchOnce(client);
        }
        stand(note.state);
      } else if (note.kind === 'begun') {
        // A window that loaded its page just now has missed nothing. One that takes over from another, or is back, may have.
        if (note.held && current.kind === 'connecting') stand(LIVE.state);
        else {
          current = { kind: 'connecting' };
          hear(LIVE);
        }
        channel.postMessage(LIVE);
      } else if (note.kind === 'changed') {
        follower.hear(note);
        // Whoever's rows come of that calendar, and nobody else's.
        void refetchOnce(client, {
          queryKey: KEYS.desks,
          predicate: ({ state: { data } }) =>
            (data as DeskAnswer | undefined)?.principals.some(({ calendar }) => calendar === note.calendar) ?? true,
        });
        void refetchOnce(client, { queryKey: KEYS.suggestions });
        void refetchOnce(client, { queryKey: KEYS.calendar(note.calendar, 'absences') });
        void refetchOnce(client, { queryKey: KEYS.trails });
        void refetchOnce(client, { queryKey: KEYS.days });
      } else if (note.kind === 'over') {
        // Signed out: whatever is asked now says so, and nothing of before stays.
        client.removeQueries({ type: 'inactive' });
        void refetchOnce(client);
      } else if (note.kind === 'looking') {
        void refetchOnce(client, { queryKey: KEYS.looking(note.item) });
      } else if (note.kind === 'desk') {
        void refetchOnce(client, { queryKey: KEYS.desk(note.for) });
      } else if (note.kind === 'tasks') {
        void refetchOnce(client, { queryKey: KEYS.everyTask });
        void refetchOnce(client, { queryKey: KEYS.frame });
        void refetchOnce(client, { queryKey: KEYS.desks });
        void refetchOnce(client, { queryKey: KEYS.days });
        void refetchOnce(client, { queryKey: KEYS.trails });
      } else if (note.kind === 'contacts') {
        void refetchOnce(client, { queryKey: KEYS.everyContact });
        void refetchOnce(client, { queryKey: KEYS.frame });
        void refetchOnce(client, { queryKey: KEYS.trails });
      } else if (note.kind === 'folder') {
        void refetchOnce(client, { queryKey: KEYS.everyonesMessages });
        void refetchOnce(client, { queryKey: KEYS.frame });
        void refetchOnce(client, { queryKey: KEYS.desks });
      } else if (note.kind === 'told') {
        void refetchOnce(client, { queryKey: KEYS.desks });
        void refetchOnce(client, { queryKey: KEYS.suggestions });
        void refetchOnce(client, { queryKey: KEYS.notices });
        void refetchOnce(client, { queryKey: KEYS.accessRequests });
        void refetchOnce(client, { queryKey: KEYS.reminders() });
        void refetchOnce(client, { queryKey: KEYS.everyonesMessages });
        void refetchOnce(client, { queryKey: KEYS.meetings });
        void refetchOnce(client, { queryKey: KEYS.frame });
      } else if (note.kind === 'access') {
        // Nothing fetched under the old access stays: what isn't on the screen goes now, what is on it with the answer.
        for (const queryKey of [KEYS.calendar(note.calendar), ...SEEN_BY_ACCESS]) {
          client.removeQueries({ queryKey, type: 'inactive' });
          refetchOnce(client, { queryKey }, { throwOnError: true, cancelRefetch: true }).catch(() =>
            client.resetQueries({ queryKey }),
          );
        }
        void refetchOnce(client, { queryKey: KEYS.frame });
        void refetchOnce(client, { queryKey: KEYS.people });
        void refetchOnce(client, { queryKey: KEYS.lanes });
      } else if (leading) channel.postMessage({ kind: 'state', state: current } satisfies Note);
    };
    const tell = (note: Note) => {
      hear(note);
      channel.postMessage(note);
    };
    channel.onmessage = (event: MessageEvent<Note>) => hear(event.data);
    channel.postMessage({ kind: 'ask' } satisfies Note);

    const lead = () =>
      new Promise<void>((release) => {
        leading = true;
        source = new EventSource(remaining === null ? '/api/live' : `/api/live?page=${encodeURIComponent(remaining)}`);
        // With a page's name the first message says whether anything was missed; only then is the window live.
        if (remaining === null) source.onopen = () => tell(LIVE);
        remaining = null;
        source.onmessage = (event: MessageEvent<string>) => {
          const message = JSON.parse(event.data) as LiveMessage;
          if (message.kind === 'begun') hear(message);
          else tell(message);
        };
        source.onerror = () => {
          if (current.kind !== 'off') tell({ kind: 'state', state: { kind: 'off', since: Date.now() } });
          // A refusal closes the stream for good: try again by hand.
          if (source?.readyState === EventSource.CLOSED) {
            setTimeout(() => {
              release();
              if (!ended.signal.aborted) void take();
            }, 2000);
          }
        };
        // The device says it before a quiet stream would: gone, and to be taken up anew when it is back.
        const left = new AbortController();
        const { signal } = left;
        const leave = () => {
          left.abort();
          source?.close();
          release();
        };
        window.addEventListener(
          'offline',
          () => {
            source?.close();
            if (current.kind !== 'off') tell({ kind: 'state', state: { kind: 'off', since: Date.now() } });
          },
          { signal },
        );
        window.addEventListener(
          'online',
          () => {
            leave();
            if (!ended.signal.aborted) void take();
          },
          { signal },
        );
        ended.signal.addEventListener('abort', leave, { once: true });
      });
    const take = () => navigator.locks.request(`paramo-live-${me}`, { signal: ended.signal }, lead).catch(() => {});
    if (navigator.locks) void take();
    else void lead();
    return () => {
      stop();
      ended.abort();
      channel.close();
    };
  }, [client, me, loaded]);
  return state;
}
