// @ts-check
// A dial for any number of the program: it is turned by dragging, by the wheel or by two keys, and the picture
// follows. At its sides stand small pictures of what less and more would make.
//
//   const dial = createDial(host, send, () => version);
//   new EditorView({ extensions: dial.extensions });
//
// While a number is turned the text stays as it is: another number stands in its place on the screen. Only the end
// of a turn is written, at once, so that one turn is one step of the history.

import { pictureBeside } from "../../page/assets/paint.js";
import { made } from "../../page/assets/panel.js";
import { Editor, widgetOf } from "./completing.js";

/** A number that can be turned, as Python writes it. */
const PLAIN = /^(\d[\d_]*(\.\d*)?|\.\d+)$/;
/** Pixels of dragging, and of the wheel, for one step. */
const PULL = 5;
const NOTCH = 40;
/** Milliseconds a number rests after keys or the wheel until it is written, and until small pictures are asked for. */
const WRITTEN_AFTER = 700;
const AROUND_AFTER = 300;
const SMALL_WIDE = 92;

/** What is turned: where it stands, how it is written, and how it is now.
 * @typedef {{from: number, to: number, text: string, now: string}} Turn */

/** The words that stand in place of a number. @type {any} */
const setTurn = Editor.StateEffect.define();

/** @param {string} words */
function turnedWords(words) {
  return made("span", words, "turned");
}

/** @param {HTMLElement} host where the dial appears @param {(wish: object) => void} send
 * @param {() => number} version of the text @param {() => boolean} mayTurn */
