// npm run game -- --code CODE: a small platformer without graphics that plays itself on a live link.
import { Command, Option } from "commander";
import { WebSocket } from "ws";
import { joinLink } from "../link/client/moss-tap-link.mjs";
import { FAULTS } from "./ownInput.mjs";
import { createGame } from "./playGame.mjs";

const RATE = 60;
const wholeNumber = text => {
  if (!/^\d+$/.test(text)) throw new Error(`${text} is not a whole number`);
  return Number(text);
};

const options = new Command("game")
  .description(
    "A sample game: runs and leaps over beams by scripted hands, on a live link with Belfry Runner",
  )
  .requiredOption("--code <code>", "the code of the link")
  .option("--url <url>", "the address of the server", "ws://localhost:3000/link")
  .option("--own", "perform by input code of its own, and report it (otherwise it asks the rules)")
  .addOption(
    new Option("--fault <fault>", `a fault of its own input code; implies --own`).choices(
      Object.keys(FAULTS),
    ),
  )
  .option("--seed <n>", "the seed of the hands", wholeNumber, 1)
  .option("--frames <n>", "frames to play; 0 plays until Ctrl-C", wholeNumber, 0)
  .option("--fast", "play as fast as the link allows, instead of 60 frames a second")
  .parse()
  .opts();

const asks = !options.own && options.fault === undefined;
const link = joinLink({
  url: options.url,
  code: options.code,
  name: "Sample game",
  player: `hands ${options.seed}`,
  device: "script",
  rate: RATE,
  asks,
  WebSocket,
  onState: state => console.log(state),
  onFault: ({ code, at, message }) => console.error(`${code}${at ? ` at ${at}` : ""}: ${message}`),
});
const play = createGame({ link, asks, seed: options.seed, fault: options.fault });

/** Plays up to `count` frames, and returns whether there are more to play. */
function playFrames(count) {
  for (let n = 0; n < count && link.state === "playing"; n++) {
    if (options.frames > 0 && link.frame + 1 >= options.frames) return false;
    play();
  }
  return true;
}

const beganMs = performance.now();
let played = 0;
const timer = setInterval(
  () => {
    const due = options.fast ? 20 : Math.floor(((performance.now() - beganMs) / 1000) * RATE) - played;
    played += Math.max(0, due);
    if (link.state === "refused") process.exit(2);
    // After a pause the game goes on from now, as games do.
    if (playFrames(Math.min(due, 20))) return;
    clearInterval(timer);
    link.end();
    // Messages on their way leave before the connection ends.
    setTimeout(() => {
      link.close();
      process.exit(0);
    }, 200);
  },
  options.fast ? 1 : 1000 / RATE,
);
