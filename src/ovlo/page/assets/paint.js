// @ts-check
// The picture after so many steps, on a canvas: marks in their order, each as far as it is drawn by then.
//
//   const painter = createPainter(marks, paper);
//   painter.setView(view);
//   painter.show(40);
//   context.drawImage(painter.canvas, 0, 0);
//
// What is settled is painted once. Going on adds what is new; an area appears when its block ends, beneath the
// lines drawn inside it, so what was there before the block is kept until then. Going back begins at the nearest
// picture that was kept.

import { MOVE, dotEnd, tracePath, traceWords } from "./trace.js";

/** Vertices laid on the canvas at once: longer paths take more than their share of time. */
const CHUNK = 800;
/** Pictures kept on the way, to go back to. */
const KEPT = 20;
/** Steps painted between two looks at the clock. */
const SLICE = 2_000;
const MITRE = 10;
/** Steps of a block that is painted anew each time until it is closed. */
const SMALL = 200;
/** The length in pixels of a dash of no length. */
const DOT = 0.001;
/** How opaque marks are that are not chosen. */
const PALE = 0.12;

/** @typedef {import("./data.js").Marks} Marks */
/** @typedef {import("./data.js").Mark} Mark */
/** @typedef {import("./trace.js").Place} Place */
/** A line as far as it is painted: up to a vertex; `length` of its piece is measured up to the vertex `at`.
 * @typedef {{mark: Mark, vertex: number, at: number, length: number, isApart: boolean}} Part */

/** @param {number} width @param {number} height */
export function newCanvas(width, height) {
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [width, height];
  return canvas;
}

/** @param {HTMLCanvasElement} canvas @returns {CanvasRenderingContext2D} */
export function contextOf(canvas) {
  return /** @type {CanvasRenderingContext2D} */ (canvas.getContext("2d"));
}

/** The dashes of a style in pixels. A square dash of no length turns with its line, which a canvas forgets; one that
 * is next to nothing is turned. @param {import("./data.js").Style} style @param {number} scale */
function dashesOf(style, scale) {
  const dash = style.dash.map((length) => length * scale);
  if (style.cap !== "square") return dash;
  const all = dash.length % 2 ? [...dash, ...dash] : dash;
  return all.map((length, i) => {
    if (i % 2 === 0) return length || DOT;
    return all[i - 1] ? length : Math.max(length - DOT, 0);
  });
}

/** No marks, for a painter that has none yet. @type {any} */
const NOTHING = { steps: 0, order: [], lines: {}, areas: {}, styles: [] };

