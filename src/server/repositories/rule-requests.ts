import type { Connection } from '../db/index.ts';

/** Somebody's wish that a house rule be set to exactly this value; `answer` once an administrator has decided. */
export interface RuleRequest {
  readonly key: string;
  readonly personId: number;
  readonly at: number;
  readonly rule: string;
  readonly further: boolean;
  readonly wanted: string;
  readonly note: string;
  readonly answer: 'changed' | 'left' | null;
  readonly answeredBy: number | null;
  readonly answeredAt: number | null;
  readonly answerNote: string;
}

interface Row {
  key: string;
  person_id: number;
  at: number;
  rule: string;
  further: 0 | 1;
  wanted: string;
  note: string;
  answer: RuleRequest['answer'];
  answered_by: number | null;
  answered_at: number | null;
  answer_note: string;
}

const decode = (r: Row): RuleRequest => ({
  key: r.key,
  personId: r.person_id,
  at: r.at,
  rule: r.rule,
  further: r.further === 1,
  wanted: r.wanted,
  note: r.note,
  answer: r.answer,
  answeredBy: r.answered_by,
  answeredAt: r.answered_at,
  answerNote: r.answer_note,
});

/** The wishes that wait for an answer, the oldest first. */
export function openRuleRequests(db: Connection): RuleRequest[] {
  return db.all<Row>('SELECT * FROM rule_request WHERE answer IS NULL ORDER BY id').map(decode);
}

/** A person's own wishes, the newest first. */
export function ruleRequestsOf(db: Connection, personId: number, most: number): RuleRequest[] {
  return db
    .all<Row>('SELECT * FROM rule_request WHERE person_id = ? ORDER BY id DESC LIMIT ?', personId, most)
    .map(decode);
}

export function ruleRequestByKey(db: Connection, key: string): RuleRequest | null {
  const row = db.get<Row>('SELECT * FROM rule_request WHERE key = ?', key);
  return row ? decode(row) : null;
}

/** Records a wish; the same one that still waits is not recorded twice, but takes the new words. */
export function insertRuleRequest(
  db: Connection,
  r: Pick<RuleRequest, 'key' | 'personId' | 'at' | 'rule' | 'further' | 'wanted' | 'note'>,
): void {
  db.run(
    `INSERT INTO rule_request (key, person_id, at, rule, further, wanted, note) VALUES (?, ?, ?, ?, ?, ?, ?)
     ON CONFLICT (person_id, rule, further, wanted) WHERE answer IS NULL DO UPDATE SET note = excluded.note, at = excluded.at`,
    r.key,
    r.personId,
    r.at,
    r.rule,
    Number(r.further),
    r.wanted,
    r.note,
  );
}

export function answerRuleRequest(
  db: Connection,
  key: string,
  r: { answer: 'changed' | 'left'; by: number; at: number; note: string },
): void {
  db.run(
    'UPDATE rule_request SET answer = ?, answered_by = ?, answered_at = ?, answer_note = ? WHERE key = ? AND answer IS NULL',
    r.answer,
    r.by,
    r.at,
    r.note,
    key,
  );
}
