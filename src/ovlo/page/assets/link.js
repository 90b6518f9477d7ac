// @ts-check
// The line to the server: drawings come in, wishes go out. docs/message.md lists both.
//
//   createLink(player, explorer).first.then(() => "the first picture is there");

import { drawingOf, readMessage } from "./data.js";
import { part } from "./panel.js";

/** Seconds after which a broken line is tried again. */
const PAUSES = [0.2, 0.5, 1, 2];

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
  let tries = 0;
  let isLeaving = false;

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
      tries = 0;
      part("gone").hidden = true;
    });
    socket.addEventListener("message", (event) => {
      if (typeof event.data === "string") explorer.hear(JSON.parse(event.data));
      else takeMessage(event.data);
    });
    socket.addEventListener("close", () => {
      if (isLeaving) return;
      const forGood = !explorer.goesOn() || tries >= PAUSES.length;
      part("gone").hidden = false;
      part("gone-words").textContent = forGood
        ? "The program has ended. You can still replay the picture."
        : "The connection to the program is broken; trying again …";
      explorer.lose(forGood);
      if (!forGood) setTimeout(open, 1000 * PAUSES[tries++]);
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
    isLeaving = true;
    send({ do: "bye" });
    socket.close();
  });
  window.addEventListener("pageshow", (event) => {
    if (event.persisted) {
      isLeaving = false;
      open();
    }
  });
  explorer.useLink(send);
  open();
  return { first };
}
