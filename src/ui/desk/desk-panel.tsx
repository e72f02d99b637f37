import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { useTranslations } from 'use-intl';
import type { DeskAnswer, DeskRowWire } from '@/contract/desk.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { firstName } from '../common/token.tsx';
import { afterOf, toldBy } from './after.ts';
import deskCss from './desk.module.css';
import { DeskDay } from './desk-day.tsx';
import { shortAt, useDeskWords } from './desk-words.ts';
import { choicesOf, chosenOf, type Given } from './step-to-send.ts';
import type { useOpenings } from './use-openings.ts';

const WITH_WORDS = ['accepted', 'tentative', 'declined', 'keep', 'yes', 'no'] as const;

/** The chosen row: the day as it would be after a step, what would be sent to whom in whose name, and why it stands above the next. */
export function DeskPanel(props: {
  row: DeskRowWire;
  next: DeskRowWire | undefined;
  principal: DeskAnswer['principals'][number];
  twin: DeskAnswer['principals'][number] | undefined;
  /** Which of its steps is looked at, by number. */
  step: number;
  goal: string;
  busy: boolean;
  refused: string | null;
  fields: Readonly<Record<string, string>>;
  /** What the step needs was asked for: its field is typed in at once. */
  typing: boolean;
  /** Nobody asked for it: on a small screen it stays away. */
  quiet: boolean;
  /** What was given so far, and the openings that were found. */
  given: Given;
  openings: ReturnType<typeof useOpenings>;
  onGiven: (more: Partial<Given>) => void;
  onStep: (n: number) => void;
  onTake: (n: number) => void;
  onLater: () => void;
  onPass: () => void;
  onClose: () => void;
}) {
  const { row, next, principal, twin, step, goal, busy, refused, fields, given, openings, onGiven, onStep, onTake } =
    props;
  const t = useTranslations('desk');
  const { style, frame } = useFrame();
  const { words, actName } = useDeskWords();
  const act = row.steps.find(({ n }) => n === step)?.act ?? row.steps[0]?.act;
  const choices = choicesOf(row, act, openings.starts, style);
  const chosen = chosenOf(choices, given);
  const { title } = words(row);
  const told = toldBy(row, act, principal.address);
  const name = principal.own ? frame.me.name : principal.name;
  const typed = act === 'place' || act === 'link';
  const label =
    act === 'another' && chosen ? t('moveTo', { kind: row.kind, when: chosen.label }) : act ? actName(act, row) : '';
  const take = () => onTake(step);
  return (
    <aside
      className={`${deskCss.panel} who-${principal.colour % 6}`}
      aria-label={t('panel.label')}
      data-quiet={props.quiet || undefined}
    >
      <div className={deskCss.for}>
        <span>{principal.own ? t('panel.mine') : t('panel.for', { name: principal.name })}</span>
        <Button variant="text" className="low" onClick={props.onClose}>
          {t('panel.close')}
        </Button>
      </div>
      <h2>{title}</h2>
      <div className="row">
        {row.steps.map((one) => (
          <Button
            key={one.n}
            variant={one.act === act ? 'outlined' : 'text'}
            aria-pressed={one.act === act}
            className="may-shrink"
            onClick={() => onStep(one.n)}
          >
            {actName(one.act, row)}
          </Button>
        ))}
      </div>
      {act === 'another' && openings.seeking && <p className="soft">{t('seeking')}</p>}
      {act === 'another' && openings.none && <p className="soft">{t('noOpening')}</p>}
      {(choices.length > 1 || (act === 'another' && chosen)) && (
        <div className="row">
          {choices.map(({ value, label }) => (
            <Button
              key={value}
              variant={value === chosen?.value ? 'contained' : 'outlined'}
              aria-pressed={value === chosen?.value}
              onClick={() => onGiven({ choice: value })}
            >
              {label}
            </Button>
          ))}
        </div>
      )}
      <DeskDay row={row} after={afterOf(row, act, chosen)} />
      {typed && (
        <TextField
          label={act === 'place' ? t('panel.place') : t('panel.link')}
          value={given.text}
          autoFocus={props.typing}
          onChange={(event) => onGiven({ text: event.target.value })}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && given.text.trim()) take();
            if (event.key === 'Escape') (event.target as HTMLElement).blur();
          }}
          error={fields.place !== undefined || fields.link !== undefined}
          helperText={fields.place ?? fields.link}
        />
      )}
      {WITH_WORDS.some((one) => one === act) && (
        <TextField
          label={t('panel.comment')}
          value={given.words}
          onChange={(event) => onGiven({ words: event.target.value })}
          slotProps={{ htmlInput: { maxLength: 500 } }}
        />
      )}
      {twin && row.kind === 'answer' && act !== 'another' && (
        <FormControlLabel
          control={<Checkbox checked={given.twin} onChange={(event) => onGiven({ twin: event.target.checked })} />}
          label={t('panel.both', { act: label, other: firstName(twin.name) })}
        />
      )}
      {told && (
        <div>
          <h3>{t('panel.goesOut')}</h3>
          <p>
            {told.length === 0
              ? t('panel.none')
              : t(told.length === 1 ? 'panel.one' : 'panel.many', {
                  count: told.length,
                  to: told.slice(0, 6).join(', ') + (told.length > 6 ? '…' : ''),
                  name,
                  by: principal.own ? 'self' : frame.me.name,
                })}
          </p>
        </div>
      )}
      <Button
        variant="contained"
        disabled={busy || (typed && given.text.trim() === '') || (act === 'another' && openings.seeking)}
        onClick={take}
      >
        {t('panel.save', { act: label, name: firstName(name) })}
      </Button>
      {refused && (
        <p className="wrong" role="alert">
          {refused}
        </p>
      )}
      {told && told.length > 0 && act !== 'again' && act !== 'cover' && (
        <p className="small soft">
          {principal.speaks ? t('panel.waits') : t('panel.waitsFor', { name: firstName(name) })}
        </p>
      )}
      <div className="row">
        <Button variant="outlined" onClick={props.onLater}>
          {t('panel.putOff')}
        </Button>
        {principal.acts.length > 0 && (
          <Button variant="outlined" onClick={props.onPass}>
            {t('panel.passOn')}
          </Button>
        )}
        <Link href={goal}>{t('panel.open')}</Link>
      </div>
      <Stands row={row} next={next} />
    </aside>
  );
}

