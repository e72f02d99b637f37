'use client';
import Button from '@mui/material/Button';
import { Markdown } from '@tiptap/markdown';
import { EditorContent, useEditor, useEditorState } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { useEffect, useRef } from 'react';
import { useTranslations } from 'use-intl';
import richCss from './rich-text.module.css';

export interface RichFieldProps {
  readonly label: string;
  /** Markdown. */
  readonly value: string;
  readonly error: string | undefined;
  readonly disabled?: boolean | undefined;
  readonly onChange: (markdown: string) => void;
}

/** The editor of a rich text. It takes text and marks alone: of what is pasted, HTML is read for those and no more. */
export function RichEditor({ label, value, error, onChange }: RichFieldProps) {
  const t = useTranslations('rich');
  const last = useRef(value);
  const editor = useEditor({
    extensions: [
      StarterKit.configure({
        heading: { levels: [3] },
        link: { openOnClick: false, protocols: ['http', 'https', 'mailto'] },
      }),
      Markdown.configure({ markedOptions: { breaks: true, gfm: true } }),
    ],
    content: value,
    contentType: 'markdown',
    // The page's policy takes no style from a script.
    injectCSS: false,
    immediatelyRender: false,
    editorProps: { attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': label } },
    onUpdate: ({ editor: now }) => {
      // A line's end is a line's end as it is: the spaces that would say so again are left out.
      last.current = now.getMarkdown().replace(/ +\n/g, '\n').trim();
      onChange(last.current);
    },
  });
  // Something else than typing changed it: another item, what somebody else saved.
  useEffect(() => {
    if (!editor || value === last.current) return;
    last.current = value;
    editor.commands.setContent(value, { contentType: 'markdown', emitUpdate: false });
  }, [editor, value]);
  const on = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      bold: now?.isActive('bold') ?? false,
      italic: now?.isActive('italic') ?? false,
      list: now?.isActive('bulletList') ?? false,
      numbers: now?.isActive('orderedList') ?? false,
    }),
  });
  const tools = [
    { key: 'bold', act: () => editor?.chain().focus().toggleBold().run() },
    { key: 'italic', act: () => editor?.chain().focus().toggleItalic().run() },
    { key: 'list', act: () => editor?.chain().focus().toggleBulletList().run() },
    { key: 'numbers', act: () => editor?.chain().focus().toggleOrderedList().run() },
  ] as const;
  return (
    <div className="gap-1 stack">
      <span className={richCss.label} aria-hidden="true">
        {label}
      </span>
      <div className={richCss.editor}>
        <div className={richCss.tools} role="toolbar" aria-label={t('tools')}>
          {tools.map(({ key, act }) => (
            <Button key={key} variant="text" aria-pressed={on?.[key] ?? false} onClick={act} tabIndex={-1}>
              {t(key)}
            </Button>
          ))}
        </div>
        <EditorContent editor={editor} />
      </div>
      {error && <span className="small wrong">{error}</span>}
    </div>
  );
}
