import tokenCss from './token.module.css';

/** A person's initials in their colour. */
export function Token({ name, colour, tiny = false }: { name: string; colour: number; tiny?: boolean }) {
  const parts = name.split(/\s+/).filter(Boolean);
  const initials = `${parts[0]?.[0] ?? ''}${parts.length > 1 ? (parts.at(-1)?.[0] ?? '') : ''}`;
  return (
    <span className={`${tokenCss.token} who-${colour % 6}${tiny ? ` ${tokenCss.tiny}` : ''}`} aria-hidden="true">
      {initials}
    </span>
  );
}

/** The first of a person's names. */
export const firstName = (name: string): string => name.split(' ')[0] ?? name;
