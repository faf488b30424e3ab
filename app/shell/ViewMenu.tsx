import { useLocation, useNavigate } from "react-router";
import { ActMenu } from "../ui/ActMenu";
import { VERBS } from "./verbs";

/** The six views as a menu under the name of the current one, for narrow windows. */
export function ViewMenu({ kitId }: { kitId: string }) {
  const navigate = useNavigate();
  const { pathname, search } = useLocation();
  const current = VERBS.find(({ path }) => path === pathname.split("/")[3]);
  return (
    <nav aria-label="Views">
      <ActMenu
        word={`${current?.word ?? "Views"} ▾`}
        label={`View: ${current?.word ?? "none"}`}
        anchor="bottom start"
        acts={VERBS.map(({ path, word, line }) => ({
          words: word,
          hint: line,
          run: () => void navigate({ pathname: `/kit/${encodeURIComponent(kitId)}/${path}`, search }),
        }))}
      />
    </nav>
  );
}
