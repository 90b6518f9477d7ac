// @ts-check
// The page of a file begins: with the drawing it holds, or with all the drawings it holds and sliders to choose among
// them.

import { drawingOf, readMessage, unpacked } from "./data.js";
import { createPlayer, offer } from "./player.js";
import { createChoices } from "./choices.js";

const player = createPlayer();

/** The drawing that is held by an element of the page. @param {Element} element */
async function held(element) {
  return drawingOf(readMessage(await unpacked(element.textContent ?? "")));
}

async function begin() {
  const messages = [...document.querySelectorAll("script.message")];
  const choices = document.getElementById("choices")?.textContent;
  if (choices) return createChoices(player, JSON.parse(choices), (number) => held(messages[number])).first;
  player.take(await held(messages[0]));
  player.begin();
}

offer(player, begin());
