// @ts-check
// The strip above the scrubber: which functions drew when, which areas were filled, where the program paused.
//
//   const stretches = createStretches(canvas);
//   stretches.take(drawing);

/** Areas and pauses that are shown; more would be one on top of the other. */
const MOST_STRETCHES = 2_000;

/** @param {HTMLCanvasElement} canvas */
export function createStretches(canvas) {
  const context = /** @type {CanvasRenderingContext2D} */ (canvas.getContext("2d"));
  /** @type {any} */
  let drawing = null;

  function paint() {
    const ratio = window.devicePixelRatio || 1;
    const [width, height] = [Math.round(canvas.clientWidth * ratio), Math.round(canvas.clientHeight * ratio)];
    if (!drawing || !width) return;
    [canvas.width, canvas.height] = [width, height];
    const count = Math.max(drawing.marks.steps, 1);
    const style = getComputedStyle(canvas);
    const tones = [style.getPropertyValue("--line"), style.getPropertyValue("--soft")];
    // As many looks as there are pixels, however many steps there are.
    const { calls } = drawing.steps;
    for (let x = 0; x < width; x++) {
      const step = Math.min(Math.floor((x * count) / width), count - 1);
      context.fillStyle = tones[calls ? Math.abs(calls[step]) % 2 : 0];
      context.fillRect(x, 0, 1, height * 0.45);
    }
    const areas = drawing.marks.order.filter((/** @type {any} */ mark) => mark.kind === "area");
    for (const area of areas.slice(0, MOST_STRETCHES)) {
      context.fillStyle = drawing.marks.fills[drawing.marks.areas.keys[area.number]] ?? tones[1];
      const [from, to] = [(area.begin * width) / count, (area.end * width) / count];
      context.fillRect(from, height * 0.55, Math.max(to - from, 1), height * 0.45);
    }
    context.fillStyle = style.getPropertyValue("--problem");
    for (const [step] of drawing.pauses.slice(0, MOST_STRETCHES)) {
      context.fillRect(Math.round((step * width) / count) - ratio, 0, 2 * ratio, height);
    }
  }

  new ResizeObserver(paint).observe(canvas);
  matchMedia("(prefers-color-scheme: dark)").addEventListener("change", paint);
  return {
    /** @param {any} wanted */
    take(wanted) {
      drawing = wanted;
      paint();
    },
  };
}
