// @ts-check
// What stands at lines of the program: an error with its cause, what is not finished, findings with what to write;
// the line that draws, the lines whose marks are shown alone, and swatches of colours.
//
//   const marking = createMarking((word) => "#ff6347");
//   marking.show(view, { trouble, findings, waiting });

import { Editor, swatch, widgetOf } from "./completing.js";

/** The names of colours are known now. @type {any} */
export const coloursCame = Editor.StateEffect.define();

/** The lines that are lit and chosen. @type {any} */
const setLines = Editor.StateEffect.define();

/** @param {(word: string) => string} colourOf the colour a word is, or "" */
export function createMarking(colourOf) {
  const lit = Editor.Decoration.line({ class: "lit" });
  const chosenLine = Editor.Decoration.line({ class: "chosen" });

  const lines = Editor.StateField.define({
    create: () => ({ lit: 0, chosen: new Set(), marks: Editor.Decoration.none }),
    update(/** @type {any} */ value, /** @type {any} */ change) {
      let { lit: light, chosen } = value;
      for (const effect of change.effects) {
        if (!effect.is(setLines)) continue;
        light = effect.value.lit ?? light;
        chosen = effect.value.chosen ?? chosen;
      }
      if (!change.docChanged && light === value.lit && chosen === value.chosen) return value;
      const { doc } = change.state;
      const found = [];
      for (const number of [...new Set([light, ...chosen])].sort((a, b) => a - b)) {
        if (number < 1 || number > doc.lines) continue;
        const { from } = doc.line(number);
        if (chosen.has(number)) found.push(chosenLine.range(from));
        if (number === light) found.push(lit.range(from));
      }
      return { lit: light, chosen, marks: Editor.Decoration.set(found, true) };
    },
    provide: (/** @type {any} */ field) =>
      Editor.EditorView.decorations.from(field, (/** @type {any} */ value) => value.marks),
  });

  const swatches = Editor.ViewPlugin.define(
    (/** @type {any} */ view) => ({
      marks: swatchesOf(view),
      update(/** @type {any} */ change) {
        const isNamed = change.transactions.some((/** @type {any} */ one) =>
          one.effects.some((/** @type {any} */ effect) => effect.is(coloursCame)),
        );
        if (change.docChanged || change.viewportChanged || isNamed) this.marks = swatchesOf(change.view);
      },
    }),
    { decorations: (/** @type {any} */ plugin) => plugin.marks },
  );

  /** @param {any} view */
  function swatchesOf(view) {
    const found = [];
    for (const { from, to } of view.visibleRanges) {
      const text = view.state.sliceDoc(from, to);
      for (const one of text.matchAll(/(["'])(#?[0-9a-zA-Z]+)\1/g)) {
        const css = colourOf(one[2]);
        const place = from + one.index;
        if (css) found.push(Editor.Decoration.widget({ widget: widgetOf(css, swatch), side: -1 }).range(place));
      }
    }
    return Editor.Decoration.set(found);
  }

  /** Where a line of the text has words. @param {any} doc @param {number} number */
  function placeOf(doc, number) {
    const line = doc.line(Math.min(Math.max(number, 1), doc.lines));
    const from = line.from + (line.text.length - line.text.trimStart().length);
    return { from: Math.min(from, line.to), to: line.to };
  }

  return {
    extensions: [lines, swatches, Editor.lintGutter()],
    /** Light a line, or mark lines as chosen. @param {any} view @param {{lit?: number, chosen?: Set<number>}} what */
    setLines(view, what) {
      view.dispatch({ effects: setLines.of(what) });
    },
    /** Show what stands at lines.
     * @param {any} view @param {{line: number, words: string}[]} errors @param {any[]} findings
     * @param {(finding: any) => void} apply */
    show(view, errors, findings, apply) {
      const { doc } = view.state;
      /** @type {any[]} */
      const told = errors
        .filter(({ line }) => line)
        .map(({ line, words }) => ({ ...placeOf(doc, line), severity: "error", message: words }));
      for (const finding of findings) {
        if (!finding.isHere || !finding.lines.length) continue;
        told.push({
          ...placeOf(doc, finding.lines[0]),
          severity: finding.severity === "problem" ? "warning" : "info",
          message: `${finding.message} Fix: ${finding.fix}`,
          source: finding.rule,
          actions: finding.edit ? [{ name: "Apply", apply: () => apply(finding) }] : [],
        });
      }
      told.sort((a, b) => a.from - b.from || a.to - b.to);
      view.dispatch(Editor.setDiagnostics(view.state, told));
      return told.length;
    },
  };
}

/** The place that an edit of a finding means: its columns count bytes of UTF-8. @param {any} doc
 * @param {[number, number, number, string]} edit */
export function changeOf(doc, [number, column, endColumn, insert]) {
  const line = doc.line(number);
  const bytes = new TextEncoder().encode(line.text);
  const letters = (/** @type {number} */ count) => new TextDecoder().decode(bytes.slice(0, count)).length;
  return { from: line.from + letters(column), to: line.from + letters(endColumn), insert };
}
