// @ts-check
// The page of a server begins: with the drawing that is sent, and followed as it grows.

import { createPlayer, offer } from "./player.js";
import { createExplorer } from "./explorer.js";
import { createLink } from "./link.js";

const shown = createPlayer();
offer(shown, createLink(shown, createExplorer(shown)).first);
