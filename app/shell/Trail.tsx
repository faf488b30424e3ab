import { memo } from "react";
import { Explained } from "../ui/Explained";
import { VERBS } from "./verbs";
import { NavLink, useSearchParams } from "react-router";

/** The links to the six views, in working order; the current one is filled. */
export const Trail = memo(function Trail({ kitId }: { kitId: string }) {
  const [search] = useSearchParams();
  return (
    <nav aria-label="Views">
      <ol className="flex">
        {VERBS.map(({ path, word, line }, i) => (
          <li key={path} className="relative w-20 max-xl:w-[4.5rem] max-lg:w-14">
            {i > 0 && (
              <span
                aria-hidden
                className="absolute top-[9px] right-1/2 w-14 translate-x-[-12px] max-xl:w-12 max-lg:w-8 border-t border-dotted border-ink"
              />
            )}
            <Explained words={line}>
              <NavLink
                to={{ pathname: `/kit/${encodeURIComponent(kitId)}/${path}`, search: search.toString() }}
                className="group flex flex-col items-center gap-1 rounded-lg text-sm whitespace-nowrap text-soft max-lg:text-xs aria-[current=page]:font-semibold aria-[current=page]:text-ink"
              >
                <svg aria-hidden width="24" height="18" viewBox="0 0 24 18">
                  <ellipse
                    cx="12"
                    cy="9"
                    rx="8"
                    ry="6"
                    className="fill-paper stroke-ink group-hover:fill-sand group-aria-[current=page]:fill-moss group-aria-[current=page]:stroke-moss"
                    strokeWidth="1.2"
                  />
                </svg>
                {word}
              </NavLink>
            </Explained>
          </li>
        ))}
      </ol>
    </nav>
  );
});
