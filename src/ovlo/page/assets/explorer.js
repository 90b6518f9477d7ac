// @ts-check
// A program explored: its form, what it says, values kept and tried, and what can be done with them.
//
//   const explorer = createExplorer(player);
//   explorer.useLink(send);
//   explorer.hear({ kind: "form", … });

import { drawingOf } from "./data.js";
import { createForm } from "./form.js";
import { createGallery } from "./gallery.js";
import { inWords, made, part } from "./panel.js";

/** @param {ReturnType<typeof import("./player.js").createPlayer>} player */
export function createExplorer(player) {
  /** @type {(wish: object) => void} */
  let send = () => {};
  /** @type {any} */
  let drawing = null;
  /** @type {number | null} */
  let seed = null;
  let chosen = "";
  const form = createForm(part("form"), draw);
  const kept = createGallery(part("kept"));
  const neighbours = createGallery(part("gallery-list"));
  const gallery = /** @type {HTMLDialogElement} */ (part("gallery"));
  const seedField = /** @type {HTMLInputElement} */ (part("seed"));
  const question = /** @type {HTMLDialogElement} */ (part("question"));

  /** Ask for the picture; a seed is given once, and kept over there. */
  function draw() {
    send({ do: "values", values: form.values(), seed });
    seed = null;
  }

  /** Take values and a seed, as they were once. @param {Record<string, string>} values @param {number | null} wanted */
  function takeAll(values, wanted) {
    seed = wanted;
    form.set(values);
  }

  // ── what the server says ─────────────────────────────────────────────────────────────────────────────────

  /** @type {Record<string, (told: any) => void>} */
  const heard = {
    form(told) {
      part("explore").hidden = part("live").hidden = false;
      if (told.chosen !== chosen) kept.clear();
      chosen = told.chosen;
      const about = told.drawings.find((/** @type {any} */ one) => one.name === chosen);
      form.take(about?.parameters ?? [], told.values);
      const choosers = told.drawings.map((/** @type {any} */ one) => chooser(one));
      part("chooser").replaceChildren(...(choosers.length > 1 ? choosers : []));
      const keys = told.drawings.filter((/** @type {any} */ one) => one.shortcut);
      player.useShortcuts(
        Object.fromEntries(keys.map((/** @type {any} */ one) => [one.shortcut, () => choose(one.name)])),
      );
      part("no-values").hidden = Boolean(about?.parameters.length) || !chosen;
      part("write-values").hidden = part("neighbours").hidden = !about?.parameters.length;
    },
    findings: ({ findings }) => player.takeFindings(findings),
    running({ seconds, line }) {
      part("running").textContent = `drawing … ${seconds.toFixed(1)} s${line ? `, line ${line}` : ""}`;
      part("stop").hidden = false;
    },
    trouble({ words }) {
      part("trouble").textContent = words;
      part("trouble").hidden = !words;
      rest();
    },
    printed({ words }) {
      part("printed").textContent = words;
      part("printed-part").hidden = !words;
    },
    told: ({ words }) => tell(words),
    ask({ words }) {
      part("question-words").textContent = words || "The program asks for input.";
      const field = /** @type {HTMLInputElement} */ (part("answer"));
      field.value = "";
      question.showModal();
      field.focus();
    },
  };

  function rest() {
    part("running").textContent = "";
    part("stop").hidden = true;
  }

  /** @param {string} words */
  function tell(words) {
    part("told").textContent = words;
  }

  /** @param {any} about */
  function chooser(about) {
    const button = made("button", about.shortcut ? `${about.name} (${about.shortcut})` : about.name);
    button.type = "button";
    button.title = about.summary;
    button.setAttribute("aria-pressed", String(about.name === chosen));
    button.addEventListener("click", () => choose(about.name));
    return button;
  }

  /** @param {string} name */
  function choose(name) {
    send({ do: "choose", name });
  }

  // ── what can be done ─────────────────────────────────────────────────────────────────────────────────────

  function keep() {
    if (!drawing) return;
    const [values, then] = [form.values(), drawing.seed];
    const caption = captionOf(values, then);
    kept.add(drawing, caption, () => takeAll(values, then));
    tell(`Kept: ${caption}. Click the small picture below to return to it.`);
  }

  /** @param {Record<string, string>} values @param {number | null} then */
  function captionOf(values, then) {
    const words = inWords(values);
    if (then !== null) words.push(`seed ${then}`);
    return words.join(", ") || "as in the file";
  }

  async function copy() {
    const { command } = drawing.live;
    try {
      await navigator.clipboard.writeText(command);
      tell(`Copied: ${command}`);
    } catch {
      tell(command);
    }
  }

  /** @type {Record<string, () => void>} */
  const actions = {
    "keep-values": keep,
    "copy-command": copy,
    "new-seed": () => send({ do: "roll", values: form.values() }),
    "reset-values": () => takeAll({}, null),
    stop: () => send({ do: "stop" }),
    "write-values": () => send({ do: "write", values: form.values() }),
    save: () => send({ do: "save", ending: /** @type {HTMLSelectElement} */ (part("save-as")).value, ...player.look() }),
    neighbours() {
      neighbours.clear();
      gallery.showModal();
      send({ do: "neighbours", values: form.values(), seed: drawing?.seed ?? null });
    },
  };
  for (const [id, act] of Object.entries(actions)) part(id).addEventListener("click", act);
  seedField.addEventListener("change", () => {
    if (seedField.validity.valid && seedField.value) takeAll(form.values(), Number(seedField.value));
  });
  question.addEventListener("close", () => {
    send({ do: "answer", words: /** @type {HTMLInputElement} */ (part("answer")).value });
  });

  /** Hand a file to whoever saves it. @param {string} name @param {Uint8Array} content */
  function handOver(name, content) {
    const link = made("a");
    link.href = URL.createObjectURL(new Blob([/** @type {any} */ (content)]));
    link.download = name;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
    tell(`Saved as ${name} in the downloads folder of this browser.`);
  }

  return {
    /** @param {any} told */
    hear(told) {
      heard[told.kind]?.(told);
    },
    /** A drawing is shown. @param {any} wanted */
    show(wanted) {
      drawing = wanted;
      if (!drawing.live) return;
      rest();
      part("chance").hidden = drawing.seed === null;
      if (document.activeElement !== seedField) seedField.value = drawing.seed ?? "";
    },
    /** Something else than the drawing: a neighbour, or a file.
     * @param {any} head @param {import("./data.js").Message} message */
    take(head, message) {
      if (head.kind === "file") return handOver(head.name, message.arrays.content);
      if (!gallery.open) return;
      const caption = captionOf(head.values, head.seed === drawing?.seed ? null : head.seed);
      neighbours.add(drawingOf(message), caption, () => {
        gallery.close();
        takeAll(head.values, head.seed);
      });
    },
    /** The server is gone. */
    lose() {
      rest();
      part("live").hidden = true;
    },
    /** @param {(wish: object) => void} wanted */
    useLink(wanted) {
      send = wanted;
    },
  };
}