export function createDial(host, send, version, mayTurn) {
  const box = made("div", "", "dial");
  const [less, more] = [small("less"), small("more")];
  const knob = made("div", "", "knob");
  const number = made("output");
  const hint = made("small", "Alt , · Alt .");
  box.setAttribute("role", "group");
  knob.append(number, hint);
  box.append(less.button, knob, more.button);
  box.hidden = true;
  host.append(box);

  /** @type {any} */
  let view = null;
  /** The number the dial stands at. @type {Turn | null} */
  let turn = null;
  let [writing, asking] = [0, 0];
  let wheeled = 0;

  const shown = Editor.StateField.define({
    create: () => Editor.Decoration.none,
    update(/** @type {any} */ value, /** @type {any} */ change) {
      for (const effect of change.effects) {
        if (!effect.is(setTurn)) continue;
        const { from, to, now } = effect.value ?? {};
        value = effect.value
          ? Editor.Decoration.set([Editor.Decoration.replace({ widget: widgetOf(now, turnedWords) }).range(from, to)])
          : Editor.Decoration.none;
      }
      return change.docChanged ? Editor.Decoration.none : value;
    },
    provide: (/** @type {any} */ field) => Editor.EditorView.decorations.from(field),
  });

  /** A small picture with what it shows. @param {string} name */
  function small(name) {
    const [button, canvas, words] = [made("button", "", `small ${name}`), made("canvas"), made("span")];
    button.type = "button";
    button.disabled = true; // it keeps its room, so that the knob stays where it is
    button.append(canvas, words);
    button.addEventListener("click", () => {
      if (turn && button.value) settle(button.value);
    });
    return { button, canvas, words };
  }

  /** The number at a place of the text. @param {number} place @returns {Turn | null} */
  function numberAt(place) {
    const tree = Editor.syntaxTree(view.state);
    for (const side of [-1, 1]) {
      const node = tree.resolveInner(place, side);
      if (node.name !== "Number") continue;
      const text = view.state.sliceDoc(node.from, node.to);
      if (PLAIN.test(text)) return { from: node.from, to: node.to, text, now: text };
    }
    return null;
  }

  /** How much one step is: the last decimal that is written. @param {string} text */
  function stepOf(text) {
    return 10 ** -decimalsOf(text);
  }

  /** @param {string} text */
  function decimalsOf(text) {
    return text.includes(".") ? Math.max(text.length - text.indexOf(".") - 1, 1) : 0;
  }

  /** A number as many steps on, with the decimals it has. @param {string} text @param {number} steps */
  function moved(text, steps) {
    const decimals = decimalsOf(text);
    const value = Number(text.replaceAll("_", "")) + steps * stepOf(text);
    return (Math.abs(value) < stepOf(text) / 2 ? 0 : value).toFixed(decimals);
  }

  /** Steps between the small pictures and the number: about a tenth of it. @param {string} text */
  function strideOf(text) {
    return Math.max(1, Math.round(Math.abs(Number(text.replaceAll("_", ""))) / stepOf(text) / 10));
  }

  // ── where it stands ──────────────────────────────────────────────────────────────────────────────────────

  /** @param {Turn | null} wanted */
  function standAt(wanted) {
    if (wanted?.from === turn?.from && wanted?.text === turn?.text) return place();
    if (turn && turn.now !== turn.text) finish();
    turn = wanted;
    box.hidden = !turn;
    if (!turn) return;
    tell();
    place();
    askAround();
  }

  function place() {
    if (!turn || box.hidden) return;
    const at = view.coordsAtPos(turn.from);
    const around = host.getBoundingClientRect();
    if (!at || at.top < around.top || at.bottom > around.bottom) {
      box.style.visibility = "hidden";
      return;
    }
    box.style.visibility = "";
    const left = Math.min(Math.max(at.left - around.left - box.offsetWidth / 2, 4), around.width - box.offsetWidth - 4);
    const isBelow = at.bottom + box.offsetHeight + 8 < around.bottom;
    const top = isBelow ? at.bottom + 4 : at.top - box.offsetHeight - 4;
    box.style.translate = `${left}px ${top - around.top}px`;
  }

  function tell() {
    if (!turn) return;
    number.textContent = turn.now;
    box.setAttribute("aria-label", `Turn the number ${turn.now}`);
  }

  function askAround() {
    clearTimeout(asking);
    for (const { button } of [less, more]) button.disabled = true;
    asking = window.setTimeout(() => {
      if (!turn || !mayTurn()) return;
      const stride = strideOf(turn.now);
      const words = [moved(turn.now, -stride), moved(turn.now, stride)];
      [less.button.value, more.button.value] = words;
      send({ do: "around", version: version(), begin: turn.from, end: turn.to, words });
    }, AROUND_AFTER);
  }

  // ── how it is turned ─────────────────────────────────────────────────────────────────────────────────────

  /** Try another number, which is not written yet. @param {string} now */
  function attempt(now) {
    if (!turn || now === turn.now || !mayTurn()) return;
    turn.now = now;
    tell();
    for (const { button } of [less, more]) button.disabled = true;
    view.dispatch({ effects: setTurn.of(turn) });
    send({ do: "turn", version: version(), begin: turn.from, end: turn.to, words: now });
  }

  /** Write what it was turned to, as one step of the history. */
  function finish() {
    clearTimeout(writing);
    if (!turn) return;
    const { from, to, text, now } = turn;
    if (now === text) return;
    turn = { from, to: from + now.length, text: now, now };
    view.dispatch({
      changes: { from, to, insert: now },
      effects: setTurn.of(null),
      annotations: Editor.isolateHistory.of("full"),
      userEvent: "input.turn",
    });
    askAround();
  }

  /** @param {string} now */
  function settle(now) {
    attempt(now);
    finish();
    view.focus();
  }

  function finishSoon() {
    clearTimeout(writing);
    writing = window.setTimeout(finish, WRITTEN_AFTER);
  }

  /** Take the turn back. @returns {boolean} whether there was one */
  function cancel() {
    clearTimeout(writing);
    if (!turn || turn.now === turn.text) return false;
    turn.now = turn.text;
    tell();
    view.dispatch({ effects: setTurn.of(null) });
    send({ do: "turn", version: version(), words: null });
    return true;
  }

  /** @param {number} steps */
  function turnBy(steps) {
    if (!turn || !mayTurn()) return false;
    attempt(moved(turn.now, steps));
    return true;
  }

  box.addEventListener("mousedown", (event) => event.preventDefault()); // the editor keeps the focus
  knob.addEventListener("pointerdown", (event) => {
    knob.setPointerCapture(event.pointerId);
    let [last, pulled] = [event.clientX, 0];
    const pull = (/** @type {PointerEvent} */ moving) => {
      pulled += moving.clientX - last;
      last = moving.clientX;
      const steps = Math.trunc(pulled / PULL);
      pulled -= steps * PULL;
      if (steps) turnBy(moving.shiftKey ? 10 * steps : steps);
    };
    const end = () => {
      window.removeEventListener("pointermove", pull);
      for (const name of ["pointerup", "pointercancel"]) window.removeEventListener(name, end);
      finish();
    };
    // The knob moves away beneath the mouse as its neighbours come and go.
    window.addEventListener("pointermove", pull);
    for (const name of ["pointerup", "pointercancel"]) window.addEventListener(name, end);
  });
  box.addEventListener("wheel", (event) => {
    event.preventDefault();
    wheeled -= event.deltaY;
    const steps = Math.trunc(wheeled / NOTCH);
    wheeled -= steps * NOTCH;
    if (steps && turnBy(event.shiftKey ? 10 * steps : steps)) finishSoon();
  }, { passive: false });

  /** @param {number} steps */
  const byKey = (steps) => () => {
    if (!turnBy(steps)) return false;
    finishSoon();
    return true;
  };
  const keys = Editor.Prec.highest(
    Editor.keymap.of([
      { key: "Alt-,", run: byKey(-1) },
      { key: "Alt-.", run: byKey(1) },
      { key: "Escape", run: cancel },
    ]),
  );

  let resting = 0;
  const watch = Editor.EditorView.updateListener.of((/** @type {any} */ change) => {
    if (change.docChanged && turn && turn.now !== turn.text) turn.now = turn.text; // typed over: no turn any more
    const { main } = change.state.selection;
    if (change.docChanged || change.selectionSet || change.focusChanged) {
      // Measured after the update is done.
      requestAnimationFrame(() => standAt(main.empty && view.hasFocus ? numberAt(main.head) : null));
    }
    if (change.geometryChanged) requestAnimationFrame(place);
  });
  const pointing = Editor.EditorView.domEventHandlers({
    mousemove(/** @type {MouseEvent} */ event) {
      clearTimeout(resting);
      const at = view.posAtCoords({ x: event.clientX, y: event.clientY });
      if (at === null || (turn && turn.now !== turn.text)) return;
      resting = window.setTimeout(() => {
        const found = numberAt(at);
        if (found) standAt(found);
      }, 400);
    },
    mouseleave: () => clearTimeout(resting),
    scroll: () => place(),
  });

  return {
    extensions: [keys, shown, watch, pointing],
    /** @param {any} wanted */
    use(wanted) {
      view = wanted;
    },
    /** A small picture that was asked for. @param {string} words @param {any} drawing
     * @param {any} around the drawing that is seen */
    take(words, drawing, around) {
      for (const one of [less, more]) {
        if (!turn || one.button.value !== words) continue;
        pictureBeside(one.canvas, drawing, SMALL_WIDE, around);
        one.words.textContent = words;
        one.button.disabled = false;
        one.button.setAttribute("aria-label", `Take ${words}`);
      }
      place();
    },
  };
}
