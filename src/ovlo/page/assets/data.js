// @ts-check
// The message that shows a drawing: bytes in, arrays and words out. docs/reference/message.md describes the format.
//
//   const drawing = drawingOf(readMessage(await unpacked(text)));

/** @typedef {{vertices: Float64Array, codes: Uint8Array, steps: Int32Array, firsts: Int32Array,
 *   keys: Int32Array, arcs: Float64Array, arcOf: Int32Array | null}} Outline */
/** @typedef {{ink: string, opacity: number, width: number, dash: number[], cap: CanvasLineCap,
 *   join: CanvasLineJoin}} Style */
/** @typedef {{step: number, words: string, x: number, y: number, heading: number, size: number,
 *   width: number, ink: string, shape: number}} Words */
/** @typedef {{steps: number, styles: Style[], dashOffsets?: Record<number, number>, fills: string[], rules: CanvasFillRule[], texts: Words[],
 *   shapes: {vertices: Float64Array, codes: Uint8Array}[], lines: Outline, areas: Outline,
 *   order: Mark[]}} Marks */
/** @typedef {{kind: "area" | "text" | "line", number: number, begin: number, end: number}} Mark */

const VERSION = 1;
const KINDS = { Float64Array, Int32Array, Uint8Array };

/** The bytes of a text in base64. @param {string} text */
export function decoded(text) {
  const letters = atob(text);
  const bytes = new Uint8Array(letters.length);
  for (let i = 0; i < letters.length; i++) bytes[i] = letters.charCodeAt(i);
  return bytes;
}

/** The bytes that a page holds as text: deflated (RFC 1950), in base64.
 * @param {string} text @returns {Promise<ArrayBuffer>} */
export async function unpacked(text) {
  const stream = new Blob([decoded(text.trim())]).stream().pipeThrough(new DecompressionStream("deflate"));
  return new Response(stream).arrayBuffer();
}

/** A message read: its head and its arrays. @typedef {{head: any, arrays: Record<string, any>}} Message */

/** A message, which may build on the one before. @param {ArrayBuffer} buffer @param {Message | null} before
 * @returns {Message} */
export function readMessage(buffer, before = null) {
  const length = new DataView(buffer).getUint32(0, true);
  const head = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, 4, length)));
  if (head.version !== VERSION) throw new Error(`This page reads version ${VERSION}, not ${head.version}.`);
  for (const name of head.same ?? []) head[name] = before?.head[name];
  /** @type {Record<string, any>} */
  const arrays = {};
  for (const [name, [kind, offset, size, kept = 0]] of Object.entries(head.arrays)) {
    const Kind = KINDS[/** @type {keyof typeof KINDS} */ (kind)];
    const sent = new Kind(buffer, 4 + length + offset, size);
    arrays[name] = kept ? grown(before?.arrays[name], kept, sent) : sent;
  }
  return { head, arrays };
}

/** So much of an array, and what is new. @param {any} before @param {number} kept @param {any} more */
function grown(before, kept, more) {
  const whole = new more.constructor(kept + more.length);
  whole.set(before.subarray(0, kept));
  whole.set(more, kept);
  return whole;
}

/** The drawing a message tells of. @param {Message} message */
export function drawingOf({ head, arrays }) {
  const steps = stepsOf(arrays);
  return {
    ...head,
    marks: marksOf(head.drawing, "", arrays, steps),
    pointers: head.pointers.map(
      (/** @type {any} */ one, /** @type {number} */ i) =>
        one && { isDefault: one.isDefault, marks: marksOf(one.marks, `pointer${i}.`, arrays) },
    ),
    steps,
  };
}

/** @param {any} head @param {string} prefix @param {Record<string, any>} arrays
 * @param {{points: Float64Array, starts: Float64Array} | null} steps @returns {Marks} */
function marksOf(head, prefix, arrays, steps = null) {
  const lines = outlineOf(`${prefix}lines`, arrays, steps);
  const areas = outlineOf(`${prefix}areas`, arrays, steps);
  const spans = arrays[`${prefix}areaSpans`];
  const [areaCount, textCount] = [areas.keys.length, head.texts.length];
  const order = Array.from(arrays[`${prefix}order`], (/** @type {number} */ number) => {
    if (number < areaCount) {
      return { kind: "area", number, begin: spans[2 * number], end: spans[2 * number + 1] };
    }
    if (number < areaCount + textCount) {
      const { step } = head.texts[number - areaCount];
      return { kind: "text", number: number - areaCount, begin: step, end: step };
    }
    const path = number - areaCount - textCount;
    const [first, stop] = [lines.firsts[path], lines.firsts[path + 1]];
    return { kind: "line", number: path, begin: lines.steps[first], end: lines.steps[stop - 1] + 1 };
  });
  const shapes = head.shapes.map((/** @type {any} */ _, /** @type {number} */ i) => ({
    vertices: arrays[`${prefix}shape${i}.vertices`],
    codes: arrays[`${prefix}shape${i}.codes`],
  }));
  return { ...head, lines, areas, shapes, order };
}

/** @param {string} name @param {Record<string, any>} arrays
 * @param {{points: Float64Array, starts: Float64Array} | null} steps @returns {Outline} */
function outlineOf(name, arrays, steps) {
  const vertices =
    arrays[`${name}.vertices`] ?? verticesOf(arrays[`${name}.codes`], arrays[`${name}.steps`], steps);
  const at = arrays[`${name}.arcVertices`];
  let arcOf = null;
  if (at.length) {
    arcOf = new Int32Array(vertices.length / 2).fill(-1);
    for (let i = 0; i < at.length; i++) arcOf[at[i]] = i;
  }
  return {
    vertices,
    codes: arrays[`${name}.codes`],
    steps: arrays[`${name}.steps`],
    firsts: arrays[`${name}.firsts`],
    keys: arrays[`${name}.keys`],
    arcs: arrays[`${name}.arcs`],
    arcOf,
  };
}

const MOVES = 1;

/** Vertices that are where their steps end, or begin. @param {Uint8Array} codes @param {Int32Array} of
 * @param {any} steps */
function verticesOf(codes, of, steps) {
  const vertices = new Float64Array(2 * codes.length);
  for (let i = 0; i < codes.length; i++) {
    const from = codes[i] === MOVES ? steps.starts : steps.points;
    vertices[2 * i] = from[2 * of[i]];
    vertices[2 * i + 1] = from[2 * of[i] + 1];
  }
  return vertices;
}

/** Where each step begins: where the one before ended, but for some.
 * @param {{points: Float64Array, breaks: Int32Array, breakStarts: Float64Array}} arrays */
function startsOf({ points, breaks, breakStarts }) {
  const starts = new Float64Array(points.length);
  if (points.length) starts.set(points.subarray(0, -2), 2);
  breaks.forEach((step, i) => starts.set(breakStarts.subarray(2 * i, 2 * i + 2), 2 * step));
  return starts;
}

/** @param {Record<string, any>} arrays */
function stepsOf(arrays) {
  const arcOf = new Map(Array.from(arrays.stepArcs, (/** @type {number} */ step, i) => [step, i]));
  return {
    points: arrays.points,
    starts: startsOf(/** @type {any} */ (arrays)),
    headings: arrays.headings,
    turns: arrays.turns,
    lengths: arrays.lengths,
    pens: arrays.pens,
    nibs: arrays.nibs,
    lines: arrays.lines ?? null,
    calls: arrays.calls ?? null,
    arcOf,
    arcs: arrays.stepArcParts,
  };
}
