// @ts-check
// A drawing with all that plays and explains it: the picture, the controls beneath, what is known of it beside.
//
//   const player = createPlayer();
//   player.take(drawing);

import { createStage } from "./stage.js";
import { createFindings, createProgram, createTree, inWords, part, round } from "./panel.js";

const OVERLAYS = ["grid", "axes", "angles", "steps", "pointer", "findings"];

export function createPlayer() {
  /** @type {any} */
  let drawing = null;
  /** Keys of drawings, beside those of the page. @type {Record<string, () => void>} */
  let shortcuts = {};
  const program = createProgram(part("program"), showLine);
  const tree = createTree(part("tree"), showCalls);
  const stage = createStage(part("picture"), part("canvas"), part("words"), {
    drawn() {
      scrub.value = String(replay.steps);
      tell();
    },
    changed() {
      part("play").textContent = replay.isPlaying ? "Pause" : "Play";
      tell();
    },
    chosen: (step) => goTo(step + 1),
    moved: (x, y) => (part("place").textContent = `x ${round(x)}, y ${round(y)}`),
  });
  const { replay } = stage;
  const scrub = /** @type {HTMLInputElement} */ (part("scrub"));

  /** Show a drawing; what is as before is left as it stands. @param {any} wanted */
  function take(wanted) {
    const before = drawing;
    drawing = wanted;
    stage.take(drawing);
    scrub.max = String(count());
    describe();
    program.take(drawing.source, drawing.steps.lines);
    if (drawing.calls !== before?.calls) tree.take(drawing.calls, drawing.unit);
    if (drawing.findings !== before?.findings) {
      createFindings(part("findings"), drawing.findings, showFinding);
    }
    part("program-part").hidden = !drawing.source;
    part("tree-part").hidden = drawing.calls.length < 2;
    part("all").hidden = true;
    useSpeed();
    document.getElementById("still")?.remove();
    stage.draw();
  }

  function count() {
    return drawing ? drawing.marks.steps : 0;
  }

  // ── what is told ─────────────────────────────────────────────────────────────────────────────────────────

  function describe() {
    const title = drawing.title || "A drawing";
    document.title = title;
    part("title").textContent = title;
    part("description").textContent = drawing.description;
    const values = inWords(drawing.parameters);
    if (drawing.seed !== null) values.push(`seed=${drawing.seed}`);
    part("values").textContent = values.join(", ");
    part("canvas").setAttribute("aria-label", [title, drawing.description].filter(Boolean).join(". "));
  }

  function tell() {
    if (!drawing) return;
    const step = replay.steps - 1;
    const line = step >= 0 && drawing.steps.lines ? drawing.steps.lines[step] : 0;
    part("status").textContent = step < 0 ? `Nothing drawn yet; ${count()} steps to draw.` : sentence(step, line);
    scrub.setAttribute("aria-valuetext", step < 0 ? "nothing drawn yet" : `step ${step + first()} of ${count() - 1 + first()}`);
    if (line) program.light(line);
  }

  /** The number of the first step: 0 where a nib is put to its start, and 1 where it draws, as after a clearing. */
  function first() {
    const { lengths, pens } = drawing.steps;
    return count() && (pens[0] || lengths[0]) ? 1 : 0;
  }

  /** @param {number} i @param {number} line */
  function sentence(i, line) {
    const { starts, points, headings, turns, lengths, pens } = drawing.steps;
    const [from, to] = [starts, points].map((p) => `(${round(p[2 * i])}, ${round(p[2 * i + 1])})`);
    const turn = Math.abs(turns[i]) >= 0.005 ? `, turn ${round(turns[i])}°` : "";
    const length = pens[i] ? `, length ${round(lengths[i])} ${drawing.unit}` : ", a jump";
    const where = line ? `, line ${line}` : "";
    return `Step ${i + first()} of ${count() - 1 + first()}${where}: ${from} to ${to}, heading ${round(headings[i])}°${turn}${length}`;
  }

  // ── parts shown alone ────────────────────────────────────────────────────────────────────────────────────

  /** The steps that are not left pale; null for all. @param {((step: number) => boolean) | null} holds */
  function showAlone(holds) {
    part("all").hidden = !holds;
    const last = count() - 1;
    stage.choose(holds && ((mark) => holds(mark.kind === "line" ? mark.begin : Math.min(mark.begin, last))));
  }

  /** @param {number} line */
  function showLine(line) {
    tree.clear();
    program.choose(line);
    showAlone((step) => drawing.steps.lines[step] === line);
  }

  /** @param {Set<number> | null} numbers */
  function showCalls(numbers) {
    program.choose(0);
    showAlone(numbers && ((step) => numbers.has(drawing.steps.calls[step])));
  }

  function showAll() {
    tree.clear();
    program.choose(0);
    showAlone(null);
  }

  /** @param {any} finding */
  function showFinding(finding) {
    if (finding.place) {
      setOverlay("findings", true);
      const side = Math.max(drawing.width, drawing.height) / 4;
      const [x, y] = finding.place;
      stage.showFrame({ left: x - side / 2, bottom: y - side / 2, width: side, height: side });
    }
    if (finding.lines.length) program.light(finding.lines[0]);
  }

  // ── controls ─────────────────────────────────────────────────────────────────────────────────────────────

  /** @param {number} position */
  function goTo(position) {
    if (!drawing) return;
    replay.pause();
    replay.goTo(position);
  }

  function togglePlay() {
    if (replay.isPlaying) replay.pause();
    else replay.play();
  }

  /** @param {string} name @param {boolean} isOn */
  function setOverlay(name, isOn) {
    /** @type {HTMLInputElement} */ (part(`overlay-${name}`)).checked = isOn;
    stage.setOverlay(name, isOn);
  }

  function useSpeed() {
    const speed = Number(/** @type {HTMLInputElement} */ (part("speed")).value);
    const unit = /** @type {HTMLSelectElement} */ (part("speed-unit")).value;
    if (!(speed > 0) || !drawing) return;
    replay.stepsPerSecond = Math.max(unit === "seconds" ? count() / speed : speed, 1e-3);
  }

  const dialog = /** @type {HTMLDialogElement} */ (part("shortcuts"));
  /** @type {Record<string, () => void>} */
  const actions = {
    " ": togglePlay,
    ArrowRight: () => goTo(replay.steps + 1),
    ArrowLeft: () => goTo(replay.steps - 1),
    Home: () => goTo(0),
    End: () => goTo(count()),
    "+": () => stage.zoom(1.25),
    "-": () => stage.zoom(0.8),
    0: stage.zoomToSheet,
    9: stage.zoomToAll,
    "?": () => dialog.showModal(),
  };
  const buttons = {
    play: togglePlay,
    "first-step": actions.Home,
    "step-back": actions.ArrowLeft,
    "step-forward": actions.ArrowRight,
    "last-step": actions.End,
    "zoom-in": actions["+"],
    "zoom-out": actions["-"],
    "fit-sheet": stage.zoomToSheet,
    "fit-drawing": stage.zoomToAll,
    all: showAll,
    "open-shortcuts": actions["?"],
  };
  for (const [id, act] of Object.entries(buttons)) part(id).addEventListener("click", () => drawing && act());
  for (const name of OVERLAYS) {
    part(`overlay-${name}`).addEventListener("change", (event) =>
      setOverlay(name, /** @type {HTMLInputElement} */ (event.target).checked),
    );
  }
  scrub.addEventListener("input", () => goTo(Number(scrub.value)));
  part("speed").addEventListener("input", useSpeed);
  part("speed-unit").addEventListener("change", useSpeed);
  part("loop").addEventListener("change", (event) => {
    replay.isLooping = /** @type {HTMLInputElement} */ (event.target).checked;
  });

  document.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector("dialog[open]")) return;
    const target = /** @type {HTMLElement} */ (event.target);
    const own = target.closest("input:not([type=checkbox]), select, textarea");
    // A control keeps the keys it knows itself; a button and a switch keep the space bar.
    if (own || (target.closest("button, summary, input") && (event.key === " " || event.key === "Enter"))) return;
    const act = actions[event.key] ?? shortcuts[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  });

  // What is printed is the finished picture.
  window.addEventListener("beforeprint", () => goTo(count()));

  window.addEventListener("hashchange", followLink);
  /** @returns {boolean} whether there is a link to a step */
  function followLink() {
    const step = /^#step=(-?\d+)$/.exec(location.hash);
    if (step) goTo(Number(step[1]) + 1);
    return Boolean(step);
  }

  /** Begin as the drawing asks for; a link to a step comes before that. */
  function begin() {
    const { fit, overlays = [], only, play } = drawing.start;
    if (fit) stage.zoomToAll();
    for (const name of overlays) setOverlay(name, true);
    if (only) tree.choose(only);
    if (play) {
      /** @type {HTMLInputElement} */ (part("speed")).value = String(play.seconds);
      /** @type {HTMLInputElement} */ (part("loop")).checked = replay.isLooping = !play.loops;
      useSpeed();
    }
    const isStill = matchMedia("(prefers-reduced-motion: reduce)").matches;
    if (followLink() || !play || isStill) return;
    replay.goTo(0);
    replay.play();
  }

  /** What a check came upon, which is told after the picture. @param {any[]} findings */
  function takeFindings(findings) {
    drawing.findings = findings;
    createFindings(part("findings"), findings, showFinding);
    stage.drawSoon();
  }

  return {
    take,
    takeFindings,
    begin,
    stage,
    /** Which function is shown alone, and what is laid over: what a saved picture is to show as well. */
    look: () => ({ overlays: [...stage.overlays], only: tree.chosen() }),
    /** @param {Record<string, () => void>} wanted */
    useShortcuts(wanted) {
      shortcuts = wanted;
    },
    /** What scripts may use. */
    script: {
      get stepCount() {
        return count();
      },
      get currentStep() {
        return replay.steps - 1;
      },
      get isPlaying() {
        return replay.isPlaying;
      },
      get sourceLine() {
        return drawing && replay.steps && drawing.steps.lines ? drawing.steps.lines[replay.steps - 1] : 0;
      },
      pictureOf: stage.pictureOf,
      /** @param {number} step */
      showStep: (step) => goTo(step + 1),
      play: () => replay.play(),
      pause: () => replay.pause(),
    },
  };
}
