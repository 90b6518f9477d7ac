// @ts-check
// A page that holds a drawing with many values: sliders choose among them, and all are seen side by side.
//
//   createChoices(player, { parameters, combinations }, async (number) => drawing);

import { createForm } from "./form.js";
import { createGallery } from "./gallery.js";
import { inWords, part } from "./panel.js";

const MOST_ACROSS = 8;

/** @param {ReturnType<typeof import("./player.js").createPlayer>} player
 * @param {{parameters: import("./form.js").Parameter[], combinations: {values: Record<string, string>,
 *   trouble: string, message: number | null}[], source: any}} choices
 * @param {(message: number) => Promise<any>} drawn */
export function createChoices(player, { parameters, combinations, source }, drawn) {
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
    const drawing = { ...(await drawn(found.message)), source };
    if (mine === wanted) player.take(drawing);
  }

  async function fill() {
    for (const { values, message, trouble } of combinations) {
      const caption = inWords(values).join(", ");
      const drawing = message === null ? null : await drawn(message);
      gallery.add(drawing, trouble ? `${caption}: ${trouble}` : caption, () => {
        all.close();
        form.set(values);
      });
    }
  }

  // Of two parameters the one with more values runs along the rows.
  const most = Math.max(...parameters.map((one) => one.choices.length));
  if (parameters.length === 2 && most <= MOST_ACROSS) gallery.across(most);
  player.layout.offer("explore", true);
  player.layout.choose("explore");
  part("show-all").hidden = false;
  part("show-all").addEventListener("click", () => all.showModal());
  form.take(parameters, {});
  form.set(combinations[0].values);
  all.showModal();
  return { first: fill() };
}
