/** What parts of a page say, piece by piece: words that only stand beside one another are not joined. */
export function pageText(parts: Iterable<Element>): string {
  const pieces: string[] = [];
  for (const part of parts) {
    const walker = document.createTreeWalker(part, NodeFilter.SHOW_TEXT);
    while (walker.nextNode()) pieces.push(walker.currentNode.textContent ?? '');
  }
  return pieces.join(' ');
}
