import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { createTalk, type TestPeer } from "../link/tests/talk";

const example = /```link\n([\s\S]*?)```/.exec(readFileSync("docs/link.md", "utf8"))![1]!;

test("the example of the live link is what is sent and answered, message by message", () => {
  const talk = createTalk();
  const peers: Record<string, TestPeer> = { host: talk.connect(), game: talk.connect() };
  const read: Record<string, number> = { host: 0, game: 0 };
  let kit = "";
  let code = "";
  const fill = (text: string) =>
    JSON.parse(
      text.replaceAll(": KIT", `: ${kit}`).replaceAll(": CODE", `: ${JSON.stringify(code)}`),
    ) as Record<string, unknown>;
  let answers = 0;
  for (const block of example.trim().split("\n\n")) {
    for (const line of block.split("\n")) {
      const [, who, way, text] = /^(host|game) (→|←) (.*)$/.exec(line)!;
      const peer = peers[who!]!;
      if (way === "→") {
        if (text!.includes('"open"')) kit = JSON.stringify(fill(text!).kit);
        peer.say(fill(text!));
        code = (peers.host!.of("opened")[0]?.code as string | undefined) ?? code;
        continue;
      }
      // A batch waits until the one before is old enough.
      if (peer.got.length <= read[who!]!) talk.pass(20);
      expect(peer.got[read[who!]!++]).toEqual(fill(text!));
      answers++;
    }
  }
  expect(answers).toBeGreaterThan(15);
  expect([read.host, read.game]).toEqual([peers.host!.got.length, peers.game!.got.length]);
});
