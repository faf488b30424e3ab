import { formatEvent, notes } from "#core";
import { usePad } from "../devices/usePad";
import { pad } from "../devices/pad";
import { formatEventWords } from "../tape/frameFacts";
import { useWorkbench } from "../store/useWorkbench";

const SHOWN = 10;
const IS_TOLD = new Set<number>([notes.FIRE, notes.LAPSE, notes.PERFORMED, notes.LOST, notes.PROMPT]);

/** The last things understood, newest first, each with its frame. */
export function Ticker({ only }: { only?: (kind: "pattern" | "move", id: string) => boolean }) {
  const kit = useWorkbench(state => state.kit);
  usePad(state => state.session?.trace.count ?? -1);
  const { session } = pad.getState();
  const lines: { key: number; frame: number; name: string; words: string; isLoss: boolean }[] = [];
  if (session && kit) {
    const { trace, program } = session;
    for (let i = trace.count - 1; i >= 0 && lines.length < SHOWN; i--) {
      if (!IS_TOLD.has(trace.kind[i]!)) continue;
      const event = formatEvent(program, trace, i);
      if (!event) continue;
      if (event.kind === "lost" && event.why === "beaten") continue;
      const isMove = event.kind === "performed" || event.kind === "lost";
      if (only && !only(isMove ? "move" : "pattern", event.id)) continue;
      const list = event.kind === "prompt" ? kit.prompts : isMove ? kit.moves : kit.patterns;
      const name = list?.find(item => item.id === event.id)?.name ?? event.id;
      lines.push({
        key: i,
        frame: event.f,
        name,
        words: formatEventWords(event, kit),
        isLoss:
          event.kind === "lost" ||
          event.kind === "lapsed" ||
          (event.kind === "prompt" && event.outcome === "failed"),
      });
    }
  }
  if (lines.length === 0) {
    return (
      <p className="text-sm text-soft">
        {session
          ? "Press something: what is understood appears here."
          : "Wake the pad and press: what is understood appears here."}
      </p>
    );
  }
  return (
    <ol className="text-sm" aria-label="Last results" data-testid="ticker">
      {lines.map(line => (
        <li
          key={line.key}
          className={`flex justify-between gap-3 border-b border-dotted border-line py-1 ${line.isLoss ? "text-foxglove" : ""}`}
        >
          <span>
            <b>{line.name}</b> {line.words}
          </span>
          <span className="font-mono">{line.frame}</span>
        </li>
      ))}
    </ol>
  );
}
