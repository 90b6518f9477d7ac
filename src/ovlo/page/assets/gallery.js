// @ts-check
// Small pictures to choose from: each a button with its values beneath.
//
//   const gallery = createGallery(list);
//   gallery.add(drawing, "sides=5", () => take(5));

import { pictureBeside, pictureOfSheet } from "./paint.js";
import { made } from "./panel.js";

/** Pixels across of a small picture. */
const WIDE = 150;

/** @param {HTMLElement} list */
export function createGallery(list) {
  return {
    /** @param {any} drawing null for one that could not be drawn @param {string} caption @param {() => void} chosen
     * @param {any} beside the drawing it is a neighbour of; null to show the whole sheet */
    add(drawing, caption, chosen, beside = null) {
      const [row, button, canvas] = [made("li"), made("button", "", "small"), document.createElement("canvas")];
      button.type = "button";
      button.addEventListener("click", chosen);
      if (drawing) {
        if (beside) pictureBeside(canvas, drawing, WIDE, beside);
        else pictureOfSheet(canvas, drawing, (WIDE * (window.devicePixelRatio || 1)) / drawing.width);
        canvas.style.aspectRatio = `${drawing.width} / ${drawing.height}`;
        button.append(canvas);
      }
      button.append(made("span", caption));
      row.append(button);
      list.append(row);
      return row;
    },
    clear() {
      list.replaceChildren();
    },
    /** Lay so many pictures in a row. @param {number} count */
    across(count) {
      list.style.display = "grid";
      list.style.gridTemplateColumns = `repeat(${count}, minmax(5rem, 1fr))`;
    },
  };
}
