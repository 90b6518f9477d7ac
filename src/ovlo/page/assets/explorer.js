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
  let isAsked = false;
  let isEnded = false;
  /** The drawings whose values are kept, by their captions. @type {Record<string, any>} */
  const pictures = {};
  /** What else listens. @type {Record<string, (told: any) => void>} */
  const others = {};
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
      player.layout.offer("explore", true);
      if (part("live").hidden) player.layout.prefer("explore");
      part("live").hidden = false;
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
    trouble({ words, brief, notices }) {
      // Where the program was in one line of its own, a sentence says it all.
      const isShort = brief && words.split('File "').length <= 2;
      part("trouble").textContent = (isShort ? brief.replace(/^l(?=ine \d)/, "L") : words) || notices;
      part("trouble").hidden = !words && !notices;
      part("trouble").classList.toggle("notice", !words);
      rest();
    },
    printed({ words }) {
      part("printed").textContent = words;
      player.layout.offer("printed", Boolean(words));
    },
    values: ({ values }) => form.receive(values),
    kept({ sets }) {
      kept.clear();
      for (const { values, seed: then, caption } of sets) {
        pictures[caption] ??= drawing;
        kept.add(pictures[caption], caption, () => takeAll(values, then));
      }
    },
    answered() {
      isAsked = false;
      question.close();
    },
    ended: () => {
      isEnded = true;
    },
    told: ({ words }) => tell(words),
    ask({ words }) {
      part("question-words").textContent = words || "The program asks for input.";
      const field = /** @type {HTMLInputElement} */ (part("answer"));
      field.value = "";
      isAsked = true;
      if (!question.open) question.showModal();
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
    pictures[caption] = drawing;
    send({ do: "keep", values, seed: then, caption });
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
    if (isAsked) send({ do: "answer", words: /** @type {HTMLInputElement} */ (part("answer")).value });
    isAsked = false;
  });

  return {
    /** @param {any} told */
    hear(told) {
      heard[told.kind]?.(told);
      others[told.kind]?.(told);
    },
    /** A drawing is shown. @param {any} wanted */
    show(wanted) {
      drawing = wanted;
      if (!drawing.live) return;
      rest();
      player.sharing.serve(send);
      others.shown?.(drawing);
      part("chance").hidden = drawing.seed === null;
      if (document.activeElement !== seedField) seedField.value = drawing.seed ?? "";
    },
    /** Something else than the drawing: a neighbour, or a file.
     * @param {any} head @param {import("./data.js").Message} message */
    take(head, message) {
      if (head.kind === "file") return player.sharing.handOver(head.name, new Blob([message.arrays.content]));
      if (head.turned) return others.small?.({ head, drawing: drawingOf(message) });
      if (!gallery.open) return;
      const caption = captionOf(head.values, head.seed === drawing?.seed ? null : head.seed);
      const choose = () => {
        gallery.close();
        takeAll(head.values, head.seed);
      };
      neighbours.add(drawingOf(message), caption, choose, drawing);
    },
    /** The server is gone, or cannot be reached for now. @param {boolean} forGood */
    lose(forGood) {
      rest();
      part("live").hidden = forGood;
      player.sharing.serve(null);
      others.lost?.({ forGood });
    },
    /** Whether a line that breaks is to be tried again: a program that is explored, and has not said that it ends. */
    goesOn: () => Boolean(drawing?.live || chosen) && !isEnded,
    /** Have something else hear what the server says, too. @param {Record<string, (told: any) => void>} wanted */
    listen(wanted) {
      Object.assign(others, wanted);
    },
    /** @param {object} wish */
    send: (wish) => send(wish),
    tell,
    /** @param {(wish: object) => void} wanted */
    useLink(wanted) {
      send = wanted;
    },
  };
}
