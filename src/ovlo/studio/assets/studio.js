// @ts-check
// The studio begins: the page of a program, which is written beside its picture.

import { createPlayer, offer } from "../../page/assets/player.js";
import { createExplorer } from "../../page/assets/explorer.js";
import { createLink } from "../../page/assets/link.js";
import { createWriting } from "./writing.js";

const studio = createPlayer();
const explorer = createExplorer(studio);
const writing = createWriting(studio, explorer);
offer(studio, createLink(studio, explorer).first, writing.script);
