import { sameAddress } from '@/core/meetings/index.ts';
import type { Connection } from '../../db/index.ts';
import { onTheWay } from '../../repositories/deliveries.ts';
import { meetingOfItem } from '../../repositories/meetings.ts';
import { mailAbout } from '../../repositories/outgoing-mail.ts';
import { sendingsWaiting } from '../../repositories/sendings.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { insideBy } from '../meetings/index.ts';

/** How far a scheduling message has come on its way to somebody, by the codes of RFC 6638 3.2.9. */
const STATUS = {
  /** It is being sent. */
  pending: '1.0',
  /** It was sent as mail: whether it arrived isn't known. */
  sent: '1.1',
  /** It is in their calendar. */
  delivered: '1.2',
  /** The mail service gave up; it may be sent again. */
  failed: '5.1',
} as const;

const MAIL = { waiting: STATUS.pending, sent: STATUS.sent, failed: STATUS.failed };

/** Messages on their way that are looked at for one answer. */
const MOST_ON_THE_WAY = 2_000;

/**
 * How far the last message about a meeting has come to each of those it asks, by address in lower case. Whoever was sent nothing yet, and
 * waits for a person to send it, has none; nor has anybody of a meeting that others call.
 */
export class ScheduleStatuses {
  private onTheWay: ReadonlyMap<string, ReadonlySet<number>> | null = null;
  constructor(private readonly db: Connection) {}

  of(item: StoredItem): ReadonlyMap<string, string> {
    const meeting = meetingOfItem(this.db, item.id);
    if (meeting?.part !== 'organiser') return new Map();
    const invited = meeting.state?.state === 'sent' ? meeting.state.invited : [];
    const leaves = sendingsWaiting(this.db, meeting.id).some(({ act, due }) => act === 'tell' && due !== null);
    const mail = mailAbout(this.db, meeting.id);
    return new Map(
      (meeting.wanted ?? invited).flatMap(({ address }) => {
        const wasInvited = invited.some((one) => sameAddress(one.address, address));
        const status = leaves ? STATUS.pending : wasInvited ? this.sent(meeting.uid, address, mail) : null;
        return status ? [[address.toLowerCase(), status] as const] : [];
      }),
    );
  }

  private sent(uid: string, address: string, mail: ReturnType<typeof mailAbout>): string | null {
    const inside = insideBy(this.db, address);
    if (!inside) {
      const known = mail.get(address);
      return known ? MAIL[known] : null;
    }
    this.onTheWay ??= onTheWay(this.db, MOST_ON_THE_WAY);
    return this.onTheWay.get(uid)?.has(inside.id) ? STATUS.pending : STATUS.delivered;
  }
}
