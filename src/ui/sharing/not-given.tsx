'use client';
import { useTranslations } from 'use-intl';
import type { EverythingAnswer } from '@/contract/sharing/sharing.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import pageCss from '../common/page.module.css';
import { useLevelName } from '../common/requests/level-name.ts';
import { RequestMore } from '../common/requests/request-more.tsx';
import { firstName } from '../common/token.tsx';
import { useSentence } from './sentence.tsx';

/** For whoever sees a calendar and doesn't give access to it: who does, what they have there themselves, and how to ask for more. */
export function NotGiven({ owner, all }: Pick<EverythingAnswer, 'owner' | 'all'>) {
  const t = useTranslations('lines');
  const tg = useTranslations('granted');
  const { frame } = useFrame();
  const sentence = useSentence();
  const levelName = useLevelName();
  const main = all.find((one) => one.kind === 'calendar' && one.main);
  const words = main && sentence(main.rights, firstName(owner.name), false);
  return (
    <div className={pageCss.state}>
      <h1>{t('title', { name: owner.name })}</h1>
      <p>{t('notGiven', { name: firstName(owner.name) })}</p>
      {words && (
        <p className="soft">
          {t('notGivenHas', { what: levelName(main.rights) })} {tg('you', { does: words.does })} {words.cannot}
        </p>
      )}
      <RequestMore handle={owner.handle} name={owner.name} has={main?.rights} />
      <Link href={`/for/${frame.me.handle}/granted`}>{t('mine')}</Link>
    </div>
  );
}
