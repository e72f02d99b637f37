import type { Message } from '@/core/meetings/index.ts';
import type { Language } from '@/messages/languages.ts';

interface Mailbox {
  readonly name: string | null;
  readonly address: string;
}

/** A mail as it is to go, to one person outside: from whom, in whose name, and what it says. */
export interface Mail {
  readonly from: Mailbox;
  /** Who sends it in that one's name; `null` where they do themselves. */
  readonly sender: Mailbox | null;
  readonly to: Mailbox;
  readonly subject: string;
  /** Plain words; of a meeting they are written when it goes, from what the message says. */
  readonly text: string;
  readonly meeting: {
    readonly message: Message;
    readonly organiserName: string | null;
    readonly title: string;
    readonly series: { readonly zone: string; readonly allDay: boolean } | null;
  } | null;
  /** In which language the words about a meeting are; one that was put on its way before there was a choice is in English. */
  readonly language?: Language;
  /** It is an answer that nobody wrote at that moment (RFC 3834): said in its header, and sent so that nothing comes back of it. */
  readonly automatic?: true;
  readonly inReplyTo: string | null;
  readonly refs: readonly string[];
}
