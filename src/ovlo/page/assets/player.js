// @ts-check
// A drawing with all that plays and explains it: the picture, its player beneath, what is known of it beside.
//
//   const player = createPlayer();
//   player.take(drawing);

import { decoded } from "./data.js";
import { createStage } from "./stage.js";
import { createLayout } from "./layout.js";
import { createStretches } from "./stretches.js";
import { createSharing } from "./sharing.js";
import { createFindings, createProgram, createTree, inWords, part, round } from "./panel.js";

/** The overlays and their keys. */
const OVERLAYS = { grid: "1", axes: "2", angles: "3", steps: "4", pointer: "5", findings: "6" };
/** Pixels a zoomed picture moves by an arrow key. */
const PAN = 60;

/** A program beside the picture: what the player tells it.
 * @typedef {{take: (source: any, lines: Int32Array | null) => void, light: (line: number) => void,
 *   choose: (lines: Set<number>) => void}} ProgramPanel */

export function createPlayer() {
  /** @type {any} */
  let drawing = null;
  /** Keys of drawings, beside those of the page. @type {Record<string, () => void>} */
  let shortcuts = {};
  const layout = createLayout();
  const stretches = createStretches(/** @type {HTMLCanvasElement} */ (part("stretches")));
  /** @type {ProgramPanel} */
  let program = createProgram(part("program"), (line) => showLines(new Set([line])));
  const tree = createTree(part("tree"), showCalls);
  const stage = createStage(part("picture"), part("canvas"), part("words"), {
    drawn(isWhole) {
      if (isWhole) document.getElementById("still")?.remove();
      scrub.value = String(replay.steps);
      tell();
    },
    changed() {
      part("play").classList.toggle("playing", replay.isPlaying);
      part("play").setAttribute("aria-label", replay.isPlaying ? "Pause" : "Play");
      tell();
    },
    chosen: (step) => goTo(step + 1),
    moved: (x, y) => (part("place").textContent = `x ${round(x)}, y ${round(y)}`),
    pointed: (step) => program.light(drawing.steps.lines?.[step] ?? 0),
  });
  const { replay } = stage;
  const scrub = /** @type {HTMLInputElement} */ (part("scrub"));
  const sharing = createSharing({ picture, drawing: () => drawing, step: () => replay.steps - 1, look });

  /** Show a drawing; what is as before is left as it stands. @param {any} wanted */
  function take(wanted) {
    const before = drawing;
    drawing = wanted;
    stage.take(drawing);
    stretches.take(drawing);
    scrub.max = String(count());
    describe();
    program.take(drawing.source, drawing.steps.lines);
    if (drawing.calls !== before?.calls) tree.take(drawing.calls, drawing.unit);
    if (!before || drawing.findings !== before.findings) showFindings();
    layout.offer("program", Boolean(drawing.source || drawing.live));
    layout.offer("tree", drawing.calls.length > 1);
    part("all").hidden = true;
    useSpeed();
    stage.draw();
  }

  function count() {
    return drawing ? drawing.marks.steps : 0;
  }

  /** The sheet as it is after the step that is seen, so many times as large. @param {number} scale */
  async function picture(scale) {
    return bytesOf(stage.pictureOf(replay.steps - 1, scale));
  }

  // ── what is said ─────────────────────────────────────────────────────────────────────────────────────────

  function describe() {
    const title = drawing.title || "A drawing";
    document.title = title;
    part("title").textContent = title;
    part("description").textContent = drawing.description;
    const values = inWords(drawing.parameters);
    if (drawing.seed !== null) values.push(`seed=${drawing.seed}`);
    part("values").textContent = values.join(", ");
    const steps = `${count().toLocaleString("en")} steps.`;
    part("canvas").setAttribute("aria-label", [title, drawing.description, steps].filter(Boolean).join(". "));
  }

  function tell() {
    if (!drawing) return;
    const step = replay.steps - 1;
    const line = step >= 0 && drawing.steps.lines ? drawing.steps.lines[step] : 0;
    // What plays is not read aloud step by step.
    part("status").setAttribute("aria-live", replay.isPlaying ? "off" : "polite");
    part("status").textContent = step < 0 ? `Nothing drawn yet; ${count()} steps to draw.` : sentence(step, line);
    const last = Math.max(count() - 1 + first(), 0);
    part("position").textContent = `${Math.max(step + first(), 0)} / ${last}`;
    scrub.setAttribute("aria-valuetext", step < 0 ? "nothing drawn yet" : `step ${step + first()} of ${last}`);
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

  function showFindings() {
    const { findings } = drawing;
    const unknown = drawing.live ? "Not checked yet." : "This drawing is too large to be checked here; run ovlo check.";
    createFindings(part("findings"), findings, showFinding, unknown);
    layout.label("findings", findings?.length ? `Findings (${findings.length})` : "Findings");
  }

  // ── parts shown alone ────────────────────────────────────────────────────────────────────────────────────

  /** The steps that are not left pale; null for all. @param {((step: number) => boolean) | null} holds */
  function showAlone(holds) {
    part("all").hidden = !holds;
    const last = count() - 1;
    stage.choose(holds && ((mark) => holds(mark.kind === "line" ? mark.begin : Math.min(mark.begin, last))));
  }

  /** Show what some lines drew; nothing is pale where that is nothing. @param {Set<number>} lines */
  function showLines(lines) {
    tree.clear();
    const drawn = drawing.steps.lines?.some((/** @type {number} */ line) => lines.has(line));
    program.choose(drawn ? lines : new Set());
    showAlone(drawn ? (step) => lines.has(drawing.steps.lines[step]) : null);
    if (drawn) bringIntoView((step) => lines.has(drawing.steps.lines[step]));
  }

  /** Move the view so that some steps are in sight, where they are not. @param {(step: number) => boolean} holds */
  function bringIntoView(holds) {
    const { points, starts } = drawing.steps;
    let [left, bottom, right, top] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = 0; i < count(); i++) {
      if (!holds(i)) continue;
      for (const place of [starts, points]) {
        [left, right] = [Math.min(left, place[2 * i]), Math.max(right, place[2 * i])];
        [bottom, top] = [Math.min(bottom, place[2 * i + 1]), Math.max(top, place[2 * i + 1])];
      }
    }
    if (left <= right && !stage.sees(left, bottom, right, top)) {
      stage.showFrame({ left, bottom, width: right - left || 1, height: top - bottom || 1 });
    }
  }

  /** @param {Set<number> | null} numbers */
  function showCalls(numbers) {
    program.choose(new Set());
    showAlone(numbers && ((step) => numbers.has(drawing.steps.calls[step])));
  }

  function showAll() {
    tree.clear();
    program.choose(new Set());
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
    part(`overlay-${name}`).setAttribute("aria-pressed", String(isOn));
    stage.setOverlay(name, isOn);
  }

  /** @param {string} name */
  function toggleOverlay(name) {
    setOverlay(name, !stage.overlays.has(name));
  }

  /** @param {boolean} isLooping */
  function setLoop(isLooping) {
    replay.isLooping = isLooping;
    part("loop").setAttribute("aria-pressed", String(isLooping));
  }

  function useSpeed() {
    const seconds = Number(/** @type {HTMLInputElement} */ (part("seconds")).value);
    const factor = Number(/** @type {HTMLSelectElement} */ (part("speed")).value);
    if (!(seconds > 0) || !drawing) return;
    replay.stepsPerSecond = Math.max((factor * count()) / seconds, 1e-3);
  }

  async function toggleFullScreen() {
    if (document.fullscreenElement) await document.exitFullscreen();
    else await part("picture").requestFullscreen();
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
    7: () => part("overlays").classList.toggle("kept"),
    8: () => setLoop(!replay.isLooping),
    "?": () => dialog.showModal(),
  };
  for (const [name, key] of Object.entries(OVERLAYS)) actions[key] = () => toggleOverlay(name);
  /** @type {Record<string, () => void>} */
  const buttons = {
    play: togglePlay,
    "step-back": actions.ArrowLeft,
    "step-forward": actions.ArrowRight,
    "zoom-in": actions["+"],
    "zoom-out": actions["-"],
    "fit-sheet": stage.zoomToSheet,
    "fit-drawing": stage.zoomToAll,
    "full-screen": toggleFullScreen,
    loop: actions[8],
    all: showAll,
    "open-shortcuts": actions["?"],
  };
  for (const name of Object.keys(OVERLAYS)) buttons[`overlay-${name}`] = () => toggleOverlay(name);
  for (const [id, act] of Object.entries(buttons)) part(id).addEventListener("click", () => drawing && act());
  part("full-screen").hidden = !document.fullscreenEnabled;
  scrub.addEventListener("input", () => goTo(Number(scrub.value)));
  scrub.parentElement?.addEventListener("pointermove", (event) => {
    const box = scrub.getBoundingClientRect();
    const share = Math.min(Math.max((event.clientX - box.left) / box.width, 0), 1);
    const step = Math.round(share * count()) - 1;
    const line = drawing?.steps.lines?.[step];
    const hint = part("scrub-hint");
    hint.textContent = step < 0 ? "start" : `step ${step + first()}${line ? `, line ${line}` : ""}`;
    hint.style.translate = `calc(${share * box.width}px - 50%) 0`;
  });
  part("seconds").addEventListener("input", useSpeed);
  part("speed").addEventListener("change", useSpeed);

  /** Where the picture is zoomed, arrow keys move it. @type {Record<string, [number, number]>} */
  const pans = { ArrowLeft: [PAN, 0], ArrowRight: [-PAN, 0], ArrowUp: [0, PAN], ArrowDown: [0, -PAN] };
  document.addEventListener("keydown", (event) => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || document.querySelector("dialog[open]")) return;
    const target = /** @type {HTMLElement} */ (event.target);
    const own = target.closest("input:not([type=checkbox]), select, textarea, [contenteditable], .editor");
    // A control keeps the keys it knows itself; a button and a switch keep the space bar.
    if (own || (target.closest("button, summary, input") && (event.key === " " || event.key === "Enter"))) return;
    const pan = target === part("canvas") && stage.isZoomed() && pans[event.key];
    const act = pan ? () => stage.pan(...pan) : (actions[event.key] ?? shortcuts[event.key]);
    if (!act || (!drawing && act !== actions["?"])) return;
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
      /** @type {HTMLInputElement} */ (part("seconds")).value = String(play.seconds);
      setLoop(!play.loops);
      useSpeed();
    }
    const isStill = matchMedia("(prefers-reduced-motion: reduce)").matches;
    if (followLink() || !play || isStill) return;
    replay.goTo(0);
    replay.play();
  }

  /** What a check found, which arrives after the picture. @param {any[]} findings */
  function takeFindings(findings) {
    drawing.findings = findings;
    showFindings();
    stage.drawSoon();
  }

  /** Which function is shown alone, and what is laid over: what a saved picture is to show as well. */
  function look() {
    return { overlays: [...stage.overlays], only: tree.chosen() };
  }

  return {
    take,
    takeFindings,
    begin,
    stage,
    layout,
    sharing,
    look,
    showLines,
    showAll,
    drawing: () => drawing,
    /** Bring what a line drew into view, where it is not. @param {number} line */
    showLine(line) {
      if (drawing.steps.lines) bringIntoView((step) => drawing.steps.lines[step] === line);
    },
    /** Have the program shown by something else. @param {ProgramPanel} wanted */
    useProgram(wanted) {
      program = wanted;
    },
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

/** The bytes of a data URL, which the page's policy does not let be fetched. @param {string} url */
function bytesOf(url) {
  const [head, data] = url.split(",");
  return new Blob([decoded(data)], { type: head.slice(5).split(";")[0] });
}

/** Offer to scripts what they may use: `ovlo.ready` is fulfilled when the picture is there.
 * @param {ReturnType<typeof createPlayer>} player @param {Promise<unknown>} ready @param {object} more */
export function offer(player, ready, more = {}) {
  const parts = { ...Object.getOwnPropertyDescriptors(player.script), ...Object.getOwnPropertyDescriptors(more) };
  /** @type {any} */ (window).ovlo = Object.defineProperties({ ready }, parts);
}
