// @ts-check
// Paths of a drawing laid on a canvas: lines, arcs and letters, shifted to the view before they are handed over,
// since a canvas counts with fewer digits than we do.
//
//   tracePath(context, outline, first, stop, view);
//   context.stroke();

/** What leads to a vertex: a move, a line or an arc, curves (of letters), or the line that closes. */
export const MOVE = 1, LINE = 2, QUADRATIC = 3, CUBIC = 4, CLOSE = 79;
export const DEGREE = Math.PI / 180;
/** Degrees of an arc that one cubic curve draws; it is off by a millionth of the radius then. */
const PIECE = 45;
/** Chords a degree, for a radius of one pixel: their length is off by less than a thousandth then. */
const CHORDS = 0.1;

/** @typedef {{x: number, y: number, scale: number, width: number, height: number, ratio: number}} Place */

/** Lay vertices of an outline on a canvas, from `first` up to `stop`, beginning with a move.
 *
 * Dashes are laid along chords: a canvas measures its curves too coarsely for them.
 * @param {CanvasRenderingContext2D | Path2D} context @param {import("./data.js").Outline} outline
 * @param {number} first @param {number} stop @param {Place} view @param {boolean} isDashed
 * @param {boolean} hasDots whether pieces of no length are laid too, which a canvas paints only beside others */
export function tracePath(context, outline, first, stop, view, isDashed = false, hasDots = false) {
  const { vertices, codes, arcOf } = outline;
  const scale = view.scale * view.ratio;
  const left = (view.width * view.ratio) / 2 - view.x * scale;
  const top = (view.height * view.ratio) / 2 + view.y * scale;
  let dot = 0;
  for (let i = first; i < stop; i++) {
    const x = vertices[2 * i] * scale + left;
    const y = top - vertices[2 * i + 1] * scale;
    if (codes[i] === MOVE && !hasDots && (dot = dotEnd(outline, i))) {
      i = dot - 1;
    } else if (codes[i] === MOVE || i === first) context.moveTo(x, y);
    else if (codes[i] === CLOSE) context.closePath();
    else if (arcOf !== null && arcOf[i] >= 0) traceArc(context, outline, i, scale, left, top, isDashed);
    else context.lineTo(x, y);
  }
}

/** The vertex after a piece of no length that begins with a move; 0 where a piece has a length.
 * @param {import("./data.js").Outline} outline @param {number} i */
export function dotEnd({ vertices, codes, arcs, arcOf }, i) {
  let end = i + 1;
  for (; end < codes.length && codes[end] !== MOVE; end++) {
    if (vertices[2 * end] !== vertices[2 * i] || vertices[2 * end + 1] !== vertices[2 * i + 1]) return 0;
    const at = arcOf ? 5 * arcOf[end] : -1;
    if (at >= 0 && (arcs[at] || arcs[at + 1] || arcs[at + 2] || arcs[at + 3])) return 0;
  }
  return end > i + 1 ? end : 0;
}

/** @param {CanvasRenderingContext2D | Path2D} context @param {import("./data.js").Outline} outline
 * @param {number} i @param {number} scale @param {number} left @param {number} top
 * @param {boolean} isDashed */
function traceArc(context, { vertices, arcs, arcOf }, i, scale, left, top, isDashed) {
  const at = 5 * /** @type {Int32Array} */ (arcOf)[i];
  const [ux, uy, vx, vy, sweep] = [arcs[at], arcs[at + 1], arcs[at + 2], arcs[at + 3], arcs[at + 4]];
  const [sx, sy] = [vertices[2 * i - 2], vertices[2 * i - 1]];
  const [ex, ey] = [vertices[2 * i], vertices[2 * i + 1]];
  /** @param {number} x */
  const across = (x) => x * scale + left;
  /** @param {number} y */
  const down = (y) => top - y * scale;
  if (sweep === 0) {
    context.bezierCurveTo(
      across(sx + ux), down(sy + uy), across(sx + vx), down(sy + vy), across(ex), down(ey),
    );
    return;
  }
  if (isDashed) {
    const chords = Math.ceil(Math.abs(sweep) * CHORDS * Math.sqrt(1 + Math.hypot(ux, uy, vx, vy) * scale));
    for (let n = 1; n < chords; n++) {
      const angle = (n / chords) * sweep * DEGREE;
      const [cosine, sine] = [Math.cos(angle), Math.sin(angle)];
      context.lineTo(across(sx - ux + ux * cosine + vx * sine), down(sy - uy + uy * cosine + vy * sine));
    }
    context.lineTo(across(ex), down(ey));
    return;
  }
  const count = Math.ceil(Math.abs(sweep) / PIECE);
  const step = (sweep * DEGREE) / count;
  // A cubic curve that touches the arc at both ends: its control points lie 4/3·tan(step/4) of the speed away.
  const reach = (4 / 3) * Math.tan(step / 4);
  const [cx, cy] = [sx - ux, sy - uy];
  let [cosine, sine] = [1, 0];
  for (let n = 1; n <= count; n++) {
    const [nextCosine, nextSine] = [Math.cos(n * step), Math.sin(n * step)];
    const [x0, y0] = [cx + ux * cosine + vx * sine, cy + uy * cosine + vy * sine];
    const [x1, y1] = [cx + ux * nextCosine + vx * nextSine, cy + uy * nextCosine + vy * nextSine];
    context.bezierCurveTo(
      across(x0 + reach * (vx * cosine - ux * sine)),
      down(y0 + reach * (vy * cosine - uy * sine)),
      across(x1 - reach * (vx * nextCosine - ux * nextSine)),
      down(y1 - reach * (vy * nextCosine - uy * nextSine)),
      across(n === count ? ex : x1),
      down(n === count ? ey : y1),
    );
    [cosine, sine] = [nextCosine, nextSine];
  }
}

/** Lay the letters of a text on a canvas.
 * @param {CanvasRenderingContext2D} context @param {{vertices: Float64Array, codes: Uint8Array}} shape
 * @param {import("./data.js").Words} words @param {Place} view */
export function traceWords(context, { vertices, codes }, words, view) {
  const scale = view.scale * view.ratio;
  const left = (view.width * view.ratio) / 2 + (words.x - view.x) * scale;
  const top = (view.height * view.ratio) / 2 - (words.y - view.y) * scale;
  const cosine = Math.cos(words.heading * DEGREE) * words.size * scale;
  const sine = Math.sin(words.heading * DEGREE) * words.size * scale;
  /** @param {number} i */
  const across = (i) => left + vertices[2 * i] * cosine - vertices[2 * i + 1] * sine;
  /** @param {number} i */
  const down = (i) => top - vertices[2 * i] * sine - vertices[2 * i + 1] * cosine;
  for (let i = 0; i < codes.length; i++) {
    if (codes[i] === MOVE) context.moveTo(across(i), down(i));
    else if (codes[i] === LINE) context.lineTo(across(i), down(i));
    else if (codes[i] === CLOSE) context.closePath();
    else if (codes[i] === QUADRATIC) {
      context.quadraticCurveTo(across(i), down(i), across(i + 1), down(i + 1));
      i += 1;
    } else if (codes[i] === CUBIC) {
      context.bezierCurveTo(across(i), down(i), across(i + 1), down(i + 1), across(i + 2), down(i + 2));
      i += 2;
    }
  }
}
