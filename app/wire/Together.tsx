import type { Kit } from "#core";
import { formatCode } from "../input/codes";
import { usePadState } from "../input/context";

const MAX_KEYS = 9;

/** Returns the keys that play a control alone, one per control. */
function playingKeys(kit: Kit): { code: string; name: string }[] {
  return kit.controls
    .flatMap(control => {
      const binding = control.bindings.find(codes => codes.length === 1 && codes[0]!.startsWith("key:"));
      return binding ? [{ code: binding[0]!, name: control.name }] : [];
    })
    .slice(0, MAX_KEYS);
}

/**
 * A test of key combinations, because keyboards drop some. A mark fills for every pair that was held at once.
 */
export function Together({ kit }: { kit: Kit }) {
  const pairsSeen = usePadState(state => state.pairsSeen);
  const most = usePadState(state => state.mostTogether);
  const now = usePadState(state => state.codesDown);
  const keys = playingKeys(kit);
  const isSeen = (a: string, b: string) => pairsSeen.has([a, b].sort().join(" "));
  return (
    <section aria-label="Which keys can go together" className="mt-5 text-sm">
      <h2 className="font-semibold">Which keys can go together?</h2>
      <p className="text-soft">
        Some keyboards cannot report some pairs. Start listening and hold two keys at once: a dot fills for
        every pair that was seen. One that stays empty however often you try is a pair this board does not
        report.
      </p>
      <p data-testid="together">
        {most.length === 0
          ? "Nothing held yet."
          : `Held now: ${now.map(formatCode).join(" + ") || "nothing"}. Most at once: ${most.length} (${most.map(formatCode).join(" + ")}).`}
      </p>
      {keys.length > 1 && (
        <table className="mt-2">
          <caption className="sr-only">Pairs of keys that were held together</caption>
          <tbody>
            {keys.slice(1).map((row, r) => (
              <tr key={row.code}>
                <th scope="row" className="pr-3 text-right font-normal">
                  {row.name} <span className="font-mono text-soft">{formatCode(row.code)}</span>
                </th>
                {keys.slice(0, r + 1).map(column => {
                  const seen = isSeen(row.code, column.code);
                  return (
                    <td key={column.code} className="px-1.5 text-center">
                      <svg
                        width="22"
                        height="18"
                        viewBox="0 0 22 18"
                        role="img"
                        aria-label={`${row.name} with ${column.name}: ${seen ? "seen together" : "not seen yet"}`}
                      >
                        <ellipse
                          cx="11"
                          cy="9"
                          rx="8.5"
                          ry="6.5"
                          strokeWidth="1.5"
                          className={seen ? "fill-moss stroke-moss" : "fill-paper stroke-soft"}
                          strokeDasharray={seen ? undefined : "2 2"}
                        />
                      </svg>
                    </td>
                  );
                })}
              </tr>
            ))}
            <tr>
              <td />
              {keys.slice(0, -1).map(column => (
                <th key={column.code} scope="col" className="px-1 font-mono font-normal text-soft">
                  {formatCode(column.code)}
                </th>
              ))}
            </tr>
          </tbody>
        </table>
      )}
    </section>
  );
}
