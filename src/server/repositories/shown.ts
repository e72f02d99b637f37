/** Which of a list somebody may be shown at all: private ones are left out of what is read, so that nothing depends on them. */
export interface ListReader {
  readonly privateToo: boolean;
  /** Whose own private ones they are shown all the same, by row number; `null`: nobody's. */
  readonly own: number | null;
}

/** The condition of it, for a query that is given `boundTo`. */
export const SHOWN = `(@privateToo = 1 OR visibility <> 'private' OR created_by = @own)`;
export const boundTo = ({ privateToo, own }: ListReader) => ({ privateToo: Number(privateToo), own: own ?? -1 });

/** In which texts words are looked for; `of` narrows it to what is shown to everybody who sees the list, or was made by somebody. */
export interface ListTexts {
  readonly columns: readonly string[];
  readonly of?: { readonly visibility: 'open' } | { readonly createdBy: number };
}

/** The condition of words in some lists' texts, each as the beginning of one there, for a query that is given `boundIn`. */
export const HOLDING = `(@visibility IS NULL OR visibility = @visibility) AND (@createdBy IS NULL OR created_by = @createdBy)`;
export const boundIn = (listIds: readonly number[], words: readonly string[], { columns, of }: ListTexts) => ({
  match: `{${columns.join(' ')}} : (${words.map((word) => `"${word.replace(/"/g, '')}"*`).join(' AND ')}) AND list : (${listIds.map((id) => `"l${id}"`).join(' OR ')})`,
  visibility: of && 'visibility' in of ? of.visibility : null,
  createdBy: of && 'createdBy' in of ? of.createdBy : null,
});
