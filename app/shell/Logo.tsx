import { Link } from "react-router";

/** The logo and wordmark; links to the shelf. */
export function Logo() {
  return (
    <Link
      to="/"
      className="flex items-center gap-3 font-serif text-xl font-semibold whitespace-nowrap"
      aria-label="Moss Tap: to the shelf"
    >
      <svg aria-hidden width="30" height="28" viewBox="0 0 32 30">
        <path d="M3 19c0-7 6-11 13-11s13 4 13 11z" className="fill-moss" />
        <path d="M2 18h28c0 5-6 8-14 8S2 23 2 18z" className="fill-bark" />
        <path d="M20 9V5" className="stroke-moss-deep" strokeWidth="2" />
        <circle cx="20" cy="4" r="2.6" className="fill-lichen" />
      </svg>
      <span className="max-xl:hidden">Moss Tap</span>
    </Link>
  );
}
