'use client';
import Markdown from 'react-markdown';
import breaks from 'remark-breaks';
import richCss from './rich-text.module.css';

const ALLOWED = [
  'p',
  'br',
  'strong',
  'em',
  'del',
  'a',
  'ul',
  'ol',
  'li',
  'h1',
  'h2',
  'h3',
  'blockquote',
  'code',
  'pre',
  'hr',
];

/**
 * Markdown drawn as elements of ours, a line's end as a line's end. Of HTML in it nothing is taken, no picture is fetched from anywhere, and
 * a link leads to the web or a mailbox alone.
 */
export function Rendered({ text }: { text: string }) {
  return (
    <div className={richCss.rich}>
      <Markdown
        remarkPlugins={[breaks]}
        allowedElements={ALLOWED}
        unwrapDisallowed
        urlTransform={(url) => (/^(https?:\/\/|mailto:)/i.test(url) ? url : '')}
        components={{
          a: ({ href, children }) =>
            href ? (
              <a href={href} target="_blank" rel="noreferrer noopener">
                {children}
              </a>
            ) : (
              <span>{children}</span>
            ),
          // The sizes of headings are the panel's.
          h1: ({ children }) => <h4>{children}</h4>,
          h2: ({ children }) => <h4>{children}</h4>,
          h3: ({ children }) => <h4>{children}</h4>,
        }}
      >
        {text}
      </Markdown>
    </div>
  );
}
