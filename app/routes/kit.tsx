import { useEffect, useRef, type RefObject } from "react";
import {
  data,
  isRouteErrorResponse,
  Outlet,
  useLocation,
  useRouteError,
  type ShouldRevalidateFunctionArgs,
} from "react-router";
import { appContext } from "../appContext";
import { browserDevices } from "../browserDevices";
import { kitAppOf } from "../composeKits";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { usePad, usePadState } from "../input/context";
import { loadReaders } from "../judging/reading";
import { ProvideKit } from "../ProvideKit";
import { BrokenKit } from "../shell/BrokenKit";
import { ErrorPage } from "../shell/ErrorPage";
import { GapNotice } from "../shell/GapNotice";
import { Header } from "../shell/Header";
import { PART_PATHS } from "../storage/partPaths";
import { PrefetchViews } from "../shell/PrefetchViews";
import { usePartKeys } from "../shell/pageParts";
import { SkipLinks } from "../shell/SkipLinks";
import { PenLine } from "../shell/PenLine";
import { RescueButtons } from "../shell/RescueButtons";
import { WaitForStorage } from "../shell/WaitForStorage";
import { isBroken, type Broken } from "../storage/records";
import { VERBS } from "../shell/verbs";
import { loadTakenSheet } from "../takeIn/loadTakenSheet";
import { Dock, type DockView } from "../tape/panel/Dock";
import { Region } from "../ui/Region";
import { loadCharts } from "../ui/useChart";
import type { Route } from "./+types/kit";

/** The parts that views load when they need them. */
const PARTS = [loadCharts, loadReaders, loadTakenSheet];

/** The status of a kit that is not known to be missing, because the storage has not been read. */
const UNREAD = 503;

/** Opens the kit of the address. A missing or invalid kit leads to a page with a way out. */
export async function clientLoader({ params, context }: Route.ClientLoaderArgs) {
  const kitApp = kitAppOf(context.get(appContext), browserDevices);
  const { kitId } = params;
  const opened = await kitApp.workbench.open(kitId);
  if (typeof opened === "object") throw data(opened, { status: 422 });
  if (opened === "unread") throw data("", { status: UNREAD });
  if (opened === "missing")
    throw data(
      `No kit "${kitId}" is on this browser's shelf. It may live in another browser, or have been deleted.`,
      { status: 404 },
    );
  return { kitApp };
}
clientLoader.hydrate = true as const;

/** The workbench keeps the open kit: shelf actions and changes of view do not reload it. */
export function shouldRevalidate({ currentParams, nextParams }: ShouldRevalidateFunctionArgs) {
  return currentParams.kitId !== nextParams.kitId;
}

/** Undo and redo by key, except while the keys belong to the kit or to a text field's own undo. */
function useUndoKeys(): void {
  const workbench = useWorkbench();
  const pad = usePad();
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      const isUndo = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z";
      const { session, isLinked } = pad.getState();
      if (!isUndo || (session && !isLinked)) return;
      event.preventDefault();
      if (event.shiftKey) workbench.redo();
      else workbench.undo();
    };
    window.addEventListener("keydown", onKeyDown);
    return () => window.removeEventListener("keydown", onKeyDown);
  }, [workbench, pad]);
}

/** Puts the focus on the view that has opened, unless something on the page has it. */
function useViewFocus(main: RefObject<HTMLElement | null>): void {
  const { pathname } = useLocation();
  useEffect(() => {
    if (document.activeElement === document.body) main.current?.focus({ preventScroll: true });
  }, [main, pathname]);
}

/** Ends a drag in progress when another view opens; its edits are kept. */
function useStepEnds(): void {
  const workbench = useWorkbench();
  const { pathname } = useLocation();
  useEffect(() => () => workbench.closeStep(), [workbench, pathname]);
}

/** Returns the view of an address of a kit. */
function viewOf(pathname: string): DockView {
  const last = pathname.split("/")[3];
  return VERBS.find(({ path }) => path === last)?.path ?? "play";
}

const wordOf = (view: DockView): string => VERBS.find(({ path }) => path === view)?.word ?? "Play";

export default function KitLayout({ loaderData }: Route.ComponentProps) {
  return (
    <ProvideKit kitApp={loaderData.kitApp}>
      <KitPage />
    </ProvideKit>
  );
}

/** The page of a kit: the header, the view, and the tape below it. */
function KitPage() {
  useStepEnds();
  const pad = usePad();
  const title = useDocument(state => state.kit?.name);
  const kitId = useDocument(state => state.kit?.id);
  const { pathname } = useLocation();
  const view = viewOf(pathname);
  const isWide = usePadState(state => state.isWide) && view === "play";
  useUndoKeys();
  usePartKeys();
  const main = useRef<HTMLElement>(null);
  useViewFocus(main);
  useEffect(() => () => pad.sleep(), [pad]);
  return (
    <div className="flex h-[calc(100dvh-var(--notices-px))] min-w-[320px] flex-col overflow-hidden">
      {kitId && <PrefetchViews files={PART_PATHS} parts={PARTS} />}
      <SkipLinks />
      <GapNotice />
      {title && <title>{`${wordOf(view)}: ${title} · Moss Tap`}</title>}
      <Region name="The header" rescue={<RescueButtons />}>
        {!isWide && <Header />}
        <PenLine />
      </Region>
      <main ref={main} tabIndex={-1} className="flex min-h-0 grow flex-col outline-none">
        <Region name="This view" of={pathname} rescue={<RescueButtons />}>
          <Outlet key={kitId} />
        </Region>
      </main>
      <Region name="The tape" of={kitId} rescue={<RescueButtons />}>
        <Dock view={view} />
      </Region>
    </div>
  );
}

export { BlankPage as HydrateFallback } from "../shell/BlankPage";

export function ErrorBoundary() {
  const error = useRouteError();
  if (isRouteErrorResponse(error) && error.status === 422 && isBroken(error.data as object))
    return <BrokenKit broken={error.data as Broken} />;
  if (isRouteErrorResponse(error) && error.status === UNREAD) return <WaitForStorage />;
  return <ErrorPage error={error} />;
}
