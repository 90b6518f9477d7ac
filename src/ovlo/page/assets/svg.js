// @ts-check
// The picture as SVG, written by the page itself: the same paths that it paints, letters as outlines.
//
//   svgOf(drawing)    // '<svg xmlns="…" width="640px" …'

import { tracePath, traceWords } from "./trace.js";

/** @param {any} drawing */
export function svgOf(drawing) {
  const { marks, width, height, unit, pixelsPerUnit } = drawing;
  const scale = pixelsPerUnit;
  const view = { x: 0, y: 0, scale, width: width * scale, height: height * scale, ratio: 1 };
  const [wide, high] = [view.width, view.height].map(shortOf);
  const title = drawing.title ? `<title>${escaped(drawing.title)}</title>\n` : "";
  const parts = marks.order.map((/** @type {any} */ mark) => {
    const pen = createPen();
    if (mark.kind === "area") {
      tracePath(pen.context, marks.areas, marks.areas.firsts[mark.number], marks.areas.firsts[mark.number + 1], view);
      const rule = marks.rules[mark.number] === "evenodd" ? ' fill-rule="evenodd"' : "";
      return `<path d="${pen.data()}" fill="${marks.fills[mark.number]}"${rule}/>`;
    }
    if (mark.kind === "text") {
      const words = marks.texts[mark.number];
      traceWords(pen.context, marks.shapes[words.shape], words, view);
      return `<path aria-label="${escaped(words.words)}" d="${pen.data()}" fill="${words.ink}"/>`;
    }
    const style = marks.styles[marks.lines.keys[mark.number]];
    tracePath(pen.context, marks.lines, marks.lines.firsts[mark.number], marks.lines.firsts[mark.number + 1], view, false, true);
    const about = {
      d: pen.data(),
      fill: "none",
      stroke: style.ink,
      "stroke-opacity": style.opacity < 1 ? shortOf(style.opacity) : "",
      "stroke-width": shortOf(style.width * scale),
      "stroke-linecap": style.cap,
      "stroke-linejoin": style.join,
      "stroke-miterlimit": style.join === "miter" ? "10" : "",
      "stroke-dasharray": style.dash.map((/** @type {number} */ length) => shortOf(length * scale)).join(" "),
      "stroke-dashoffset": shortOf((marks.dashOffsets?.[mark.number] ?? 0) * scale),
    };
    const words = Object.entries(about).filter(([, value]) => value && value !== "0");
    return `<path ${words.map(([name, value]) => `${name}="${value}"`).join(" ")}/>`;
  });
  const size = `width="${width}${unit}" height="${height}${unit}" viewBox="0 0 ${wide} ${high}"`;
  const paper = `<rect width="${wide}" height="${high}" fill="${drawing.paper}"/>`;
  // The icons of the page are of that namespace, so that no address need be written into it.
  const namespace = document.querySelector("svg")?.namespaceURI;
  return `<svg xmlns="${namespace}" ${size}>\n${title}${paper}\n${parts.join("\n")}\n</svg>\n`;
}

/** What takes the calls of a canvas and gives the data of a path (SVG 2, 9.3). */
function createPen() {
  /** @type {string[]} */
  const data = [];
  /** @param {string} letter */
  const note = (letter) => (/** @type {number[]} */ ...numbers) => {
    data.push(letter + numbers.map(shortOf).join(" "));
  };
  const context = /** @type {any} */ ({
    moveTo: note("M"),
    lineTo: note("L"),
    quadraticCurveTo: note("Q"),
    bezierCurveTo: note("C"),
    closePath: note("Z"),
  });
  return { context, data: () => data.join("") };
}

/** @param {number} value */
function shortOf(value) {
  return String(Number(value.toFixed(3)) + 0);
}

/** @param {string} words */
function escaped(words) {
  return words.replace(/[&<>"]/g, (letter) => `&#${letter.charCodeAt(0)};`);
}
