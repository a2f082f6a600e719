// typing.ts — whether a text is being typed that nobody has taken yet: its own undo comes before that of the project.

/** Fields that hold back what is typed into them say so by `data-draft`; those the page leaves alone differ from how they began. */
export function isTyping(element: Element | null = document.activeElement): boolean {
  if (element instanceof HTMLTextAreaElement) return true;
  if (!(element instanceof HTMLInputElement)) return false;
  return element.dataset.draft !== undefined || (element.type === 'text' && element.value !== element.defaultValue);
}

/** Whether what is pasted belongs to a field of text. */
export function isTextField(element: Element | null = document.activeElement): boolean {
  return (
    element instanceof HTMLTextAreaElement ||
    (element instanceof HTMLInputElement && ['text', 'search'].includes(element.type))
  );
}
