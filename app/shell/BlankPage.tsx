/** An empty page in the colour of paper, shown until a page's data has been read from the storage. */
export function BlankPage() {
  return <div className="h-dvh bg-paper" aria-busy="true" />;
}
