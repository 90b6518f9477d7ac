// @ts-check
// The words of a picture as real text, clear as glass, over the letters that are painted: to be selected, copied,
// found and read aloud.
//
//   const words = createWords(layer);
//   words.take(drawing.marks.texts);
//   words.place(view);

/** Texts laid over the picture; more would only slow it down. */
const MOST = 400;
/** How far the foot of letters is below the top of their line, in parts of its height. */
const FOOT = 0.8;

/** @param {HTMLElement} layer */
export function createWords(layer) {
  /** @type {{element: HTMLElement, text: import("./data.js").Words, natural: number}[]} */
  let placed = [];

  return {
    /** @param {import("./data.js").Words[]} texts */
    take(texts) {
      const ruler = /** @type {CanvasRenderingContext2D} */ (document.createElement("canvas").getContext("2d"));
      ruler.font = "100px sans-serif";
      placed = texts.slice(0, MOST).map((text) => {
        const element = document.createElement("span");
        element.textContent = text.words;
        return { element, text, natural: ruler.measureText(text.words).width / 100 };
      });
      layer.replaceChildren(...placed.map(({ element }) => element));
    },
    /** Lay them where they are seen. @param {ReturnType<typeof import("./view.js").createView>} view */
    place(view) {
      for (const { element, text, natural } of placed) {
        const [x, y] = view.toCanvas(text.x, text.y);
        const wide = natural > 0 ? text.width / (natural * text.size) : 1;
        element.style.fontSize = `${text.size * view.scale}px`;
        element.style.transform =
          `translate(${x}px, ${y}px) rotate(${-text.heading}deg) translateY(${-FOOT}em) scaleX(${wide})`;
      }
    },
  };
}
