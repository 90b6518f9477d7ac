// @ts-check
// The picture on its canvas: which drawing it is, what is seen of it, what lies over it, and what the mouse does.
//
//   const stage = createStage(picture, canvas, words, { drawn, changed, chosen, moved });
//   stage.take(drawing);
//   stage.zoom(1.25);

import { createView } from "./view.js";
import { contextOf, createPainter, frameOf, newCanvas, pictureOfSheet, shrunk } from "./paint.js";
import { createReplay } from "./replay.js";
import { createWords } from "./words.js";
import { drawOverlays, poseAt, stepNear } from "./overlays.js";

/** Milliseconds a picture stands still before its edges are painted finer; the most pixels and steps for that. */
const STILL = 200;
/** Milliseconds of a frame that are painted in, while it plays, and when somebody waits. */
const FRAME_BUDGET = 12;
const MOVE_BUDGET = 60;
const MOST_PIXELS = 16e6;
const MOST_STEPS = 20_000;
/** Pixels from a line within which a click means it. */
const REACH = 8;
/** Steps of a drawing in which it is looked up at each move of the mouse what it points at. */
const MOST_POINTED = 100_000;

/** Whether a mark is painted as it is, others being pale; null for all.
 * @typedef {((mark: import("./data.js").Mark) => boolean) | null} Choice */
/** What the stage tells: that it has drawn, that playing began or ended, which step was clicked, where the mouse is,
 * which step it points at.
 * @typedef {{drawn: (isWhole: boolean) => void, changed: () => void, chosen: (step: number) => void,
 *   moved: (x: number, y: number) => void, pointed: (step: number) => void}} Told */

/** @param {HTMLElement} picture @param {HTMLCanvasElement} canvas @param {HTMLElement} wordsLayer
 * @param {Told} told */
