import { useState } from "react";
import { formatCounts } from "#link";
import { useGameLink, useGameLinkState } from "../link/context";
import { linkAddress } from "../link/linkSocket";
import { Button } from "../ui/Button";
import { LiveText } from "../ui/LiveText";

/** A text to type into the game, with a button that copies it. */
function CopyWord({ label, text }: { label: string; text: string }) {
  const [isCopied, setCopied] = useState(false);
  // Without a secure connection there is no clipboard at all: that rejects, too.
  const write = async () => navigator.clipboard.writeText(text);
  const copy = () => void write().then(() => setCopied(true), console.info);
  return (
    <span className="whitespace-nowrap">
      <span className="text-soft">{label}</span> <b className="font-mono select-all">{text}</b>
      <Button look="quiet" aria-label={`Copy the ${label}`} onClick={copy}>
        {isCopied ? "copied" : "copy"}
      </Button>
    </span>
  );
}

/** A link to the page that plays by a person's keys, with the code filled in. */
function TryLink({ code }: { code: string }) {
  return (
    <a
      href={`/game/?code=${code}`}
      target="_blank"
      rel="noreferrer"
      className="text-moss underline-offset-4 hover:underline"
    >
      or try it in a small game
    </a>
  );
}

/** Whether a game has joined, and what it does. */
function GameWords({ code }: { code: string }) {
  const status = useGameLinkState(state => state.status);
  const game = useGameLinkState(state => state.game);
  const isPlaying = useGameLinkState(state => state.frame >= 0);
  if (status === "away")
    return <span className="text-foxglove">the server does not answer; trying again</span>;
  if (!game)
    return (
      <span className="text-soft">
        type the code in your game, <TryLink code={code} />
      </span>
    );
  return (
    <span>
      <b>{game.name}</b> {isPlaying ? "plays" : "has joined"}, {game.rate} frames a second,{" "}
      {game.asks ? "by these rules" : "by its own input code"}
    </span>
  );
}

/** The figures of the take that the game plays, in place of the actions on the stage. */
export function GameFigures() {
  const gameLink = useGameLink();
  const isPlaying = useGameLinkState(state => state.frame >= 0);
  const isTimed = useGameLinkState(state => state.roundTripMs !== undefined);
  const inForce = useGameLinkState(state => state.inForce);
  const counts = useGameLinkState(state => state.counts);
  return (
    <p className="flex flex-wrap items-center gap-x-4 text-sm">
      {isPlaying && (
        <span>
          The game is at{" "}
          <LiveText
            store={gameLink}
            read={({ frame }) => `${frame}f`}
            className="inline-block min-w-14 font-mono"
          />
        </span>
      )}
      {isTimed && (
        <span>
          round trip{" "}
          <LiveText
            store={gameLink}
            read={({ roundTripMs = 0 }) => `${roundTripMs.toFixed(1)} ms`}
            className="font-mono"
          />
        </span>
      )}
      {inForce && (
        <span>
          last edit in force at <span className="font-mono">{inForce.from}f</span>, after{" "}
          <span className="font-mono">{Math.max(1, Math.round(inForce.afterMs))} ms</span>
        </span>
      )}
      {counts ? (
        <b>{formatCounts(counts)}</b>
      ) : (
        <span className="text-soft">Its take is kept when it ends.</span>
      )}
    </p>
  );
}

/** The live link of the kit: address and code for the game, who plays, and faults. */
export function LinkBar() {
  const gameLink = useGameLink();
  const status = useGameLinkState(state => state.status);
  const code = useGameLinkState(state => state.code);
  const hasGame = useGameLinkState(state => state.game !== undefined);
  const fault = useGameLinkState(state => state.faults[0]);
  if (status === "off") return null;
  return (
    <section
      aria-label="Live link"
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line bg-sand px-5 py-1.5 text-sm"
    >
      {code === undefined ? (
        <span className="text-soft">opening the link …</span>
      ) : (
        <>
          <CopyWord label="code" text={code} />
          {!hasGame && <CopyWord label="address" text={linkAddress()} />}
          <GameWords code={code} />
        </>
      )}
      <Button look="quiet" className="ml-auto" onClick={gameLink.close}>
        End the link
      </Button>
      <p role="status" className="w-full text-foxglove empty:hidden">
        {fault}
      </p>
    </section>
  );
}
