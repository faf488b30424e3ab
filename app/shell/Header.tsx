import { BOUNDS } from "#core";
import { Link } from "react-router";
import { useStore } from "zustand";
import { renameKit } from "../edits/kitEdits";
import { Button } from "../ui/Button";
import { Flap } from "../ui/Flap";
import { SHORT_HEADER, useMedia } from "../ui/useMedia";
import { Logo } from "./Logo";
import { ThemeButton } from "./ThemeButton";
import { Trail } from "./Trail";
import { ViewMenu } from "./ViewMenu";
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

/** The name of the open kit, which is edited in place. */
function KitName({ look }: { look: string }) {
  const workbench = useWorkbench();
  const name = useDocument(state => state.kit?.name ?? "");
  return (
    <input
      maxLength={BOUNDS.nameLetters}
      key={name}
      aria-label="Name of the kit"
      title={name}
      className={`block w-full truncate rounded bg-transparent font-semibold focus:bg-leaf ${look}`}
      defaultValue={name}
      onBlur={event => {
        const typed = event.target.value.trim();
        if (typed && typed !== name) workbench.editKit(`renamed ${typed}`, kit => renameKit(kit, typed));
      }}
      onKeyDown={event => event.key === "Enter" && event.currentTarget.blur()}
    />
  );
}

/** The kit's rate, with a link to its clock, and whether everything is stored. */
function KitState({ kitId, rateLook = "" }: { kitId: string; rateLook?: string }) {
  const { storage } = useStored();
  const rate = useDocument(state => state.kit?.rate ?? 60);
  const isThere = useDocument(state => state.holder !== "gone");
  const isKept = useStore(storage, state => state.trouble === undefined) && isThere;
  return (
    <>
      <span className={rateLook}>
        <Link
          to={`/kit/${encodeURIComponent(kitId)}/wire?wire=clock`}
          className="underline-offset-4 hover:underline"
        >
          {rate} frames a second
        </Link>{" "}
        ·{" "}
      </span>
      {isKept ? "saved" : "not saved"}
    </>
  );
}

function UndoButtons() {
  const workbench = useWorkbench();
  const { canUndo, canRedo } = useHistory();
  return (
    <>
      <Button look="quiet" onClick={workbench.undo} disabled={!canUndo} title="Undo (Ctrl+Z)">
        Undo
      </Button>
      <Button look="quiet" onClick={workbench.redo} disabled={!canRedo} title="Redo (Ctrl+Shift+Z)">
        Redo
      </Button>
    </>
  );
}

/** The header in a narrow window: the views are a menu, and the kit's name and state are in a panel. */
function NarrowHeader({ kitId, isAsked }: { kitId: string; isAsked: boolean }) {
  return (
    <header className="flex min-h-12 shrink-0 flex-wrap items-center border-b border-line px-2 py-1 text-sm">
      <Logo />
      <ViewMenu kitId={kitId} />
      <span className="ml-auto flex items-center">
        <UndoButtons />
        <Flap
          word="Kit"
          wordLook="px-2 py-1 text-moss underline-offset-4 hover:underline"
          anchor="bottom end"
          panelLook="w-72 p-4"
        >
          {() => (
            <>
              <KitName look="text-lg" />
              <p className="my-2 text-soft">
                <KitState kitId={kitId} />
              </p>
              {isAsked && <ProofLink kitId={kitId} />}
              <p className="mt-2 -ml-2">
                <ThemeButton />
              </p>
            </>
          )}
        </Flap>
        <WakeButton />
      </span>
    </header>
  );
}

/** The header of every view of a kit: the current view, the open kit, and the pad. */
export function Header() {
  const kitId = useDocument(state => state.kit?.id ?? "");
  const isAsked = useProof(state => state.asked > 0);
  const isNarrow = useMedia(SHORT_HEADER);
  if (isNarrow) return <NarrowHeader kitId={kitId} isAsked={isAsked} />;
  return (
    <header className="flex h-14 shrink-0 items-center gap-4 border-b border-line px-5 max-xl:gap-2 max-xl:px-3">
      <Logo />
      <Trail kitId={kitId} />
      <div className="ml-auto flex items-center gap-1">
        <UndoButtons />
        <ThemeButton />
      </div>
      <p className="min-w-0 shrink-0 text-right leading-tight">
        <KitName look="text-right" />
        <span className="block text-sm whitespace-nowrap text-soft">
          <span className="max-xl:hidden">
            <KitState kitId={kitId} rateLook={isAsked ? "max-[1440px]:hidden" : ""} />
            {isAsked && " · "}
          </span>
          {isAsked && <ProofLink kitId={kitId} />}
        </span>
      </p>
      <WakeButton />
    </header>
  );
}
