/** What a frame of the game sends: its controls and gates, and the moves its own input code performed. */
interface GameInput {
  readonly controls: Readonly<Record<string, boolean>>;
  readonly gates: Readonly<Record<string, boolean>>;
  readonly did: readonly string[];
}

export function createGame(options: {
  readonly link: {
    readonly step: (input: GameInput) => readonly { readonly kind: string; readonly id?: string }[];
  };
  readonly asks: boolean;
  readonly seed: number;
  readonly fault?: string | undefined;
}): () => readonly string[];