/** A painter of marks; null for none. @param {Marks | null} wanted */
export function createPainter(wanted) {
  /** @type {Marks} */
  const marks = wanted ?? NOTHING;
  const { lines, areas, styles, order } = marks;
  const canvas = newCanvas(1, 1);
  /** Where marks are painted: on the canvas, or at times where it is laid. */
  let context = contextOf(canvas);
  const ink = newCanvas(1, 1);
  /** @type {Place} */
  let view = { x: 0, y: 0, scale: 1, width: 1, height: 1, ratio: 1 };
  /** How many steps are painted, the first mark not begun, and the line that grows: how far it is painted. */
  let [painted, next] = [0, 0];
  /** @type {Part | null} */
  let growing = null;
  /** @type {{mark: Mark, before: HTMLCanvasElement | null}[]} */
  let open = [];
  /** @type {{steps: number, next: number, growing: Part | null, picture: HTMLCanvasElement}[]} */
  let kept = [];
  /** Canvases that were used to keep pictures for a while. @type {HTMLCanvasElement[]} */
  let spare = [];
  /** Whether a mark is painted as it is; others are left pale. @type {((mark: Mark) => boolean) | null} */
  let isChosen = null;

  /** Empty the canvas. */
  function restart() {
    context.clearRect(0, 0, canvas.width, canvas.height);
    [painted, next, growing, open] = [0, 0, null, []];
  }

  /** @param {Place} wanted */
  function setView(wanted) {
    view = { ...wanted };
    const [width, height] = [Math.round(view.width * view.ratio), Math.round(view.height * view.ratio)];
    for (const one of [canvas, ink]) [one.width, one.height] = [width, height];
    [kept, spare] = [[], []];
    restart();
  }

  /** Paint the picture after so many steps, or as much of it as can be done in some milliseconds.
   * @param {number} steps @param {number} budget @returns {boolean} whether it is painted whole */
  function show(steps, budget = Infinity) {
    if (steps < painted) goBack(steps);
    const end = performance.now() + budget;
    while (painted < steps) {
      if (performance.now() > end) return false;
      // Blocks that are open at the end are stops on the way; so are the ends of those that are open now.
      let stop = budget < Infinity ? Math.min(steps, painted + SLICE) : steps;
      for (const { mark } of open) stop = Math.min(stop, mark.end);
      paintTo(stop);
      const closing = open.filter(({ mark }) => mark.end <= painted).reverse();
      for (const block of closing) close(block);
      keep();
    }
    if (steps === marks.steps && next < order.length) paintTo(steps);
    return true;
  }

  /** @param {number} steps */
  function goBack(steps) {
    const from = kept.filter((one) => one.steps <= steps).at(-1);
    restart();
    kept = kept.filter((one) => one.steps <= steps);
    if (!from) return;
    context.drawImage(from.picture, 0, 0);
    [painted, next, growing] = [from.steps, from.next, from.growing && { ...from.growing }];
  }

  /** Keep the picture, if it is far from the last one kept, and no block is open. */
  function keep() {
    const gap = Math.max(marks.steps / KEPT, 200);
    if (growing?.isApart || open.length || painted - (kept.at(-1)?.steps ?? 0) < gap) return;
    const picture = newCanvas(canvas.width, canvas.height);
    contextOf(picture).drawImage(canvas, 0, 0);
    kept.push({ steps: painted, next, growing: growing && { ...growing }, picture });
  }

  /** Paint on to a step. @param {number} stop */
  function paintTo(stop) {
    if (growing) grow(stop);
    while (next < order.length && (order[next].begin < stop || (stop === marks.steps && !growing))) {
      const mark = order[next];
      // A small block that is not closed is left to `layOn`, which paints what there is of it each time.
      if (mark.kind === "area" && mark.end > stop && mark.end - mark.begin <= SMALL && !growing && !open.length) break;
      next += 1;
      if (mark.kind === "area" && mark.end > stop) {
        open.push({ mark, before: copied() });
      } else if (mark.kind === "line" && mark.end > stop) {
        growing = begun(mark);
        grow(stop);
      } else {
        paintMark(mark);
      }
    }
    painted = stop;
  }

  /** The picture so far, on a canvas that is put by for the next one after use. */
  function copied() {
    const copy = spare.pop() ?? newCanvas(canvas.width, canvas.height);
    const target = contextOf(copy);
    target.globalCompositeOperation = "copy";
    target.drawImage(canvas, 0, 0);
    return copy;
  }

  /** Let an area appear beneath what was drawn in its block. @param {typeof open[number]} block */
  function close(block) {
    open.splice(open.indexOf(block), 1);
    const [steps, wasNext] = [painted, next];
    const stillOpen = open;
    const before = block.before;
    growing = null;
    if (before) {
      context.globalCompositeOperation = "copy";
      context.drawImage(before, 0, 0);
      context.globalCompositeOperation = "source-over";
      spare.push(before);
    } else {
      context.clearRect(0, 0, canvas.width, canvas.height);
    }
    const first = before ? order.indexOf(block.mark) : 0;
    for (let i = first; i < wasNext; i++) {
      const mark = order[i];
      if (stillOpen.some((one) => one.mark === mark) || (mark.kind === "area" && mark.end > steps)) continue;
      if (mark.kind === "line" && mark.end > steps) {
        growing = begun(mark);
        grow(steps);
      } else {
        paintMark(mark);
      }
    }
    // What was kept for blocks that began later is without this area.
    open = stillOpen.map((one) => (one.mark.number > block.mark.number ? { ...one, before: null } : one));
  }

  /** A line of which nothing is painted yet; one that is not opaque is painted apart, and laid on at once.
   * @param {Mark} mark */
  function begun(mark) {
    return { mark, vertex: lines.firsts[mark.number], at: 0, length: dashOffset(mark), isApart: strengthOf(mark) < 1 };
  }

  /** How opaque a mark is painted, beside what its own fill says. @param {Mark} mark */
  function strengthOf(mark) {
    const opacity = mark.kind === "line" ? styles[lines.keys[mark.number]].opacity : 1;
    return isChosen && !isChosen(mark) ? PALE * opacity : opacity;
  }

  /** Paint a whole mark. @param {Mark} mark */
  function paintMark(mark) {
    context.globalAlpha = strengthOf(mark);
    if (mark.kind === "area") {
      context.fillStyle = marks.fills[mark.number];
      context.beginPath();
      tracePath(context, areas, areas.firsts[mark.number], areas.firsts[mark.number + 1], view);
      context.fill(marks.rules[mark.number]);
    } else if (mark.kind === "text") {
      const words = marks.texts[mark.number];
      context.fillStyle = words.ink;
      context.beginPath();
      traceWords(context, marks.shapes[words.shape], words, view);
      context.fill();
    } else {
      paintLine(mark);
    }
    context.globalAlpha = 1;
  }

  /** @param {Mark} mark */
  function paintLine(mark) {
    const [first, stop] = [lines.firsts[mark.number], lines.firsts[mark.number + 1]];
    // A translucent line with dots is painted apart, so that one does not show through the other.
    if (stop - first > CHUNK || (strengthOf(mark) < 1 && hasDots(first, stop))) {
      growing = begun(mark);
      grow(Infinity);
      return;
    }
    const style = styles[lines.keys[mark.number]];
    useStyle(context, style, true);
    context.lineDashOffset = dashOffset(mark) * view.scale * view.ratio;
    context.beginPath();
    tracePath(context, lines, first, stop, view, style.dash.length > 0);
    context.stroke();
    paintDots(context, style, first, stop);
  }

  /** Paint the line that grows up to a step. @param {number} stop */
  function grow(stop) {
    if (!growing) return;
    const { mark, isApart } = growing;
    const [first, last] = [lines.firsts[mark.number], lines.firsts[mark.number + 1]];
    const target = isApart ? contextOf(ink) : context;
    target.globalAlpha = 1;
    if (isApart && growing.vertex === first) target.clearRect(0, 0, ink.width, ink.height);
    let end = mark.end <= stop ? last : growing.vertex;
    while (end < last && lines.steps[end] < stop) end += 1;
    strokeOn(target, growing, end);
    if (mark.end > stop) return;
    if (isApart) {
      context.globalAlpha = strengthOf(mark);
      context.drawImage(ink, 0, 0);
      context.globalAlpha = 1;
    }
    growing = null;
  }

  /** Stroke a part of a line, in chunks that overlap by one side, so that corners are joined.
   * @param {CanvasRenderingContext2D} target
   * @param {Part} part @param {number} stop */
  function strokeOn(target, part, stop) {
    const style = styles[lines.keys[part.mark.number]];
    const first = lines.firsts[part.mark.number];
    useStyle(target, style, style.dash.length > 0 || style.cap === "round");
    while (part.vertex < stop) {
      const end = Math.min(part.vertex + CHUNK, stop);
      const begin = Math.max(part.vertex - 2, first);
      if (style.dash.length) target.lineDashOffset = lengthTo(part, begin) * view.scale * view.ratio;
      target.beginPath();
      tracePath(target, lines, lines.codes[begin + 1] === MOVE ? begin + 1 : begin, end, view, style.dash.length > 0);
      target.stroke();
      paintDots(target, style, part.vertex, end);
      part.vertex = end;
    }
  }

  /** How far into its dashes a line begins. @param {Mark} mark */
  function dashOffset(mark) {
    return marks.dashOffsets?.[mark.number] ?? 0;
  }

  /** How long a line is from the beginning of its piece to a vertex; where dashes go on.
   * @param {Part} part @param {number} vertex */
  function lengthTo(part, vertex) {
    let length = part.length;
    for (let i = Math.max(part.at, lines.firsts[part.mark.number]); i < vertex; i++) {
      if (lines.codes[i + 1] === MOVE) length = 0;
      else length += sideLength(i + 1);
    }
    [part.at, part.length] = [vertex, length];
    return length;
  }

  /** @param {number} i */
  function sideLength(i) {
    const { vertices, arcOf, arcs } = lines;
    const arc = arcOf ? arcOf[i] : -1;
    if (arc >= 0 && arcs[5 * arc + 4]) {
      const [ux, uy] = [arcs[5 * arc], arcs[5 * arc + 1]];
      return Math.hypot(ux, uy) * Math.abs(arcs[5 * arc + 4]) * (Math.PI / 180);
    }
    return Math.hypot(vertices[2 * i] - vertices[2 * i - 2], vertices[2 * i + 1] - vertices[2 * i - 1]);
  }

  /** @param {CanvasRenderingContext2D} target @param {import("./data.js").Style} style @param {boolean} hasCaps */
  function useStyle(target, style, hasCaps) {
    const scale = view.scale * view.ratio;
    target.strokeStyle = style.ink;
    target.lineWidth = style.width * scale;
    target.lineCap = hasCaps ? style.cap : "butt";
    target.lineJoin = style.join;
    target.miterLimit = MITRE;
    target.setLineDash(dashesOf(style, scale));
    target.lineDashOffset = 0;
  }

  /** Paint pieces of no length, which show their caps (SVG 2, 13.5.4); `tracePath` leaves them out.
   * @param {CanvasRenderingContext2D} target @param {import("./data.js").Style} style
   * @param {number} first @param {number} stop */
  function paintDots(target, style, first, stop) {
    if (style.cap === "butt") return;
    const { vertices, codes } = lines;
    const scale = view.scale * view.ratio;
    const half = (style.width * scale) / 2;
    target.beginPath();
    for (let i = first; i < stop; i++) {
      if (codes[i] !== MOVE || !dotEnd(lines, i)) continue;
      const x = (view.width * view.ratio) / 2 + (vertices[2 * i] - view.x) * scale;
      const y = (view.height * view.ratio) / 2 - (vertices[2 * i + 1] - view.y) * scale;
      target.moveTo(x + half, y);
      if (style.cap === "round") target.arc(x, y, half, 0, 2 * Math.PI);
      else target.rect(x - half, y - half, 2 * half, 2 * half);
    }
    target.fillStyle = style.ink;
    target.fill();
  }

  /** Whether some of a line are dots. @param {number} first @param {number} stop */
  function hasDots(first, stop) {
    for (let i = first; i < stop; i++) if (lines.codes[i] === MOVE && dotEnd(lines, i)) return true;
    return false;
  }

  /** Lay the picture on another canvas, with the translucent line that grows and the block that is not closed.
   * @param {CanvasRenderingContext2D} target */
  function layOn(target) {
    target.drawImage(canvas, 0, 0);
    layInk(target);
    if (growing || open.length) return;
    const own = context;
    context = target;
    for (let i = next; i < order.length && order[i].begin < painted; i++) {
      const mark = order[i];
      if (mark.kind === "area" && mark.end > painted) continue;
      if (mark.kind === "line" && mark.end > painted) {
        growing = begun(mark);
        grow(painted);
        layInk(target);
        growing = null;
      } else {
        paintMark(mark);
      }
    }
    context = own;
  }

  /** Lay the line that is painted apart on another canvas. @param {CanvasRenderingContext2D} target */
  function layInk(target) {
    if (!growing?.isApart) return;
    target.globalAlpha = strengthOf(growing.mark);
    target.drawImage(ink, 0, 0);
    target.globalAlpha = 1;
  }

  /** Leave all marks pale but some; null for none. @param {((mark: Mark) => boolean) | null} wanted */
  function choose(wanted) {
    isChosen = wanted;
    kept = [];
    restart();
  }

  return { canvas, setView, show, layOn, choose };
}

