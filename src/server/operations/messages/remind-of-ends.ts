import type { Connection } from '../../db/index.ts';
import { newKey } from '../../ids.ts';
import { grantsEnding } from '../../repositories/grants.ts';
import { membersOf } from '../../repositories/groups.ts';
import { insertOutgoing, wasRemindedOf, wasToldByLetter } from '../../repositories/outbox.ts';
import { personById } from '../../repositories/people.ts';

const DAY = 86_400_000;
/** How long before its end a letter says so. */
const BEFORE = 3 * DAY;

/**
 * Writes a letter to everyone outside to whom something given for a time ends in the next three days: once for each grant, to those who were
 * told of their access at all, and not where it was given within those days, since the letter that told of it named its end.
 * Whoever is inside, and the owner, find the same in their messages. Answers how many letters were written.
 */
export function remindOfEnds(db: Connection, now: number): number {
  const due = grantsEnding(db, now, now + BEFORE).filter(
    (g) => g.rights.sight !== 'nothing' && g.ends !== null && g.ends - g.recordedFrom > BEFORE,
  );
  if (due.length === 0) return 0;
  return db.write(() => {
    let written = 0;
    for (const grant of due) {
      const { audience } = grant;
      const people =
        audience.kind === 'person'
          ? [audience.personId]
          : audience.kind === 'group'
            ? membersOf(db, audience.groupId)
            : [];
      for (const personId of people) {
        if (personById(db, personId)?.inside !== false || wasRemindedOf(db, grant.id, personId)) continue;
        if (!wasToldByLetter(db, grant.collectionId, personId)) continue;
        insertOutgoing(db, {
          key: newKey(),
          at: now,
          personId,
          kind: 'ending',
          collectionId: grant.collectionId,
          grantId: grant.id,
          byId: null,
          note: '',
        });
        written++;
      }
    }
    return written;
  });
}
