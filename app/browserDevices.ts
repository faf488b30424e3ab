import type { Devices } from "./composeKits";
import { browserPads } from "./input/gamepads";
import { listenToPage } from "./input/pageEvents";
import { openLinkSocket } from "./link/linkSocket";

/** Returns the devices and connections of the browser. */
export function browserDevices(): Devices {
  return { listen: listenToPage, readPads: browserPads(), openSocket: openLinkSocket };
}
