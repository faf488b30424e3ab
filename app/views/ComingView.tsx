/** A view that is not built yet says in a line what will be there. */
export function ComingView({ title, line }: { title: string; line: string }) {
  return (
    <section className="grid min-h-0 grow place-items-center px-7">
      <div className="max-w-lg">
        <h1 className="font-serif text-3xl">{title}</h1>
        <p className="mt-2 text-lg text-soft">{line}</p>
        <p className="mt-2 text-soft">The tape below works here as everywhere.</p>
      </div>
    </section>
  );
}
