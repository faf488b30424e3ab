export { createCode, parseCode } from "./code";
export { createGameRun, type GameRun } from "./gameRun";
export { createLinks, type Connection, type Links, type Peer, type PeerOrigin } from "./links";
export { actsOf, listReported, createLinkedTake, type Act, type LinkedTake } from "./linkedTake";
export { compareTake, createDifferenceReader, type DifferenceReader } from "./differenceReader";
export { createHostedLink, type HostedLink, type HostedTake, type HostListeners } from "./hostedLink";
export { explainDifference } from "./explainDifference";
export {
  addCounts,
  compareActs,
  countDifferences,
  createComparison,
  formatCounts,
  formatDifference,
  framesLater,
  listDifferences,
  pairFrames,
  type Comparison,
  type DifferenceCounts,
  type PairedAct,
} from "./differences";
export {
  LINK_BOUNDS,
  LINK_VERSION,
  SUBPROTOCOL,
  type Batch,
  type Fault,
  type GameFrame,
  type GameMessage,
  type HostMessage,
  type Joined,
  type KitInForce,
  type Left,
  type LinkEvent,
} from "./messages";
