// @ts-check
// The page begins: with the drawing it holds, with all the drawings it holds and sliders to choose among them, or
// with what the server sends.

import { drawingOf, readMessage, unpacked } from "./data.js";
import { createPlayer } from "./player.js";
import { createChoices } from "./choices.js";
import { createExplorer } from "./explorer.js";
import { createLink } from "./link.js";

const player = createPlayer();

/** The drawing that is held by an element of the page. @param {Element} element */
async function held(element) {
  return drawingOf(readMessage(await unpacked(element.textContent ?? "")));
}

async function begin() {
  const messages = [...document.querySelectorAll("script.message")];
  const choices = document.getElementById("choices")?.textContent;
  if (choices) return createChoices(player, JSON.parse(choices), (number) => held(messages[number])).first;
  if (!messages.length) return createLink(player, createExplorer(player)).first;
  player.take(await held(messages[0]));
  player.begin();
}

/** What scripts may use: `ovlo.ready` is fulfilled when the picture is there. */
const ovlo = Object.defineProperties({ ready: begin() }, Object.getOwnPropertyDescriptors(player.script));
/** @type {any} */ (window).ovlo = ovlo;
