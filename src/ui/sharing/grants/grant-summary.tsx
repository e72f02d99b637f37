'use client';
import { useTranslations } from 'use-intl';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import type { CollectionKind } from '@/core/collection/index.ts';
import pageCss from '../../common/page.module.css';
import { useSentence } from '../sentence.tsx';
import { Caution } from './caution.tsx';
import grantEditorCss from './grant-editor.module.css';

/** What rights come to, in a sentence; what they let somebody do in the owner's name, as a caution; and which house rules cut them. */
export function GrantSummary(props: {
  who: string;
  /** What the audience is called at the beginning of the sentence. */
  name: string;
  owner: string;
  own: boolean;
  kind: CollectionKind;
  rights: RightsWire;
  /** What of the rights is left after the house's rules. */
  comesTo: RightsWire;
  cutBy: readonly string[];
}) {
  const { who, name, owner, own, kind, rights, comesTo, cutBy } = props;
  const t = useTranslations();
  const tl = useTranslations('lines');
  const { does, cannot } = useSentence()(comesTo, owner, own, kind);
  return (
    <div className={`${pageCss.card} ${grantEditorCss.card}`} aria-live="polite">
      <p>
        <b>{name}</b> {does} <span className="soft">{cannot}</span>
      </p>
      <Caution {...{ who, owner, rights }} />
      {cutBy.length > 0 && (
        <p className="wrong small">
          {tl('cutBy', { rules: cutBy.map((rule) => t(`houseRuleNames.${rule as 'linkSight'}`)).join('; ') })}
        </p>
      )}
    </div>
  );
}
