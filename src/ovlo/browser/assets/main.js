// @ts-check
// The page: its parts put together, and what keys, buttons and the mouse do.

import { readMessage, unpacked } from "./data.js";
import { createView } from "./view.js";
import { createPainter } from "./paint.js";
import { createReplay } from "./replay.js";
import { drawOverlays, poseAt } from "./overlays.js";
import { createFindings, createProgram, createTree, round } from "./panel.js";

/** @template {HTMLElement} T @param {string} id @returns {T} */
function part(id) {
  return /** @type {T} */ (document.getElementById(id));
}

/** @param {any} drawing */
function openPage(drawing) {
  const { steps, marks } = drawing;
  const count = marks.steps;
  const [picture, canvas] = [part("picture"), /** @type {HTMLCanvasElement} */ (part("canvas"))];
  const context = /** @type {CanvasRenderingContext2D} */ (canvas.getContext("2d"));
  const view = createView(drawing);
  const painter = createPainter(marks);
  const pointers = drawing.pointers.map((/** @type {any} */ one) => one && createPainter(one.marks));
  /** @type {Set<string>} */
  const overlays = new Set();
  let isWaiting = false;

  describe();

  // ── the picture ──────────────────────────────────────────────────────────────────────────────────────────

  const replay = createReplay(drawing.pauses, count, draw, () => {
    part("play").textContent = replay.isPlaying ? "Pause" : "Play";
    part("play").setAttribute("aria-pressed", String(replay.isPlaying));
    tell();
  });
  const scrub = /** @type {HTMLInputElement} */ (part("scrub"));
  scrub.max = String(count);

  const program = createProgram(part("program"), drawing.source, new Set(steps.lines ?? []), showLine);
  const tree = createTree(part("tree"), drawing.calls, drawing.unit, showCalls);
  createFindings(part("findings"), drawing.findings, showFinding);
  part("program-part").hidden = !drawing.source;
  part("tree-part").hidden = drawing.calls.length < 2;

  function draw() {
    painter.show(replay.steps);
    const { width, height } = canvas;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, width, height);
    layPaper();
    painter.layOn(context);
    drawOverlays(context, view, drawing, replay.steps, overlays);
    drawPointer();
    scrub.value = String(replay.steps);
    tell();
  }

  function layPaper() {
    const [left, top] = view.toCanvas(-drawing.width / 2, drawing.height / 2);
    const ratio = view.ratio;
    const box = [left, top, drawing.width * view.scale, drawing.height * view.scale].map((n) => n * ratio);
    const [x, y, wide, high] = box;
    if (drawing.paper !== "#00000000") {
      context.fillStyle = drawing.paper;
      context.fillRect(x, y, wide, high);
    }
    context.strokeStyle = "#8896a5";
    context.lineWidth = 1;
    context.strokeRect(Math.round(x) - 0.5, Math.round(y) - 0.5, Math.round(wide) + 1, Math.round(high) + 1);
  }

  function drawPointer() {
    const isAtEnd = replay.steps >= count;
    if ((isAtEnd && !overlays.has("pointer")) || !count) return;
    const pose = poseAt(steps, replay.steps, replay.share);
    if (!pose || !drawing.pointers[pose.nib]) return;
    const scale = drawing.pointers[pose.nib].isDefault ? 1 : view.scale;
    const [x, y] = view.toCanvas(pose.x, pose.y);
    const side = 2 * Math.ceil(40 * Math.max(scale, 1) * view.ratio);
    const pointer = pointers[pose.nib];
    const size = side / view.ratio;
    pointer.setView({ x: 0, y: 0, scale, width: size, height: size, ratio: view.ratio });
    pointer.show(drawing.pointers[pose.nib].marks.steps);
    context.setTransform(1, 0, 0, 1, x * view.ratio, y * view.ratio);
    context.rotate((-pose.heading * Math.PI) / 180);
    context.drawImage(pointer.canvas, -side / 2, -side / 2);
    context.setTransform(1, 0, 0, 1, 0, 0);
  }

  /** Draw soon, once, however often it is asked for; `isNew` when the view has changed. */
  function drawSoon(isNew = false) {
    if (isNew) painter.setView(view);
    if (isWaiting) return;
    isWaiting = true;
    requestAnimationFrame(() => {
      isWaiting = false;
      draw();
    });
  }

  function fitCanvas() {
    const ratio = window.devicePixelRatio || 1;
    const [width, height] = [picture.clientWidth, picture.clientHeight];
    if (!width || !height) return;
    [view.width, view.height, view.ratio] = [width, height, ratio];
    [canvas.width, canvas.height] = [Math.round(width * ratio), Math.round(height * ratio)];
    view.showSheet();
    painter.setView(view);
    draw();
  }

  // ── what is told ─────────────────────────────────────────────────────────────────────────────────────────

  function describe() {
    const title = drawing.title || "A drawing";
    document.title = title;
    part("title").textContent = title;
    part("description").textContent = drawing.description;
    const values = Object.entries(drawing.parameters).map(([name, value]) => `${name}=${value}`);
    if (drawing.seed !== null) values.push(`seed=${drawing.seed}`);
    part("values").textContent = values.join(", ");
    const words = marks.texts.map((/** @type {any} */ text) => text.words).join(". ");
    canvas.setAttribute("aria-label", [title, drawing.description, words].filter(Boolean).join(". "));
    part("words").textContent = words;
  }

  function tell() {
    const step = replay.steps - 1;
    const line = step >= 0 && steps.lines ? steps.lines[step] : 0;
    part("status").textContent = step < 0 ? `Nothing drawn yet, of ${count} steps.` : sentence(step, line);
    if (line) program.light(line);
  }

  /** @param {number} i @param {number} line */
  function sentence(i, line) {
    const [from, to] = [steps.starts, steps.points].map((p) => `(${round(p[2 * i])}, ${round(p[2 * i + 1])})`);
    const turn = Math.abs(steps.turns[i]) >= 0.005 ? `, turn ${round(steps.turns[i])}°` : "";
    const length = steps.pens[i] ? `, length ${round(steps.lengths[i])} ${drawing.unit}` : ", a jump";
    const where = line ? `, line ${line}` : "";
    return `Step ${i} of ${count - 1}${where}: ${from} to ${to}, heading ${round(steps.headings[i])}°${turn}${length}`;
  }

  // ── parts shown alone ────────────────────────────────────────────────────────────────────────────────────

  /** @param {((step: number) => boolean) | null} holds */
  function showAlone(holds) {
    painter.choose(holds && ((mark) => holds(mark.kind === "line" ? mark.begin : Math.min(mark.begin, count - 1))));
    part("all").hidden = !holds;
    replay.goTo(count);
  }

  /** @param {number} line */
  function showLine(line) {
    tree.clear();
    program.choose(line);
    showAlone((step) => steps.lines[step] === line);
  }

  /** @param {Set<number> | null} numbers */
  function showCalls(numbers) {
    program.choose(0);
    showAlone(numbers && ((step) => numbers.has(steps.calls[step])));
  }

  function showAll() {
    tree.clear();
    program.choose(0);
    showAlone(null);
  }

  /** @param {any} finding */
  function showFinding(finding) {
    setOverlay("findings", true);
    const side = Math.max(drawing.width, drawing.height) / 4;
    view.showFrame({ left: finding.x - side / 2, bottom: finding.y - side / 2, width: side, height: side });
    if (finding.lines.length) program.light(finding.lines[0]);
    drawSoon(true);
  }

  /** The last step drawn near a place of the canvas. @param {number} left @param {number} top */
  function stepNear(left, top) {
    const [x, y] = view.toSheet(left, top);
    const reach = 8 / view.scale;
    for (let i = replay.steps - 1; i >= 0; i--) {
      if (!steps.pens[i]) continue;
      if (distance(x, y, i) <= reach) return i;
    }
    return -1;
  }

  /** @param {number} x @param {number} y @param {number} i */
  function distance(x, y, i) {
    let nearest = Infinity;
    const pieces = steps.arcOf.has(i) ? 24 : 1;
    let before = poseAt(steps, i, 1e-12);
    for (let n = 1; n <= pieces && before; n++) {
      const after = n === pieces ? { x: steps.points[2 * i], y: steps.points[2 * i + 1] } : poseAt(steps, i, n / pieces);
      if (!after) break;
      const [dx, dy] = [after.x - before.x, after.y - before.y];
      const along = dx || dy ? ((x - before.x) * dx + (y - before.y) * dy) / (dx * dx + dy * dy) : 0;
      const share = Math.min(Math.max(along, 0), 1);
      nearest = Math.min(nearest, Math.hypot(before.x + share * dx - x, before.y + share * dy - y));
      before = { ...before, ...after };
    }
    return nearest;
  }

  // ── controls ─────────────────────────────────────────────────────────────────────────────────────────────

  /** @param {number} position */
  function goTo(position) {
    replay.pause();
    replay.goTo(position);
  }

  function togglePlay() {
    if (replay.isPlaying) replay.pause();
    else replay.play();
  }

  /** @param {string} name @param {boolean} isOn */
  function setOverlay(name, isOn) {
    const box = /** @type {HTMLInputElement} */ (part(`overlay-${name}`));
    box.checked = isOn;
    if (isOn) overlays.add(name);
    else overlays.delete(name);
    drawSoon();
  }

  function usePace() {
    const pace = Number(/** @type {HTMLInputElement} */ (part("pace")).value);
    const unit = /** @type {HTMLSelectElement} */ (part("pace-unit")).value;
    if (!(pace > 0)) return;
    replay.pace = Math.max(unit === "seconds" ? count / pace : pace, 1e-3);
  }

  function zoomToAll() {
    const { vertices } = marks.lines;
    const all = [vertices, marks.areas.vertices];
    let [left, bottom, right, top] = [Infinity, Infinity, -Infinity, -Infinity];
    for (const list of all) {
      for (let i = 0; i < list.length; i += 2) {
        left = Math.min(left, list[i]);
        right = Math.max(right, list[i]);
        bottom = Math.min(bottom, list[i + 1]);
        top = Math.max(top, list[i + 1]);
      }
    }
    if (left > right) return zoomToSheet();
    view.showFrame({ left, bottom, width: right - left, height: top - bottom });
    drawSoon(true);
  }

  function zoomToSheet() {
    view.showSheet();
    drawSoon(true);
  }

  /** @param {number} factor */
  function zoom(factor) {
    view.zoomAt(factor);
    drawSoon(true);
  }

  const dialog = /** @type {HTMLDialogElement} */ (part("keys"));
  /** @type {Record<string, () => void>} */
  const actions = {
    " ": togglePlay,
    ArrowRight: () => goTo(replay.steps + 1),
    ArrowLeft: () => goTo(replay.steps - 1),
    Home: () => goTo(0),
    End: () => goTo(count),
    "+": () => zoom(1.25),
    "-": () => zoom(0.8),
    0: zoomToSheet,
    9: zoomToAll,
    "?": () => dialog.showModal(),
  };
  const buttons = {
    play: togglePlay,
    start: actions.Home,
    back: actions.ArrowLeft,
    on: actions.ArrowRight,
    end: actions.End,
    closer: actions["+"],
    farther: actions["-"],
    sheet: zoomToSheet,
    drawn: zoomToAll,
    all: showAll,
    help: actions["?"],
  };
  for (const [id, act] of Object.entries(buttons)) part(id).addEventListener("click", act);
  for (const name of ["grid", "axes", "angles", "steps", "pointer", "findings"]) {
    part(`overlay-${name}`).addEventListener("change", (event) =>
      setOverlay(name, /** @type {HTMLInputElement} */ (event.target).checked),
    );
  }
  scrub.addEventListener("input", () => goTo(Number(scrub.value)));
  part("pace").addEventListener("input", usePace);
  part("pace-unit").addEventListener("change", usePace);
  part("loop").addEventListener("change", (event) => {
    replay.isLooping = /** @type {HTMLInputElement} */ (event.target).checked;
  });

  document.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || dialog.open) return;
    const target = /** @type {HTMLElement} */ (event.target);
    const own = target.closest("input, select, textarea");
    // A control keeps the keys it knows itself; a button keeps the space bar.
    if (own || (target.closest("button, summary") && (event.key === " " || event.key === "Enter"))) return;
    const act = actions[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  });

  canvas.addEventListener("wheel", (event) => {
    event.preventDefault();
    view.zoomAt(Math.exp(-event.deltaY / (event.ctrlKey ? 100 : 400)), event.offsetX, event.offsetY);
    drawSoon(true);
  }, { passive: false });

  /** @type {Map<number, PointerEvent>} */
  const fingers = new Map();
  let moved = 0;
  canvas.addEventListener("pointerdown", (event) => {
    canvas.setPointerCapture(event.pointerId);
    fingers.set(event.pointerId, event);
    moved = 0;
  });
  canvas.addEventListener("pointermove", (event) => {
    const [x, y] = view.toSheet(event.offsetX, event.offsetY);
    part("place").textContent = `x ${round(x)}, y ${round(y)}`;
    const before = fingers.get(event.pointerId);
    if (!before) return;
    const [dx, dy] = [event.offsetX - before.offsetX, event.offsetY - before.offsetY];
    const other = [...fingers.values()].find((one) => one.pointerId !== event.pointerId);
    if (other) {
      const apart = (/** @type {PointerEvent} */ one) =>
        Math.hypot(one.offsetX - other.offsetX, one.offsetY - other.offsetY);
      view.zoomAt(apart(event) / Math.max(apart(before), 1), other.offsetX, other.offsetY);
    } else {
      view.drag(dx, dy);
    }
    moved += Math.abs(dx) + Math.abs(dy);
    fingers.set(event.pointerId, event);
    drawSoon(true);
  });
  for (const end of /** @type {const} */ (["pointerup", "pointercancel"])) {
    canvas.addEventListener(end, (event) => {
      fingers.delete(event.pointerId);
      if (end === "pointercancel" || moved > 4) return;
      const step = stepNear(event.offsetX, event.offsetY);
      if (step >= 0) goTo(step + 1);
    });
  }

  window.addEventListener("hashchange", followLink);
  function followLink() {
    const step = /^#step=(-?\d+)$/.exec(location.hash);
    if (step) goTo(Number(step[1]) + 1);
    return Boolean(step);
  }

  new ResizeObserver(fitCanvas).observe(picture);
  fitCanvas();
  usePace();
  const isStill = matchMedia("(prefers-reduced-motion: reduce)").matches;
  begin();

  /** What the page's file asks for at first; a link to a step comes before that. */
  function begin() {
    const { fit, overlays: names = [], only, play } = drawing.start;
    if (fit) zoomToAll();
    for (const name of names) setOverlay(name, true);
    if (only) tree.choose(only);
    if (play) {
      /** @type {HTMLInputElement} */ (part("pace")).value = String(play.seconds);
      /** @type {HTMLInputElement} */ (part("loop")).checked = replay.isLooping = !play.loops;
      usePace();
    }
    if (followLink() || !play || isStill) return;
    replay.goTo(0);
    replay.play();
  }

  return {
    get stepCount() {
      return count;
    },
    get currentStep() {
      return replay.steps - 1;
    },
    get isPlaying() {
      return replay.isPlaying;
    },
    get sourceLine() {
      return replay.steps && steps.lines ? steps.lines[replay.steps - 1] : 0;
    },
    /** The sheet after a step, as a data URL of a PNG; a scale of 1 has one pixel per CSS pixel.
     * @param {number} step @param {number} scale */
    pictureOf(step = count - 1, scale = 1) {
      const whole = createPainter(marks);
      const [width, height] = [drawing.width * drawing.pixelsPerUnit, drawing.height * drawing.pixelsPerUnit];
      whole.setView({ x: 0, y: 0, scale: drawing.pixelsPerUnit, width, height, ratio: scale });
      whole.show(step + 1);
      const sheet = document.createElement("canvas");
      [sheet.width, sheet.height] = [whole.canvas.width, whole.canvas.height];
      const target = /** @type {CanvasRenderingContext2D} */ (sheet.getContext("2d"));
      target.fillStyle = drawing.paper;
      target.fillRect(0, 0, sheet.width, sheet.height);
      whole.layOn(target);
      return sheet.toDataURL("image/png");
    },
    /** @param {number} step */
    showStep: (step) => goTo(step + 1),
    play: () => replay.play(),
    pause: () => replay.pause(),
  };
}

/** What scripts may use: `ovlo.ready` is fulfilled when the picture is there. */
const ovlo = {
  ready: unpacked(part("message").textContent ?? "").then((buffer) => {
    Object.defineProperties(ovlo, Object.getOwnPropertyDescriptors(openPage(readMessage(buffer))));
  }),
};
/** @type {any} */ (window).ovlo = ovlo;
