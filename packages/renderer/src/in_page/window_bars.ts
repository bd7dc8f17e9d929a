/**
 * Takes away the scroll bars of the window that a page dresses itself: they take room from it there, and nowhere else. Those of
 * parts of the page stay.
 */
export function hideWindowBars(document: Document): void {
  const sheet = new document.defaultView!.CSSStyleSheet();
  sheet.replaceSync(
    ':root::-webkit-scrollbar, body::-webkit-scrollbar { display: none !important } :root, body { scrollbar-gutter: auto !important }',
  );
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
}