/** The parts of a row's score, and how it compares with the next. */
function Stands({ row, next }: { row: DeskRowWire; next: DeskRowWire | undefined }) {
  const t = useTranslations('desk');
  const { style } = useFrame();
  const { weight, shift, near, atHand, person } = row.parts;
  const parts = [
    [t('panel.parts.weight', { kind: t(`kindNames.${row.kind}`) }), weight],
    [t('panel.parts.shift', { n: shift }), shift],
    [
      row.due === null
        ? t('panel.parts.near')
        : `${t('panel.parts.near')}, ${t('why.due', { when: shortAt(row.due, style) })}`,
      near,
    ],
    [t('panel.parts.atHand'), atHand],
    [t('panel.parts.person'), person],
  ] as const;
  return (
    <section aria-label={t('panel.stands')}>
      <h3 className="below-2">{t('panel.stands')}</h3>
      <dl className={deskCss.parts}>
        {parts
          .filter(([, n]) => n !== 0)
          .map(([what, n]) => (
            <div key={what} className="contents">
              <dt>{what}</dt>
              <dd>{n > 0 ? `+${n}` : n}</dd>
            </div>
          ))}
      </dl>
      <p className="small">
        {next?.part === row.part
          ? t('panel.sum', { score: row.score, next: next.score })
          : t('panel.sumLast', { score: row.score })}
      </p>
    </section>
  );
}
