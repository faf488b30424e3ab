import { SUBPROTOCOL } from "#link";

/** A connection to the server's links. */
export interface LinkSocket {
  readonly send: (text: string) => void;
  readonly close: () => void;
}

export interface LinkSocketListeners {
  readonly onOpen: () => void;
  readonly onMessage: (text: string) => void;
  /** The connection ended, or could not be made. Called once, with its WebSocket status. */
  readonly onClose: (status: number) => void;
}

/** The address of the server's links, as games need it. */
export const linkAddress = () => `${location.origin.replace(/^http/, "ws")}/link`;

/** Connects to the links of the server that served this page. */
export function openLinkSocket({ onOpen, onMessage, onClose }: LinkSocketListeners): LinkSocket {
  const socket = new WebSocket(linkAddress(), SUBPROTOCOL);
  socket.addEventListener("open", onOpen);
  socket.addEventListener("message", event => onMessage(String(event.data)));
  socket.addEventListener("close", event => onClose(event.code));
  return {
    send: text => socket.readyState === WebSocket.OPEN && socket.send(text),
    close: () => socket.close(),
  };
}
