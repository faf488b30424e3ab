import { useEffect } from "react";
import { Outlet } from "react-router";
import { pad, sleepPad } from "../input/pad";
import { Header } from "../shell/Header";
import { leaveNow, openKit, redo, saveNow, undo } from "../document/workbench";
import { useWorkbench } from "../document/useWorkbench";
import { Dock } from "../tape/panel/Dock";
import type { Route } from "./+types/kit";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const kitId = (params as { kitId?: string }).kitId ?? "";
  if (!(await openKit(kitId))) {
    throw new Response(
      `No kit "${kitId}" is on this browser's shelf. It may live in another browser, or have been deleted.`,
      { status: 404 },
    );
  }
  return null;
}
clientLoader.hydrate = true as const;

/** Undo and redo by key, except while the keys belong to the kit or to a text field's own undo. */
function onKeyDown(event: KeyboardEvent): void {
  if (pad.getState().session || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z") return;
  event.preventDefault();
  if (event.shiftKey) redo();
  else undo();
}

export default function KitLayout() {
  const title = useWorkbench(state => state.kit?.name);
  useEffect(() => {
    const save = () => void saveNow();
    const leave = () => {
      leaveNow();
      void saveNow();
    };
    window.addEventListener("keydown", onKeyDown);
    window.addEventListener("pagehide", leave);
    document.addEventListener("visibilitychange", save);
    return () => {
      window.removeEventListener("keydown", onKeyDown);
      window.removeEventListener("pagehide", leave);
      document.removeEventListener("visibilitychange", save);
      sleepPad();
      save();
    };
  }, []);
  return (
    <div className="flex h-dvh min-w-[840px] flex-col overflow-hidden">
      {title && <title>{`${title} · Moss Tap`}</title>}
      <Header />
      <main className="flex min-h-0 grow flex-col">
        <Outlet />
      </main>
      <Dock />
    </div>
  );
}

export function HydrateFallback() {
  return <div className="h-dvh bg-paper" aria-busy="true" />;
}
