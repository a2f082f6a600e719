// keep-focus.ts — where the focus goes when what had it is taken away, by its own click as often as not: to the part of the page it
// was in, so that the next press of Tab goes on from there.

/** Parts of the page that can stand in for what was in them. */
const PARTS = 'aside, main, section, header, [role="dialog"]';

export function keepFocus(): void {
  let last: Element | null = null;
  let parts: HTMLElement[] = [];
  document.addEventListener('focusin', ({ target }) => {
    last = target as Element;
    parts = partsAround(last);
  });
  new MutationObserver(() => {
    if (!last || last.isConnected || document.activeElement !== document.body) return;
    const part = parts.find((each) => each.isConnected);
    last = null;
    if (!part) return;
    part.tabIndex = -1;
    part.style.outline = 'none';
    part.focus({ preventScroll: true });
  }).observe(document.body, { childList: true, subtree: true });
}

function partsAround(element: Element): HTMLElement[] {
  const found: HTMLElement[] = [];
  for (let part = element.parentElement?.closest<HTMLElement>(PARTS); part; ) {
    found.push(part);
    part = part.parentElement?.closest<HTMLElement>(PARTS);
  }
  return found;
}
