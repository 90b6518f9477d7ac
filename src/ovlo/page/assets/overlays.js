// @ts-check
// What may be laid over the picture: a grid of coordinates, the axes, numbers of steps, angles, findings, and the
// pointer of the nib that moves.
//
//   drawOverlays(context, view, drawing, steps, new Set(["grid", "steps"]));

import { DEGREE, MOVE } from "./trace.js";

/** The colours of overlays on light and on dark paper; those of files are the same. */
const LIGHT = {
  plain: "#28303c", line: "#2d446e30", number: "#5b2a86", outer: "#005f9e", inner: "#b34700", finding: "#b3261e",
  plate: "#ffffffc7",
};
const DARK = {
  plain: "#e8ecf4", line: "#c8d4f038", number: "#ffd166", outer: "#7cc4ff", inner: "#ffb45c", finding: "#ff9e80",
  plate: "#181c24c7",
};
/** Degrees of a corner between whose sides no words fit. */
const SHARP = 50;

/** Pixels both sides of a corner are long at least, if its angles are to be read. */
const CLEAR_SIDE = 44;
/** Labels that are looked at; more could not be read. */
const MOST_LABELS = 2_000;
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
  const colours = isDark(drawing.paper) ? DARK : LIGHT;
  if (names.has("grid")) drawGrid(context, view, colours);
  if (names.has("axes")) drawAxes(context, view, colours);
  const taken = createRoom();
  if (names.has("findings")) drawFindings(context, view, drawing.findings ?? [], colours);
  if (names.has("steps")) drawNumbers(context, view, drawing.steps, steps, taken, colours);
  if (names.has("angles")) drawAngles(context, view, drawing.marks.lines, steps, taken, colours);
  context.restore();
}

/** Whether paper is dark, as for overlays in files. @param {string} paper six or eight hexadecimal digits */
function isDark(paper) {
  const [red, green, blue, opacity = 255] = (paper.slice(1).match(/../g) ?? []).map((pair) => parseInt(pair, 16));
  return opacity > 127 && 0.3 * red + 0.6 * green + 0.1 * blue < 110;
}

/** A round number of units between lines that are at least so many pixels apart.
 * @param {number} scale @param {number} pixels */
function spacing(scale, pixels) {
  const least = pixels / scale;
  const power = 10 ** Math.floor(Math.log10(least));
  return [1, 2, 5, 10].map((n) => n * power).find((n) => n >= least) ?? 10 * power;
}

/** @param {CanvasRenderingContext2D} context @param {View} view @param {typeof LIGHT} colours */
function drawGrid(context, view, colours) {
  const unit = spacing(view.scale, 50);
  const [left, top] = view.toSheet(0, 0);
  const [right, bottom] = view.toSheet(view.width, view.height);
  [context.strokeStyle, context.fillStyle] = [colours.line, colours.plain];
  context.lineWidth = 1;
  for (let x = Math.ceil(left / unit) * unit; x <= right; x += unit) {
    const [across] = view.toCanvas(x, 0);
    strokeLine(context, across, 0, across, view.height);
    context.fillText(short(x, unit), across + 3, view.height - 4);
  }
  for (let y = Math.ceil(bottom / unit) * unit; y <= top; y += unit) {
    const [, down] = view.toCanvas(0, y);
    strokeLine(context, 0, down, view.width, down);
    context.fillText(short(y, unit), 3, down - 3);
  }
}

/** @param {CanvasRenderingContext2D} context @param {View} view @param {typeof LIGHT} colours */
function drawAxes(context, view, colours) {
  const [x, y] = view.toCanvas(0, 0);
  context.strokeStyle = context.fillStyle = colours.plain;
  context.lineWidth = 1.4;
  strokeLine(context, 0, y, view.width, y);
  strokeLine(context, x, 0, x, view.height);
  label(context, "x, heading 0°", view.width - 50, y - 14, colours.plain, colours);
  label(context, "y, heading 90°", x + 54, 14, colours.plain, colours);
}

