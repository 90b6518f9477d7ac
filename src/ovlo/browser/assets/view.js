// @ts-check
// Which part of the sheet is seen, and how large: from sheet units to the pixels of the canvas and back.
//
//   view.zoomAt(1.2, x, y);
//   const [x, y] = view.toSheet(event.offsetX, event.offsetY);

/** @typedef {{left: number, bottom: number, width: number, height: number}} Frame */

const MARGIN = 12;
const SMALLEST = 1e-4;
const LARGEST = 1e6;

/** A view of a sheet, whose middle is (0, 0); sizes of the canvas are in CSS pixels.
 * @param {{width: number, height: number, pixelsPerUnit: number}} sheet */
export function createView(sheet) {
  const view = { x: 0, y: 0, scale: sheet.pixelsPerUnit, width: 1, height: 1, ratio: 1 };

  /** @param {Frame} frame */
  function showFrame(frame) {
    view.x = frame.left + frame.width / 2;
    view.y = frame.bottom + frame.height / 2;
    const across = (view.width - 2 * MARGIN) / Math.max(frame.width, 1e-9);
    const up = (view.height - 2 * MARGIN) / Math.max(frame.height, 1e-9);
    view.scale = within(Math.min(across, up));
  }

  /** @param {number} scale */
  function within(scale) {
    return Math.min(Math.max(scale, SMALLEST), LARGEST);
  }

  return Object.assign(view, {
    showFrame,
    showSheet() {
      showFrame({ left: -sheet.width / 2, bottom: -sheet.height / 2, width: sheet.width, height: sheet.height });
    },
    /** Zoom by a factor, what is at a place of the canvas staying there.
     * @param {number} factor @param {number} left @param {number} top */
    zoomAt(factor, left = view.width / 2, top = view.height / 2) {
      const [x, y] = this.toSheet(left, top);
      view.scale = within(view.scale * factor);
      view.x = x - (left - view.width / 2) / view.scale;
      view.y = y + (top - view.height / 2) / view.scale;
    },
    /** @param {number} dx @param {number} dy */
    drag(dx, dy) {
      view.x -= dx / view.scale;
      view.y += dy / view.scale;
    },
    /** @param {number} left @param {number} top @returns {[number, number]} */
    toSheet(left, top) {
      return [view.x + (left - view.width / 2) / view.scale, view.y - (top - view.height / 2) / view.scale];
    },
    /** @param {number} x @param {number} y @returns {[number, number]} */
    toCanvas(x, y) {
      return [(x - view.x) * view.scale + view.width / 2, (view.y - y) * view.scale + view.height / 2];
    },
  });
}
