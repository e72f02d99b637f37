/** The languages every text is there in. */
export const LANGUAGES = ['en', 'pt'] as const;
export type Language = (typeof LANGUAGES)[number];

/** How dates, numbers and plurals are formed in each: English as in Britain, Portuguese as in Portugal. */
export const LOCALES: Record<Language, string> = { en: 'en-GB', pt: 'pt-PT' };

/** The language of ours that somebody would rather read, by what their browser says it prefers (RFC 9110, 12.5.4); English where it says none. */
export function languageOf(accepted: string | null | undefined): Language {
  const wishes = (accepted ?? '')
    .slice(0, 500)
    .split(',')
    .map((part) => {
      const [tag = '', ...rest] = part.trim().toLowerCase().split(';');
      const q = rest.map((one) => /^\s*q=([\d.]+)\s*$/.exec(one)?.[1]).find((one) => one !== undefined);
      return { tag: tag.split('-')[0], q: q === undefined ? 1 : Number(q) };
    })
    .filter(({ q }) => q > 0)
    .sort((a, b) => b.q - a.q);
  for (const { tag } of wishes) for (const language of LANGUAGES) if (tag === language) return language;
  return 'en';
}

/** What each calls itself. */
export const LANGUAGE_NAMES: Record<Language, string> = { en: 'English', pt: 'Português' };
