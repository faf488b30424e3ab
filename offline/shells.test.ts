import { describe, expect, test } from "vitest";
import { SHELLS, shellFor } from "./shells";

describe("shells", () => {
  test("each is the answer to the address for which it is rendered, whatever the kit", () => {
    for (const shell of SHELLS) {
      expect(shellFor(shell.address)).toBe(shell);
      expect(shellFor(shell.address.replace("kept", "k1"))).toBe(shell);
    }
  });

  test.each(["/elsewhere", "/new/1", "/kit", "/kit/k1/elsewhere", "/kit/k1/shape/1"])("%s is no page", path =>
    expect(shellFor(path).file).toBe("shells/nowhere.html"),
  );

  test("a slash at the end makes no difference", () =>
    expect(shellFor("/kit/k1/shape/")).toBe(shellFor("/kit/k1/shape")));
});
