// @ts-check
// The line to the server: drawings come in, wishes go out. docs/message.md lists both.
//
//   createLink(player, explorer).first.then(() => "the first picture is there");

import { drawingOf, readMessage } from "./data.js";
import { part } from "./panel.js";

/** @param {ReturnType<typeof import("./player.js").createPlayer>} player
 * @param {ReturnType<typeof import("./explorer.js").createExplorer>} explorer */
export function createLink(player, explorer) {
  /** @type {import("./data.js").Message | null} */
  let last = null;
  let isFirst = true;
  /** @type {(value?: unknown) => void} */
  let isThere = () => {};
  const first = new Promise((resolve) => (isThere = resolve));
  /** @type {WebSocket} */
  let socket;

  /** @param {object} wish */
  function send(wish) {
    if (socket.readyState === WebSocket.OPEN) socket.send(JSON.stringify(wish));
  }

  // The key that let us in is a cookie now; the address, which others may see, is without it.
  if (location.pathname === "/enter") {
    history.replaceState(null, "", `/${new URLSearchParams(location.search).get("page")}${location.hash}`);
  }

  function open() {
    socket = new WebSocket(`${location.origin.replace("http", "ws")}${location.pathname}/link`);
    socket.binaryType = "arraybuffer";
    socket.addEventListener("open", () => {
      last = null;
      part("gone").hidden = true;
    });
    socket.addEventListener("message", (event) => {
      if (typeof event.data === "string") explorer.hear(JSON.parse(event.data));
      else takeMessage(event.data);
    });
    socket.addEventListener("close", () => {
      part("gone").hidden = false;
      explorer.lose();
    });
  }

  /** @param {ArrayBuffer} buffer */
  function takeMessage(buffer) {
    const message = readMessage(buffer, last);
    const { head } = message;
    if (head.kind !== "drawing") return explorer.take(head, message);
    last = message;
    const drawing = drawingOf(message);
    if (drawing.start.follows) player.stage.follow();
    player.take(drawing);
    explorer.show(drawing);
    if (isFirst) player.begin();
    isFirst = false;
    // The next drawing is sent when this one has been painted.
    requestAnimationFrame(() => setTimeout(() => {
      send({ do: "shown" });
      isThere();
    }));
  }

  window.addEventListener("pagehide", () => {
    send({ do: "bye" });
    socket.close();
  });
  window.addEventListener("pageshow", (event) => {
    if (event.persisted) open();
  });
  explorer.useLink(send);
  open();
  return { first };
}
