// @ts-check
// What may be laid over the picture: a grid of coordinates, the axes, numbers of steps, angles, findings, and the
// pointer of the nib that moves.
//
//   drawOverlays(context, view, drawing, steps, new Set(["grid", "steps"]));

import { DEGREE } from "./trace.js";

const NEUTRAL = "#5b6b7b";
const STRONG = "#0b6fa4";
const WARNING = "#c2185b";
const PEN_JUMP = 0;
/** Pixels that two labels need between them. */
const ROOM = 16;
const FONT = "12px system-ui, sans-serif";

/** @typedef {ReturnType<typeof import("./view.js").createView>} View */

/** @param {CanvasRenderingContext2D} context @param {View} view @param {any} drawing
 * @param {number} steps @param {Set<string>} names */
export function drawOverlays(context, view, drawing, steps, names) {
  context.save();
  context.setTransform(view.ratio, 0, 0, view.ratio, 0, 0);
  context.font = FONT;
  if (names.has("grid")) drawGrid(context, view);
  if (names.has("axes")) drawAxes(context, view);
  const taken = createRoom();
  if (names.has("angles")) drawAngles(context, view, drawing.steps, steps, taken);
  if (names.has("steps")) drawNumbers(context, view, drawing.steps, steps, taken);
  if (names.has("findings")) drawFindings(context, view, drawing.findings ?? []);
  context.restore();
}

/** A round number of units between lines that are at least so many pixels apart.
 * @param {number} scale @param {number} pixels */
function spacing(scale, pixels) {
  const least = pixels / scale;
  const power = 10 ** Math.floor(Math.log10(least));
  return [1, 2, 5, 10].map((n) => n * power).find((n) => n >= least) ?? 10 * power;
}

/** @param {CanvasRenderingContext2D} context @param {View} view */
function drawGrid(context, view) {
  const unit = spacing(view.scale, 50);
  const [left, top] = view.toSheet(0, 0);
  const [right, bottom] = view.toSheet(view.width, view.height);
  context.strokeStyle = context.fillStyle = NEUTRAL;
  context.lineWidth = 1;
  for (let x = Math.ceil(left / unit) * unit; x <= right; x += unit) {
    const [across] = view.toCanvas(x, 0);
    strokeLine(context, across, 0, across, view.height, 0.25);
    context.fillText(short(x, unit), across + 3, view.height - 4);
  }
  for (let y = Math.ceil(bottom / unit) * unit; y <= top; y += unit) {
    const [, down] = view.toCanvas(0, y);
    strokeLine(context, 0, down, view.width, down, 0.25);
    context.fillText(short(y, unit), 3, down - 3);
  }
}

/** @param {CanvasRenderingContext2D} context @param {View} view */
function drawAxes(context, view) {
  const [x, y] = view.toCanvas(0, 0);
  context.strokeStyle = context.fillStyle = STRONG;
  context.lineWidth = 1.5;
  strokeLine(context, 0, y, view.width, y, 0.8);
  strokeLine(context, x, 0, x, view.height, 0.8);
  context.fillText("x", view.width - 12, y - 5);
  context.fillText("y", x + 5, 12);
}

/** @param {CanvasRenderingContext2D} context @param {number} x0 @param {number} y0 @param {number} x1
 * @param {number} y1 @param {number} alpha */
function strokeLine(context, x0, y0, x1, y1, alpha) {
  context.globalAlpha = alpha;
  context.beginPath();
  context.moveTo(x0, y0);
  context.lineTo(x1, y1);
  context.stroke();
  context.globalAlpha = 1;
}

/** @param {number} value @param {number} unit */
function short(value, unit) {
  return String(Number((Math.round(value / unit) * unit).toPrecision(10)));
}

/** Places for labels, none nearer to another than there is room. */
function createRoom() {
  const taken = new Set();
  /** @param {number} x @param {number} y */
  return (x, y) => {
    const [column, row] = [Math.round(x / (2 * ROOM)), Math.round(y / ROOM)];
    const key = `${column} ${row}`;
    if (taken.has(key)) return false;
    taken.add(key);
    return true;
  };
}

/** @param {CanvasRenderingContext2D} context @param {View} view @param {any} steps @param {number} count
 * @param {(x: number, y: number) => boolean} hasRoom */
