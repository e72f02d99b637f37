import type { AnswerBody, AnswersAnswer } from '@/contract/meetings/meetings.ts';
import { ok, type Result } from '../../result.ts';
import type { Context } from '../deciding/index.ts';
import { answerItem } from './answer.ts';

/** Answers several invitations, each by itself: one that can't be answered says why, and the others are. */
export function answerSeveral(
  ctx: Context,
  answers: readonly { item: string; answer: 'accepted' | 'tentative' | 'declined'; seen: AnswerBody['seen'] }[],
): Result<AnswersAnswer> {
  const answered = answers.map(({ item, answer, seen }) => {
    const result = answerItem(ctx, item, { answer, seen, comment: '', scope: 'all' });
    return result.ok
      ? { item, sending: result.value.sending?.key ?? null, refused: null }
      : { item, sending: null, refused: result.code };
  });
  return ok({ answered });
}
