// HelpPage.tsx — the guide, a page at a time, with a search over all of them.
import { Marked, type Tokens } from 'marked';
import { useEffect, useMemo, useState } from 'react';
import { Link, useLocation, useNavigate, useParams } from 'react-router';
import { anchorOf, PAGES, type Page, pagesWith, pageUrl, pictureUrl } from './pages.ts';

const marked = new Marked({
  walkTokens(token) {
    if (token.type === 'image') token.href = pictureUrl(token.href);
    if (token.type === 'link') token.href = pageUrl(token.href);
  },
  renderer: {
    heading({ tokens, depth, text }: Tokens.Heading) {
      return `<h${depth} id="${anchorOf(text)}">${this.parser.parseInline(tokens)}</h${depth}>`;
    },
    // Wide ones are scrolled by themselves, also by keys.
    code: ({ text }: Tokens.Code) => `<pre tabindex="0">${escaped(text)}</pre>`,
  },
});

const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

export function HelpPage() {
  const { page: name = 'index' } = useParams();
  const [typed, setTyped] = useState('');
  const page = PAGES.find((each) => each.name === name);
  if (!page) throw new Error('The guide has no such page.');
  const listed = pagesWith(typed);
  return (
    <div className="grid min-h-full grid-cols-[17rem_minmax(0,1fr)] max-md:grid-cols-1">
      <title>{`${page.title} · Guide · Outline Stack`}</title>
      <nav aria-label="Guide" className="border-rule border-r px-5 py-6 max-md:border-r-0 max-md:border-b">
        <Link to="/" className="inline-block min-h-6 font-serif text-ink text-lg">
          Outline Stack
        </Link>
        <input
          type="search"
          aria-label="Search the guide"
          placeholder="Search the guide"
          className="my-4 w-full rounded-edge border border-rule bg-sheet px-3 py-1 placeholder:text-quiet"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <ul>
          {listed.map((each) => (
            <li key={each.name}>
              <Link
                to={`/help/${each.name}`}
                aria-current={each === page ? 'page' : undefined}
                className={`block rounded-edge px-2 py-1 hover:bg-wash ${each === page ? 'bg-wash text-tide' : 'text-ink'}`}
              >
                {each.title}
              </Link>
            </li>
          ))}
        </ul>
        <p role="status" className="mt-2 px-2 text-quiet text-sm">
          {listed.length === 0 ? 'No page has all of these words.' : ''}
        </p>
      </nav>
      <Article page={page} />
    </div>
  );
}

function Article({ page }: { page: Page }) {
  const navigate = useNavigate();
  const { hash } = useLocation();
  const html = useMemo(() => marked.parse(page.text) as string, [page]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another page begins at its top
  useEffect(() => {
    const place = hash ? document.getElementById(hash.slice(1)) : null;
    // After a dialog that led here has let go of the page.
    const frame = requestAnimationFrame(() => (place ? place.scrollIntoView() : window.scrollTo(0, 0)));
    return () => cancelAnimationFrame(frame);
  }, [hash, page]);
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: links are followed by keys as by clicks, which arrive here all the same
    <main
      className="guide max-w-3xl px-10 py-8"
      onClick={(event) => {
        const link = (event.target as Element).closest('a');
        // Pages of the guide without loading all anew.
        if (!link || link.origin !== location.origin || event.ctrlKey || event.metaKey || event.shiftKey) return;
        event.preventDefault();
        navigate(link.pathname + link.hash);
      }}
      // biome-ignore lint/security/noDangerouslySetInnerHtml: the text is our own
      dangerouslySetInnerHTML={{ __html: html }}
    />
  );
}
