/** A hatch pattern for ranges of a map: `line` for dead time, `lichen` for planned time. */
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
