// @ts-check
// Which part of the sheet is seen, and how large: from sheet units to the pixels of the canvas and back.
//
//   view.zoomAt(1.2, x, y);
//   const [x, y] = view.toSheet(event.offsetX, event.offsetY);

/** @typedef {{left: number, bottom: number, width: number, height: number}} Frame */
/** @typedef {{width: number, height: number}} Size */

const MARGIN = 12;
const SMALLEST = 1e-4;
const LARGEST = 1e6;

/** A view of a sheet, whose middle is (0, 0); sizes of the canvas are in CSS pixels. */
export function createView() {
  const view = { x: 0, y: 0, scale: 1, width: 1, height: 1, ratio: 1 };
  /** @type {Size} */
  let sheet = { width: 1, height: 1 };
  /** Whether the whole sheet is seen, as long as nobody has looked closer. */
  let isWhole = true;

  /** @param {Frame} frame */
  function showFrame(frame) {
    isWhole = false;
    view.x = frame.left + frame.width / 2;
    view.y = frame.bottom + frame.height / 2;
    const across = (view.width - 2 * MARGIN) / Math.max(frame.width, 1e-9);
    const up = (view.height - 2 * MARGIN) / Math.max(frame.height, 1e-9);
    view.scale = within(Math.min(across, up));
  }

  function showSheet() {
    showFrame({ left: -sheet.width / 2, bottom: -sheet.height / 2, width: sheet.width, height: sheet.height });
    isWhole = true;
  }

  /** @param {number} scale */
  function within(scale) {
    return Math.min(Math.max(scale, SMALLEST), LARGEST);
  }

  return Object.assign(view, {
    isWhole: () => isWhole,
    showFrame,
    showSheet,
    /** Look at another sheet. @param {Size} wanted */
    take(wanted) {
      sheet = wanted;
      showSheet();
    },
    /** @param {number} width @param {number} height @param {number} ratio */
    resize(width, height, ratio) {
      [view.width, view.height, view.ratio] = [width, height, ratio];
      if (isWhole) showSheet();
    },
    /** Zoom by a factor, what is at a place of the canvas staying there.
     * @param {number} factor @param {number} left @param {number} top */
    zoomAt(factor, left = view.width / 2, top = view.height / 2) {
      isWhole = false;
      const [x, y] = this.toSheet(left, top);
      view.scale = within(view.scale * factor);
      view.x = x - (left - view.width / 2) / view.scale;
      view.y = y + (top - view.height / 2) / view.scale;
    },
    /** @param {number} dx @param {number} dy */
    drag(dx, dy) {
      isWhole = false;
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
