import type { Language } from '@/messages/languages.ts';
import type { FrameState } from './frame-context.tsx';

/** The frame's state for somebody who is nobody here: their browser's clock, and nothing else. */
export function strangersFrame(zone: string, language: Language, now: () => number): FrameState {
  return {
    frame: {
      me: {
        handle: '',
        name: '',
        address: '',
        phone: '',
        zone,
        hours: '24',
        weekFirst: 1,
        workHours: null,
        secondZone: null,
        colour: 0,
        dateOrder: 'dmy',
        language,
        administrator: false,
        inside: false,
      },
      principals: [],
      demo: false,
      unread: 0,
      findings: 0,
      tasksAsked: 0,
      hands: null,
      now: '',
    },
    style: { zone, hours: '24', weekFirst: 1, dateOrder: 'dmy', language },
    principal: null,
    live: { kind: 'live' },
    now,
    toast: () => {},
    requestAccess: null,
    help: null,
  };
}