/** @param {CanvasRenderingContext2D} context @param {number} x0 @param {number} y0 @param {number} x1
 * @param {number} y1 */
function strokeLine(context, x0, y0, x1, y1) {
  context.beginPath();
  context.moveTo(x0, y0);
  context.lineTo(x1, y1);
  context.stroke();
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

/** The number of each drawn step at its middle, of many every second, fifth, tenth, …; those that lie on each other
 * share a label.
 * @param {CanvasRenderingContext2D} context @param {View} view @param {any} steps @param {number} count
 * @param {(x: number, y: number) => boolean} hasRoom @param {typeof LIGHT} colours */
function drawNumbers(context, view, steps, count, hasRoom, colours) {
  /** @type {Map<string, {x: number, y: number, numbers: number[]}>} */
  const places = new Map();
  for (let i = 0; i < count; i++) {
    if (steps.pens[i] === PEN_JUMP) continue;
    const middle = poseAt(steps, i, 0.5);
    const [x, y] = view.toCanvas(middle?.x ?? 0, middle?.y ?? 0);
    if (isOff(view, x, y)) continue;
    const key = `${Math.round(x)} ${Math.round(y)}`;
    const known = places.get(key);
    if (known) known.numbers.push(i);
    else if (places.size < 10 * MOST_LABELS) places.set(key, { x, y, numbers: [i] });
  }
  const stride = strideFor(places.size);
  for (const { x, y, numbers } of places.values()) {
    if (!numbers.some((number) => number % stride === 0) || !hasRoom(x, y)) continue;
    label(context, numbers.slice(0, 4).join(", ") + (numbers.length > 4 ? "…" : ""), x, y, colours.number, colours);
  }
}

/** The least of 1, 2, 5, 10, 20, … of which so many labels leave few enough. @param {number} count */
function strideFor(count) {
  let stride = 1;
  for (let i = 0; count / stride > MOST_LABELS / 4; i++) stride *= [2, 2.5, 2][i % 3];
  return stride;
}

/** At each corner the outer angle, by which the nib turns, and the inner one.
 * @param {CanvasRenderingContext2D} context @param {View} view @param {import("./data.js").Outline} lines
 * @param {number} count @param {(x: number, y: number) => boolean} hasRoom @param {typeof LIGHT} colours */
function drawAngles(context, view, lines, count, hasRoom, colours) {
  const { vertices, codes, steps, firsts } = lines;
  /** @param {number} i */
  const at = (i) => view.toCanvas(vertices[2 * i], vertices[2 * i + 1]);
  let shown = 0;
  for (let path = 0; path + 1 < firsts.length; path++) {
    for (let i = firsts[path] + 1; i < firsts[path + 1]; i++) {
      if (shown > MOST_LABELS || steps[i] >= count) break;
      const isLast = i + 1 === firsts[path + 1] || codes[i + 1] === MOVE;
      const begin = isLast ? startOf(codes, i) : i;
      if (codes[i] === MOVE || (isLast && !isSame(vertices, begin, i))) continue;
      const next = begin + 1;
      if (steps[next] >= count || isArc(lines, i) || isArc(lines, next)) continue;
      // What closes a contour may have no length.
      const last = isLast && isSame(vertices, begin, i - 1) ? i - 2 : i - 1;
      shown += showAngle(context, at(last), at(begin), at(next), hasRoom, colours, view) ? 1 : 0;
    }
  }
  if (!shown) return;
  label(context, "outer angle: the turn", 74, view.height - 38, colours.outer, colours);
  label(context, "inner angle", 45, view.height - 18, colours.inner, colours);
}

/** Where the piece begins that is closed at a vertex. @param {Uint8Array} codes @param {number} i */
function startOf(codes, i) {
  while (i > 0 && codes[i] !== MOVE) i -= 1;
  return i;
}

/** Whether two vertices are at one place, as near as a contour is taken as closed.
 * @param {Float64Array} vertices @param {number} i @param {number} j */
function isSame(vertices, i, j) {
  return Math.hypot(vertices[2 * i] - vertices[2 * j], vertices[2 * i + 1] - vertices[2 * j + 1]) < 1e-6;
}

/** @param {import("./data.js").Outline} lines @param {number} i */
function isArc({ arcOf }, i) {
  return arcOf !== null && arcOf[i] >= 0;
}

/** Show one corner, if there is room. @param {CanvasRenderingContext2D} context @param {[number, number]} from
 * @param {[number, number]} corner @param {[number, number]} to @param {(x: number, y: number) => boolean} hasRoom
 * @param {typeof LIGHT} colours @param {View} view */
function showAngle(context, from, corner, to, hasRoom, colours, view) {
  const come = [corner[0] - from[0], corner[1] - from[1]];
  const go = [to[0] - corner[0], to[1] - corner[1]];
  if (Math.hypot(...come) < CLEAR_SIDE || Math.hypot(...go) < CLEAR_SIDE || isOff(view, ...corner)) return false;
  // On the canvas y goes down, so that a turn to the left is negative here.
  const turn = -Math.atan2(come[0] * go[1] - come[1] * go[0], come[0] * go[0] + come[1] * go[1]) / DEGREE;
  if (Math.abs(turn) < 0.05) return false;
  const ahead = Math.atan2(come[1], come[0]);
  const middle = ahead - (turn / 2) * DEGREE;
  const place = [corner[0] + 40 * Math.cos(middle), corner[1] + 40 * Math.sin(middle)];
  if (!hasRoom(place[0], place[1])) return false;
  const side = turn > 0 ? 1 : -1;
  const within = 180 - Math.abs(turn);
  context.lineWidth = 1.4;
  context.strokeStyle = colours.outer;
  context.setLineDash([3, 3]);
  strokeLine(context, ...corner, corner[0] + 30 * Math.cos(ahead), corner[1] + 30 * Math.sin(ahead));
  context.setLineDash([]);
  context.beginPath();
  context.arc(...corner, 24, ahead, ahead - turn * DEGREE, turn > 0);
  context.stroke();
  label(context, `${Number(Math.abs(turn).toPrecision(4))}°`, place[0], place[1], colours.outer, colours);
  const inside = ahead - turn * DEGREE;
  context.strokeStyle = colours.inner;
  context.beginPath();
  context.arc(...corner, 15, inside, inside - side * within * DEGREE, side > 0);
  context.stroke();
  // Between the sides of a sharp corner no words fit: they stand beside one, near the corner.
  const back = within < SHARP ? inside + (side * Math.PI) / 3.6 : ahead - side * (180 - within / 2) * DEGREE;
  const words = `${Number(within.toPrecision(4))}°`;
  label(context, words, corner[0] + 34 * Math.cos(back), corner[1] + 34 * Math.sin(back), colours.inner, colours);
  return true;
}

/** @param {View} view @param {number} x @param {number} y */
function isOff(view, x, y) {
  return x < -ROOM || y < -ROOM || x > view.width + ROOM || y > view.height + ROOM;
}

/** @param {CanvasRenderingContext2D} context @param {string} words @param {number} x @param {number} y
 * @param {string} colour @param {typeof LIGHT} colours */
function label(context, words, x, y, colour, colours) {
  const width = context.measureText(words).width;
  context.fillStyle = colours.plate;
  context.fillRect(x - width / 2 - 2, y - 8, width + 4, 15);
  context.fillStyle = colour;
  context.fillText(words, x - width / 2, y + 4);
}

/** @param {CanvasRenderingContext2D} context @param {View} view @param {any[]} findings
 * @param {typeof LIGHT} colours */
function drawFindings(context, view, findings, colours) {
  findings.forEach((finding, i) => {
    if (!finding.place) return;
    const [x, y] = view.toCanvas(finding.place[0], finding.place[1]);
    context.strokeStyle = colours.finding;
    context.lineWidth = 2.5;
    context.beginPath();
    context.arc(x, y, 13, 0, 2 * Math.PI);
    context.stroke();
    label(context, String(i + 1), x + 17, y - 15, colours.finding, colours);
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