export function createStage(picture, canvas, wordsLayer, told) {
  const context = contextOf(canvas);
  const view = createView();
  const words = createWords(wordsLayer);
  const replay = createReplay(draw, told.changed);
  /** @type {any} */
  let drawing = null;
  /** @type {ReturnType<typeof createPainter>[]} */
  let pointers = [];
  let painter = createPainter(null);
  /** The same, painted finer when it stands still. @type {HTMLCanvasElement | null} */
  let fine = null;
  let stillness = 0;
  /** @type {Set<string>} */
  const overlays = new Set();
  /** @type {Choice} */
  let isChosen = null;
  let isWaiting = false;
  let isFollowing = false;

  /** Show another drawing; the view stays where the sheet is as large as the last one. @param {any} wanted */
  function take(wanted) {
    const isOther = drawing?.width !== wanted.width || drawing.height !== wanted.height;
    drawing = wanted;
    painter = createPainter(drawing.marks);
    isChosen = null;
    pointers = drawing.pointers.map((/** @type {any} */ one) => one && createPainter(one.marks));
    words.take(drawing.marks.texts);
    replay.take(drawing.pauses, drawing.marks.steps);
    if (isOther) view.take(drawing);
    renew();
  }

  /** The view or what is painted has changed. */
  function renew() {
    fine = null;
    if (drawing) painter.setView(view);
    words.place(view);
  }

  // ── drawing ──────────────────────────────────────────────────────────────────────────────────────────────

  function draw() {
    clearTimeout(stillness);
    if (!drawing) return;
    const isFine = fine && replay.steps >= drawing.marks.steps;
    const isWhole = isFine || painter.show(replay.steps, replay.isPlaying ? FRAME_BUDGET : MOVE_BUDGET);
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, canvas.width, canvas.height);
    layPaper();
    if (isFine && fine) context.drawImage(fine, 0, 0, canvas.width, canvas.height);
    else painter.layOn(context);
    drawOverlays(context, view, drawing, replay.steps, overlays);
    drawPointers();
    told.drawn(isWhole);
    if (!isWhole) drawSoon();
    else if (!isFine && !replay.isPlaying) stillness = window.setTimeout(paintFine, STILL);
  }

  /** Paint what stands still with more pixels, so that thin lines have smooth edges. */
  function paintFine() {
    if (!drawing || replay.isPlaying || replay.steps < drawing.marks.steps || fine) return;
    const factor = [4, 2].find((one) => one * one * canvas.width * canvas.height <= MOST_PIXELS);
    if (!factor || drawing.marks.steps > MOST_STEPS) return;
    const finer = createPainter(drawing.marks);
    finer.setView({ ...view, ratio: factor * view.ratio });
    if (isChosen) finer.choose(isChosen);
    finer.show(drawing.marks.steps);
    fine = shrunk(finer.canvas, factor);
    draw();
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

  /** The nib that moves; at the end each where it is, if that is asked for. */
  function drawPointers() {
    if (replay.steps < drawing.marks.steps) {
      const pose = poseAt(drawing.steps, replay.steps, replay.share);
      if (pose) drawPointer(pose.nib, pose.x, pose.y, pose.heading);
    } else if (overlays.has("pointer") || isFollowing) {
      drawing.poses.forEach((/** @type {[number, number, number]} */ pose, /** @type {number} */ nib) =>
        drawPointer(nib, ...pose),
      );
    }
  }

  /** @param {number} nib @param {number} x @param {number} y @param {number} heading */
  function drawPointer(nib, x, y, heading) {
    const pointer = pointers[nib];
    if (!pointer) return;
    const scale = drawing.pointers[nib].isDefault ? 1 : view.scale;
    const [left, top] = view.toCanvas(x, y);
    const side = 2 * Math.ceil(40 * Math.max(scale, 1) * view.ratio);
    const size = side / view.ratio;
    pointer.setView({ x: 0, y: 0, scale, width: size, height: size, ratio: view.ratio });
    pointer.show(drawing.pointers[nib].marks.steps);
    context.setTransform(1, 0, 0, 1, left * view.ratio, top * view.ratio);
    context.rotate((-heading * Math.PI) / 180);
    context.drawImage(pointer.canvas, -side / 2, -side / 2);
    context.setTransform(1, 0, 0, 1, 0, 0);
  }

  /** Draw soon, once, however often it is asked for; `isNew` when the view has changed. */
  function drawSoon(isNew = false) {
    if (isNew) renew();
    if (isWaiting) return;
    isWaiting = true;
    requestAnimationFrame(() => {
      isWaiting = false;
      draw();
    });
  }

  // ── what is seen ─────────────────────────────────────────────────────────────────────────────────────────

  function fitCanvas() {
    const ratio = window.devicePixelRatio || 1;
    const [width, height] = [picture.clientWidth, picture.clientHeight];
    if (!width || !height) return;
    view.resize(width, height, ratio);
    [canvas.width, canvas.height] = [Math.round(width * ratio), Math.round(height * ratio)];
    renew();
    draw();
  }

  function zoomToAll() {
    const frame = frameOf(drawing);
    if (frame) showFrame(frame);
    else zoomToSheet();
  }

  function zoomToSheet() {
    view.showSheet();
    drawSoon(true);
  }

  /** @param {import("./view.js").Frame} frame */
  function showFrame(frame) {
    view.showFrame(frame);
    drawSoon(true);
  }

  /** @param {number} factor @param {number} [left] @param {number} [top] */
  function zoom(factor, left, top) {
    view.zoomAt(factor, left, top);
    drawSoon(true);
  }

  /** Leave all marks pale but some; null for none. @param {Choice} wanted */
  function choose(wanted) {
    isChosen = wanted;
    fine = null;
    painter.choose(wanted);
    replay.goTo(drawing.marks.steps);
  }

  /** @param {string} name @param {boolean} isOn */
  function setOverlay(name, isOn) {
    if (isOn) overlays.add(name);
    else overlays.delete(name);
    drawSoon();
  }

  // ── the mouse, and fingers ───────────────────────────────────────────────────────────────────────────────

  picture.addEventListener("wheel", (event) => {
    event.preventDefault();
    const box = picture.getBoundingClientRect();
    zoom(Math.exp(-event.deltaY / (event.ctrlKey ? 100 : 400)), event.clientX - box.left, event.clientY - box.top);
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
    told.moved(...view.toSheet(event.offsetX, event.offsetY));
    const before = fingers.get(event.pointerId);
    if (!before) return pointSoon(event.offsetX, event.offsetY);
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
  let isPointing = false;
  /** Tell which step the mouse points at, once a frame. @param {number} left @param {number} top */
  function pointSoon(left, top) {
    if (isPointing || !drawing || replay.isPlaying || drawing.marks.steps > MOST_POINTED) return;
    isPointing = true;
    requestAnimationFrame(() => {
      isPointing = false;
      const step = stepNear(drawing.steps, replay.steps, ...view.toSheet(left, top), REACH / view.scale);
      if (step >= 0) told.pointed(step);
    });
  }
  for (const end of /** @type {const} */ (["pointerup", "pointercancel"])) {
    canvas.addEventListener(end, (event) => {
      fingers.delete(event.pointerId);
      if (!drawing || end === "pointercancel" || moved > 4) return;
      const [x, y] = view.toSheet(event.offsetX, event.offsetY);
      const step = stepNear(drawing.steps, replay.steps, x, y, REACH / view.scale);
      if (step >= 0) told.chosen(step);
    });
  }
  new ResizeObserver(fitCanvas).observe(picture);
  fitCanvas();

  return {
    replay,
    overlays,
    take,
    draw,
    drawSoon,
    choose,
    setOverlay,
    zoom,
    zoomToAll,
    zoomToSheet,
    showFrame,
    isZoomed: () => !view.isWhole(),
    /** Move what is seen by so many pixels. @param {number} dx @param {number} dy */
    pan(dx, dy) {
      view.drag(dx, dy);
      drawSoon(true);
    },
    /** Whether a part of the sheet is seen whole. @param {number} left @param {number} bottom
     * @param {number} right @param {number} top */
    sees(left, bottom, right, top) {
      const [[x0, y0], [x1, y1]] = [view.toCanvas(left, top), view.toCanvas(right, bottom)];
      return x1 > 0 && y1 > 0 && x0 < view.width && y0 < view.height && (x0 >= 0 || x1 <= view.width);
    },
    /** Show all pointers at the end, since the drawing goes on. */
    follow() {
      isFollowing = true;
    },
    /** The sheet after a step, as a data URL of a PNG; a scale of 1 has one pixel per CSS pixel.
     * @param {number} step @param {number} scale */
    pictureOf(step = drawing.marks.steps - 1, scale = 1) {
      const sheet = newCanvas(1, 1);
      pictureOfSheet(sheet, drawing, drawing.pixelsPerUnit * scale, step + 1);
      return sheet.toDataURL("image/png");
    },
  };
}
