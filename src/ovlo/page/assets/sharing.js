// @ts-check
// What can be taken from the page: the picture as a file or copied, and a link to a step.
//
//   const sharing = createSharing(player);
//   sharing.serve((wish) => send(wish));    // a server writes files now

import { part } from "./panel.js";
import { svgOf } from "./svg.js";

/** @param {{picture: (scale: number) => Promise<Blob>, drawing: () => any, step: () => number,
 *   look: () => object}} player */
export function createSharing(player) {
  const dialog = /** @type {HTMLDialogElement} */ (part("share"));
  const format = /** @type {HTMLSelectElement} */ (part("save-as"));
  /** @type {((wish: object) => void) | null} */
  let send = null;

  /** @param {string} words */
  function say(words) {
    part("shared").textContent = words;
  }

  /** @param {string} words @param {() => Promise<unknown>} copy @param {string} other what is said where it may not */
  async function copied(words, copy, other) {
    try {
      await copy();
      say(words);
    } catch {
      say(other);
    }
  }

  function copyLink() {
    const link = `${location.href.split("#")[0]}#step=${player.step()}`;
    copied("The link is copied.", () => navigator.clipboard.writeText(link), link);
  }

  function copyPicture() {
    const blob = player.picture(2);
    copied(
      "The picture is copied.",
      () => navigator.clipboard.write([new ClipboardItem({ "image/png": blob })]),
      "This browser does not let pictures be copied from here; save the picture instead.",
    );
  }

  async function save() {
    const ending = format.value;
    const scale = Number(format.selectedOptions[0].dataset.scale ?? 1);
    if (send) return send({ do: "save", ending, scale, ...player.look() });
    const name = `${player.drawing().title || "drawing"}${ending}`;
    if (ending === ".svg") return handOver(name, new Blob([svgOf(player.drawing())], { type: "image/svg+xml" }));
    return handOver(name, await player.picture(scale));
  }

  /** Hand a file to whoever saves it. @param {string} name @param {Blob} content */
  function handOver(name, content) {
    const link = document.createElement("a");
    link.href = URL.createObjectURL(content);
    link.download = name;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
    say(`Saved as ${name} in the downloads folder of this browser.`);
  }

  part("open-share").addEventListener("click", () => {
    say("");
    dialog.showModal();
  });
  part("save").addEventListener("click", save);
  part("copy-link").addEventListener("click", copyLink);
  part("copy-picture").addEventListener("click", copyPicture);

  return {
    handOver,
    /** Have files written by a server, which knows more formats; null when it is gone.
     * @param {((wish: object) => void) | null} wanted */
    serve(wanted) {
      send = wanted;
      for (const option of /** @type {NodeListOf<HTMLOptionElement>} */ (format.querySelectorAll(".served"))) {
        option.hidden = option.disabled = !wanted;
      }
    },
  };
}
