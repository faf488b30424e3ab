import { BOUNDS } from "#core";
import { Link } from "react-router";
import { useStore } from "zustand";
import { renameKit } from "../edits/kitEdits";
import { Button } from "../ui/Button";
import { Logo } from "./Logo";
import { ThemeButton } from "./ThemeButton";
import { Trail } from "./Trail";
import { WakeButton } from "./WakeButton";
import { ProofSum } from "./ProofSum";
import { useProof } from "../document/checksContext";
import { useDocument, useHistory, useWorkbench } from "../document/workbenchContext";
import { useStored } from "../storage/context";

/** The summary of the kit's checks, shown in every view. */
function ProofLink({ kitId }: { kitId: string }) {
  return (
    <Link
      to={`/kit/${encodeURIComponent(kitId)}/prove`}
      className="font-semibold underline-offset-4 hover:underline"
    >
      <ProofSum />
    </Link>
  );
}

/** The header of every view of a kit: the current view, the open kit, and the pad. */
export function Header() {
  const workbench = useWorkbench();
  const { storage } = useStored();
  const kitId = useDocument(state => state.kit?.id ?? "");
  const name = useDocument(state => state.kit?.name ?? "");
  const rate = useDocument(state => state.kit?.rate ?? 60);
  const isThere = useDocument(state => state.holder !== "gone");
  const isKept = useStore(storage, state => state.trouble === undefined) && isThere;
  const { canUndo, canRedo } = useHistory();
  const isAsked = useProof(state => state.asked > 0);
  return (
    <header className="flex h-14 shrink-0 items-center gap-4 border-b border-line px-5 max-lg:gap-2 max-lg:px-3">
      <Logo />
      <Trail kitId={kitId} />
      <div className="ml-auto flex items-center gap-1">
        <Button look="quiet" onClick={workbench.undo} disabled={!canUndo} title="Undo (Ctrl+Z)">
          Undo
        </Button>
        <Button look="quiet" onClick={workbench.redo} disabled={!canRedo} title="Redo (Ctrl+Shift+Z)">
          Redo
        </Button>
        <ThemeButton />
      </div>
      <p className="min-w-0 shrink-0 text-right leading-tight">
        <input
          maxLength={BOUNDS.nameLetters}
          key={name}
          aria-label="Name of the kit"
          title={name}
          className="block w-full truncate rounded bg-transparent text-right font-semibold focus:bg-leaf"
          defaultValue={name}
          onBlur={event => {
            const typed = event.target.value.trim();
            if (typed && typed !== name) workbench.editKit(`renamed ${typed}`, kit => renameKit(kit, typed));
          }}
          onKeyDown={event => event.key === "Enter" && event.currentTarget.blur()}
        />
        <span className="block text-sm whitespace-nowrap text-soft">
          <span className="max-lg:hidden">
            <Link
              to={`/kit/${encodeURIComponent(kitId)}/wire?wire=clock`}
              className="underline-offset-4 hover:underline"
            >
              {rate} {isAsked ? "frames/s" : "frames a second"}
            </Link>{" "}
            · {isKept ? "saved" : "not saved"}
            {isAsked && " · "}
          </span>
          {isAsked && <ProofLink kitId={kitId} />}
        </span>
      </p>
      <WakeButton />
    </header>
  );
}
