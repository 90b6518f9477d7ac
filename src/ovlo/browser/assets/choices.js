// @ts-check
// A page that holds a drawing with many values: sliders choose among them, and all are seen side by side.
//
//   createChoices(player, { parameters, combinations }, async (number) => drawing);

import { createForm } from "./form.js";
import { createGallery } from "./gallery.js";
import { part } from "./panel.js";

/** @param {ReturnType<typeof import("./player.js").createPlayer>} player
 * @param {{parameters: import("./form.js").Parameter[], combinations: {values: Record<string, string>,
 *   trouble: string, message: number | null}[]}} choices
 * @param {(message: number) => Promise<any>} drawn */
export function createChoices(player, { parameters, combinations }, drawn) {
  const all = /** @type {HTMLDialogElement} */ (part("gallery"));
  const gallery = createGallery(part("gallery-list"));
  const form = createForm(part("form"), choose);
  let wanted = 0;

  /** Show what has these values. @param {Record<string, string>} values */
  async function choose(values) {
    const found = combinations.find((one) => parameters.every(({ name }) => one.values[name] === values[name]));
    if (!found) return;
    const mine = ++wanted;
    part("trouble").textContent = found.trouble;
    part("trouble").hidden = !found.trouble;
    if (found.message === null) return;
    const drawing = await drawn(found.message);
    if (mine === wanted) player.take(drawing);
  }

  async function fill() {
    for (const { values, message, trouble } of combinations) {
      const caption = Object.entries(values).map(([name, text]) => `${name}=${text}`).join(", ");
      const drawing = message === null ? null : await drawn(message);
      gallery.add(drawing, trouble ? `${caption}: ${trouble}` : caption, () => {
        all.close();
        form.set(values);
      });
    }
  }

  part("explore").hidden = false;
  part("show-all").hidden = false;
  part("show-all").addEventListener("click", () => all.showModal());
  form.take(parameters, combinations[0].values);
  all.showModal();
  fill();
}
