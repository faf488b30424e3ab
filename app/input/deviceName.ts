import type { PadsStatus } from "./gamepads";

/**
 * Returns the name of the device of a code for a take: "keys", "mouse", "screen", or the name of the pad; "pad" if
 * several are connected and the code, such as "pad:0", may come from any.
 */
export function deviceName(code: string, pads: PadsStatus["pads"]): string {
  const [device] = code.split(":");
  if (device === "key") return "keys";
  if (device === "wheel") return "mouse";
  if (!device!.startsWith("pad")) return device!;
  const order = Number(device!.slice("pad".length));
  const pad =
    order > 0 ? pads.find(({ index }) => index === order - 1) : pads.length === 1 ? pads[0] : undefined;
  return pad?.name ?? "pad";
}
