/** Slanting lines to fill a stretch of a map with: `line` for dead time, `lichen` for time that is only promised. */
export function Hatch({ id, colour }: { id: string; colour: "line" | "lichen" }) {
  return (
    <defs>
      <pattern id={id} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect
          width={colour === "line" ? 2 : 3}
          height="7"
          className={colour === "line" ? "fill-line" : "fill-lichen"}
        />
      </pattern>
    </defs>
  );
}