/** Times as much room as what is drawn takes, in a small picture beside it. */
const ROOM_BESIDE = 1.3;
/** How many times as many pixels, each way, a picture that stands still is painted with: a canvas takes few
 * samples of the edges of small shapes. */
const FINER = 4;

/** Paint a whole sheet on a canvas, smoothly.
 * @param {HTMLCanvasElement} canvas @param {any} drawing @param {number} scale pixels a unit
 * @param {number} [steps] how many are painted; all without it */
export function pictureOfSheet(canvas, drawing, scale, steps = drawing.marks.steps) {
  // A part of a pixel counts as one, and the upper left corner is that of the sheet.
  const [wide, high] = [drawing.width * scale, drawing.height * scale];
  const [width, height] = [Math.ceil(wide - 1e-6), Math.ceil(high - 1e-6)];
  const [x, y] = [(width - wide) / 2 / scale, (high - height) / 2 / scale];
  paintOn(canvas, drawing, { x, y, scale, width, height, ratio: 1 }, steps);
}

/** Paint on a small canvas the part of the sheet on which another drawing is, with some room around it, so that
 * small differences to it are seen.
 * @param {HTMLCanvasElement} canvas @param {any} drawing @param {number} wide CSS pixels @param {any} other */
export function pictureBeside(canvas, drawing, wide, other) {
  const { width, height } = drawing;
  const frame = frameOf(other) ?? { left: -width / 2, bottom: -height / 2, width, height };
  const high = (wide * drawing.height) / drawing.width;
  const ratio = window.devicePixelRatio || 1;
  const scale = Math.min(wide / (ROOM_BESIDE * frame.width || 1), high / (ROOM_BESIDE * frame.height || 1));
  const [x, y] = [frame.left + frame.width / 2, frame.bottom + frame.height / 2];
  paintOn(canvas, drawing, { x, y, scale, width: wide, height: high, ratio }, drawing.marks.steps);
}

