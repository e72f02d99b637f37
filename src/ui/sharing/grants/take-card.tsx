'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { PreviewAnswer } from '@/contract/sharing/sharing.ts';
import pageCss from '../../common/page.module.css';
import grantEditorCss from './grant-editor.module.css';

/** Asked once more before a grant is taken away: what its audience is left with. */
export function TakeCard(props: {
  link: boolean;
  name: string;
  answer: PreviewAnswer;
  /** What ends with it, by name. */
  hanging: readonly string[];
  busy: boolean;
  onTake: (tell: boolean) => void;
  onLeave: () => void;
}) {
  const { link, name, answer, hanging, busy, onTake, onLeave } = props;
  const t = useTranslations();
  const tl = useTranslations('lines');
  return (
    <div
      className={`${pageCss.card} ${pageCss['wrong-card']} ${grantEditorCss.acts} ${grantEditorCss.card}`}
      role="alert"
    >
      <h3>{link ? tl('withdrawTitle', { name }) : tl('takeTitle', { name })}</h3>
      {link ? (
        <p>{tl('withdrawThen')}</p>
      ) : (
        <>
          <p>
            {tl('takeThen', {
              name,
              sight: t(`sightWords.${answer.without.sight}`),
              step: answer.withoutStep,
            })}
          </p>
          {answer.theirs && answer.theirs.sight !== 'nothing' && (
            <p>{tl('theirsStays', { name, sight: t(`sightWords.${answer.theirs.sight}`) })}</p>
          )}
          {hanging.length > 0 && <p>{tl('takeEnds', { name, list: hanging.join('; ') })}</p>}
          <p className="small soft">{tl('shutOutInstead')}</p>
        </>
      )}
      <div className="row above-4">
        <Button variant="contained" color="error" loading={busy} onClick={() => onTake(!link)}>
          {link ? tl('withdrawDo') : tl('takeTell')}
        </Button>
        {!link && (
          <Button variant="outlined" loading={busy} onClick={() => onTake(false)}>
            {tl('takeDo')}
          </Button>
        )}
        <Button variant="outlined" onClick={onLeave}>
          {tl('leave')}
        </Button>
      </div>
    </div>
  );
}