function drawNumbers(context, view, { points, starts, pens }, count, hasRoom) {
  for (let i = 0; i < count; i++) {
    if (pens[i] === PEN_JUMP) continue;
    const middle = [(points[2 * i] + starts[2 * i]) / 2, (points[2 * i + 1] + starts[2 * i + 1]) / 2];
    const [x, y] = view.toCanvas(middle[0], middle[1]);
    if (isOff(view, x, y) || !hasRoom(x, y)) continue;
    label(context, String(i), x, y, STRONG);
  }
}

/** @param {CanvasRenderingContext2D} context @param {View} view @param {any} steps @param {number} count
 * @param {(x: number, y: number) => boolean} hasRoom */
function drawAngles(context, view, { starts, turns, pens }, count, hasRoom) {
  for (let i = 0; i < count; i++) {
    if (pens[i] === PEN_JUMP || Math.abs(turns[i]) < 0.05) continue;
    const [x, y] = view.toCanvas(starts[2 * i], starts[2 * i + 1]);
    if (isOff(view, x, y) || !hasRoom(x, y)) continue;
    label(context, `${Math.round(turns[i] * 10) / 10}°`, x, y, WARNING);
  }
}

/** @param {View} view @param {number} x @param {number} y */
function isOff(view, x, y) {
  return x < -ROOM || y < -ROOM || x > view.width + ROOM || y > view.height + ROOM;
}

/** @param {CanvasRenderingContext2D} context @param {string} words @param {number} x @param {number} y
 * @param {string} colour */
function label(context, words, x, y, colour) {
  const width = context.measureText(words).width;
  context.fillStyle = "#ffffffd0";
  context.fillRect(x - width / 2 - 2, y - 8, width + 4, 15);
  context.fillStyle = colour;
  context.fillText(words, x - width / 2, y + 4);
}

/** @param {CanvasRenderingContext2D} context @param {View} view @param {any[]} findings */
function drawFindings(context, view, findings) {
  findings.forEach((finding, i) => {
    if (!finding.place) return;
    const [x, y] = view.toCanvas(finding.place[0], finding.place[1]);
    context.strokeStyle = WARNING;
    context.lineWidth = 2.5;
    context.beginPath();
    context.arc(x, y, 13, 0, 2 * Math.PI);
    context.stroke();
    label(context, String(i + 1), x + 17, y - 15, WARNING);
  });
}

/** Where a nib is and where it points after so many steps and a share of the next.
 * @param {any} steps @param {number} count @param {number} share @returns {{x: number, y: number,
 * heading: number, nib: number} | null} */
export function poseAt(steps, count, share) {
  const total = steps.headings.length;
  if (!total) return null;
  const i = share > 0 && count < total ? count : Math.max(count - 1, 0);
  const part = share > 0 && count < total ? share : count > 0 ? 1 : 0;
  const [sx, sy] = [steps.starts[2 * i], steps.starts[2 * i + 1]];
  const [ex, ey] = [steps.points[2 * i], steps.points[2 * i + 1]];
  const heading = steps.headings[i];
  const arc = steps.arcOf.get(i);
  if (arc === undefined) {
    return { x: sx + part * (ex - sx), y: sy + part * (ey - sy), heading, nib: steps.nibs[i] };
  }
  const [ux, uy, vx, vy, sweep] = steps.arcs.subarray(5 * arc, 5 * arc + 5);
  if (!sweep) {
    const [t, s] = [part, 1 - part];
    const x = sx + 3 * s * s * t * ux + 3 * s * t * t * vx + t ** 3 * (ex - sx);
    const y = sy + 3 * s * s * t * uy + 3 * s * t * t * vy + t ** 3 * (ey - sy);
    return { x, y, heading, nib: steps.nibs[i] };
  }
  const angle = part * sweep * DEGREE;
  const [cosine, sine] = [Math.cos(angle), Math.sin(angle)];
  const sense = ux * vy - uy * vx < 0 ? -1 : 1;
  return {
    x: sx + ux * (cosine - 1) + vx * sine,
    y: sy + uy * (cosine - 1) + vy * sine,
    heading: heading - sense * sweep * (1 - part),
    nib: steps.nibs[i],
  };
}

/** The last step drawn that comes so near to a place; -1 when none does.
 * @param {any} steps @param {number} count @param {number} x @param {number} y @param {number} reach */
export function stepNear(steps, count, x, y, reach) {
  for (let i = count - 1; i >= 0; i--) {
    if (steps.pens[i] !== PEN_JUMP && distanceTo(steps, i, x, y) <= reach) return i;
  }
  return -1;
}

/** @param {any} steps @param {number} i @param {number} x @param {number} y */
function distanceTo(steps, i, x, y) {
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