/** Paint a part of a drawing on a canvas, smoothly. @param {HTMLCanvasElement} canvas @param {any} drawing
 * @param {Place} place @param {number} steps */
function paintOn(canvas, drawing, place, steps) {
  const whole = createPainter(drawing.marks);
  whole.setView({ ...place, ratio: FINER * place.ratio });
  whole.show(steps);
  const painted = newCanvas(whole.canvas.width, whole.canvas.height);
  whole.layOn(contextOf(painted));
  [canvas.width, canvas.height] = [Math.round(place.width * place.ratio), Math.round(place.height * place.ratio)];
  const target = contextOf(canvas);
  target.fillStyle = drawing.paper;
  target.fillRect(0, 0, canvas.width, canvas.height);
  target.drawImage(shrunk(painted, FINER / 2), 0, 0, canvas.width, canvas.height);
}

/** The part of the sheet with everything drawn on it; null where nothing is. @param {any} drawing */
export function frameOf({ marks }) {
  let [left, bottom, right, top] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { vertices } of [marks.lines, marks.areas]) {
    for (let i = 0; i < vertices.length; i += 2) {
      [left, right] = [Math.min(left, vertices[i]), Math.max(right, vertices[i])];
      [bottom, top] = [Math.min(bottom, vertices[i + 1]), Math.max(top, vertices[i + 1])];
    }
  }
  return left <= right ? { left, bottom, width: right - left, height: top - bottom } : null;
}

/** A canvas made smaller by halves, so that every pixel counts. @param {HTMLCanvasElement} canvas
 * @param {number} factor a power of two */
export function shrunk(canvas, factor) {
  if (factor <= 1) return canvas;
  const half = newCanvas(Math.ceil(canvas.width / 2), Math.ceil(canvas.height / 2));
  contextOf(half).drawImage(canvas, 0, 0, half.width, half.height);
  return shrunk(half, factor / 2);
}
