import { join } from "node:path";
import { Command } from "commander";
import { parseKit, type Kit } from "#core";
import { formatFile } from "#handover";
import { createHostedLink, type HostedTake, type HostMessage } from "#link";
import { connectHost, type HostConnection } from "./link/openLink";
import { createLinkReport, takeFileName, type LinkReport } from "./link/reportLink";
import { writeOut } from "./output";
import { readDocument } from "./readDocument";
import { refuse } from "./refuse";

interface Options {
  readonly url: string;
  readonly code?: string;
  readonly out?: string;
  readonly check?: boolean;
  readonly slip: string;
  readonly takes?: string;
  readonly wait?: string;
  readonly quiet?: boolean;
}

/** Returns a whole number of an option; undefined if it is none. */
const wholeOf = (text: string | undefined) =>
  text !== undefined && /^\d{1,6}$/.test(text) ? Number(text) : undefined;

function listFaults({ slip, takes, wait }: Options): string[] {
  return [
    ...(wholeOf(slip) === undefined ? [`--slip ${slip}: write a whole number of frames, such as 1`] : []),
    ...(takes !== undefined && !wholeOf(takes)
      ? [`--takes ${takes}: write how many takes to play, 1 or more`]
      : []),
    ...(wait !== undefined && !wholeOf(wait)
      ? [`--wait ${wait}: write how many seconds to wait for a game`]
      : []),
  ];
}

const print = (line: string) => process.stdout.write(`${line}\n`);

/** Writes an ended take into a folder. Returns the fault as a line, undefined if there is none. */
function writeTake(folder: string, kit: Kit, { taken, game }: HostedTake, n: number): string | undefined {
  const take = taken.toTake({
    id: `${kit.id.slice(0, 80)}-linked-${n}`,
    name: `${game.name.slice(0, 150)} ${n}`,
    kit: kit.id,
  });
  return writeOut(join(folder, takeFileName(n, game.player)), formatFile(take));
}

/** Follows an open link until it ends; resolves with the fault that ended it, if any. */
function followLink(
  kit: Kit,
  connection: HostConnection,
  report: LinkReport,
  options: Options,
): Promise<string | undefined> {
  const wanted = wholeOf(options.takes) ?? (options.check ? 1 : Infinity);
  return new Promise(resolve => {
    const waitMs = wholeOf(options.wait);
    const patience =
      waitMs === undefined
        ? undefined
        : setTimeout(() => resolve(`no game joined within ${waitMs} s`), waitMs * 1000);
    const hosted = createHostedLink({
      onGame(game) {
        clearTimeout(patience);
        print(
          game
            ? `${game.name} joined, ${game.rate} frames a second, ${game.asks ? "asks the rules" : "performs alone"}`
            : "the game left",
        );
      },
      onTake: report.onTake,
      onFrames: report.onFrames,
      onEnd(take) {
        report.onEnd(take);
        const fault = options.out === undefined ? undefined : writeTake(options.out, kit, take, report.takes);
        if (fault || report.takes >= wanted) resolve(fault);
      },
    });
    connection.onMessage((message: HostMessage) => {
      if (message.t === "opened") print(`code ${message.code}`);
      if (message.t === "fault") resolve(message.message);
      else hosted.receive(message);
    });
    void connection.closed.then(() => resolve("the connection to the server ended"));
    for (const signal of ["SIGINT", "SIGTERM"] as const) process.once(signal, () => resolve(undefined));
    connection.send({
      t: "open",
      kit,
      revision: 1,
      ...(options.code === undefined ? {} : { code: options.code }),
    });
  });
}

/** Returns the exit code of a check, and why. */
function judge(report: LinkReport, slip: number): [code: number, line: string] {
  if (report.takes === 0) return [2, "nothing was played"];
  if (report.acts === 0)
    return [2, "nothing was compared: the game reported no move that it performed (did)"];
  if (report.largestFrames <= slip) return [0, `no difference of more than ${slip}f`];
  return [1, `differences of more than ${slip}f came`];
}

/** Opens a live link for a kit without a page; see docs/link.md. Exit code 1: --check found a difference. */
async function main(kitFile: string, options: Options): Promise<void> {
  const kit = readDocument(kitFile, parseKit);
  const faults = [...listFaults(options), ...("lines" in kit ? kit.lines : [])];
  if (faults.length > 0 || "lines" in kit) return refuse(faults);
  const connection = await connectHost(options.url);
  if (connection.isOwn) print(`no server runs there: the link is served at ${options.url} by this command`);
  const report = createLinkReport(kit.value, print, options.quiet === true || options.check === true);
  const fault = await followLink(kit.value, connection, report, options);
  connection.send({ t: "close" });
  connection.close();
  if (fault !== undefined) return refuse([`moss-tap link: ${fault}`]);
  if (!options.check) return;
  const [code, line] = judge(report, wholeOf(options.slip)!);
  process.stderr.write(`${line}\n`);
  process.exitCode = code;
}

export const linkCommand = () =>
  new Command("link")
    .description(
      "Opens a live link for a running game: KIT.json in; the code, and what the rules make of the game, out",
    )
    .argument("<kit>", "a kit file")
    .option(
      "--url <url>",
      "the server; if none runs there, the command serves the link itself",
      "ws://localhost:3000/link",
    )
    .option("--code <code>", "ask for this code, such as one that a script knows")
    .option("--out <folder>", "write each take into this folder when it ends")
    .option("--takes <n>", "end after so many takes; with --check 1, otherwise on Ctrl-C")
    .option("--wait <s>", "end with exit code 2 if no game joins within so many seconds")
    .option("--check", "exit 1 if the game differs from the rules by more than --slip frames")
    .option("--slip <n>", "how many frames a game may differ from the rules", "0")
    .option("--quiet", "do not print events")
    .action(main);
