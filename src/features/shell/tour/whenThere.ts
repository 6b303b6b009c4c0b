/** Waits for an element; a screen may first have to load, or a take to be heard. @returns how to stop waiting */
export function whenThere(selector: string, found: (element: HTMLElement) => unknown): () => void {
  const look = (): boolean => {
    const element = document.querySelector<HTMLElement>(selector);
    if (!element) return false;
    observer.disconnect();
    void found(element);
    return true;
  };
  const observer = new MutationObserver(look);
  if (!look()) observer.observe(document.body, { childList: true, subtree: true });
  return () => observer.disconnect();
}
