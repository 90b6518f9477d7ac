// @ts-check
// Completion and explanations while one writes: names of nibs, sheets, dice, motifs and of the module, what a call
// takes, and colours. The words come from the docstrings; the server sends them.
//
//   const completing = createCompleting();
//   completing.take(vocabulary);
//   new EditorView({ extensions: completing.extensions });

/** @typedef {{name: string, signature: string, about: string, takes: string[], isCall: boolean}} Entry */

/** CodeMirror, which a script before this one built. @type {any} */
export const Editor = /** @type {any} */ (window).OvloEditor;

/** How far before a place it is looked for the call it is in, in characters. */
const CALL_REACH = 500;

export function createCompleting() {
  /** @type {{kinds: Record<string, Entry[]>, makers: Record<string, string>, colours: [string, string][]}} */
  let words = { kinds: {}, makers: {}, colours: [] };
  /** @type {Record<string, string>} */
  let colours = {};

  /** What a name in the text is: by what it is made with, by the function that takes it first, or by itself.
   * @param {string} name @param {string} text @returns {string} "" where that is not known */
  function kindOf(name, text) {
    const last = name.split(".").at(-1) ?? "";
    if (last in words.kinds) return last;
    const makers = Object.keys(words.makers).join("|");
    const made = new RegExp(`\\b${last}\\s*=\\s*[\\w.]*?\\b(${makers})\\(`).exec(text);
    if (made) return words.makers[made[1]];
    // The first parameter of a drawing is its nib.
    if (new RegExp(`@(?:ovlo\\.)?drawing\\b[^\\n]*\\n\\s*def \\w+\\(\\s*${last}\\b`).test(text)) return "nib";
    if (new RegExp(`@(?:ovlo\\.)?drawing\\b[^\\n]*\\n\\s*def ${last}\\(`).test(text)) return "drawing";
    if (new RegExp(`\\bas ${last}\\b`).test(text) && /\bovlo as\b/.test(text)) return "ovlo";
    return "";
  }

  /** @param {string} kind @param {string} name */
  function entryOf(kind, name) {
    const lists = kind ? [words.kinds[kind] ?? []] : [words.kinds.nib ?? [], words.kinds.ovlo ?? []];
    return lists.flat().find((one) => one.name === name);
  }

  /** The entry of a dotted name of the text. @param {string} chain @param {string} text */
  function known(chain, text) {
    const parts = chain.split(".");
    const name = parts.pop() ?? "";
    return entryOf(parts.length ? kindOf(parts.join("."), text) || "nib" : "ovlo", name);
  }

  /** @param {Entry} entry */
  function optionOf(entry) {
    return {
      label: entry.name,
      detail: entry.signature.slice(entry.name.length),
      type: entry.isCall ? "method" : "property",
      info: () => explanation(entry),
      apply: entry.isCall ? applyCall(entry) : entry.name,
    };
  }

  /** Write a call, and go between its brackets if it takes anything. @param {Entry} entry */
  function applyCall(entry) {
    return (/** @type {any} */ view, /** @type {any} */ _, /** @type {number} */ from, /** @type {number} */ to) => {
      const hasBracket = view.state.sliceDoc(to, to + 1) === "(";
      const insert = entry.name + (hasBracket ? "" : "()");
      const inside = from + entry.name.length + 1;
      view.dispatch({
        changes: { from, to, insert },
        selection: { anchor: entry.takes.length ? inside : from + entry.name.length + (hasBracket ? 0 : 2) },
        userEvent: "input.complete",
      });
    };
  }

  /** @param {Entry} entry */
  function explanation(entry) {
    const box = document.createElement("div");
    box.className = "explanation";
    const signature = document.createElement("code");
    signature.textContent = entry.signature;
    const about = document.createElement("p");
    about.textContent = entry.about;
    box.append(signature, about);
    return box;
  }

  /** The call whose brackets a place is in, as a dotted name; "" outside of one. @param {string} before */
  function callAround(before) {
    let depth = 0;
    for (let i = before.length - 1; i >= Math.max(0, before.length - CALL_REACH); i--) {
      if (")]}".includes(before[i])) depth += 1;
      else if ("([{".includes(before[i]) && depth-- === 0) return /[\w.]+$/.exec(before.slice(0, i))?.[0] ?? "";
    }
    return "";
  }

  /** @param {any} context */
  function complete(context) {
    const text = context.state.doc.toString();
    const node = Editor.syntaxTree(context.state).resolveInner(context.pos, -1);
    if (node.name === "Comment") return null;
    if (node.name === "String" || node.name === "FormatString") return completeColour(context);
    const typed = context.matchBefore(/[\w.]+/);
    if (!typed && !context.explicit) return null;
    const chain = typed?.text ?? "";
    const at = chain.lastIndexOf(".");
    if (at >= 0) {
      const kind = kindOf(chain.slice(0, at), text);
      if (!words.kinds[kind]) return null;
      return { from: typed.from + at + 1, options: words.kinds[kind].map(optionOf), validFor: /^\w*$/ };
    }
    const call = callAround(text.slice(0, typed?.from ?? context.pos));
    const taken = call ? (known(call, text)?.takes ?? []) : [];
    const options = [
      ...taken.map((name, i) => ({ label: `${name}=`, type: "variable", boost: 3 - i / taken.length })),
      ...(words.kinds.ovlo ?? []).map(optionOf),
      ...Object.keys(words.kinds).filter((kind) => new RegExp(`\\b${kind}\\b`).test(text)).map((label) => ({ label, type: "variable" })),
      ...namesIn(text).map((label) => ({ label, type: "variable", boost: 1 })),
    ];
    return { from: typed?.from ?? context.pos, options, validFor: /^\w*$/ };
  }

  /** @param {any} context */
  function completeColour(context) {
    const typed = context.matchBefore(/["'][a-z]*/);
    if (!typed) return null;
    const options = words.colours.map(([label, css]) => ({ label, type: "text", css }));
    return { from: typed.from + 1, options, validFor: /^[a-z]*$/ };
  }

  /** Names that the text gives itself. @param {string} text */
  function namesIn(text) {
    const found = text.matchAll(/\bdef (\w+)|\bfor (\w+) in|^\s*(\w+)\s*=[^=]|[(,]\s*(\w+)\s*(?::[^,)=]*)?=/gm);
    return [...new Set([...found].flatMap((one) => one.slice(1).filter(Boolean)))];
  }

  /** @param {any} view @param {number} place */
  function explain(view, place) {
    const line = view.state.doc.lineAt(place);
    for (const found of line.text.matchAll(/[A-Za-z_][\w.]*/g)) {
      const [from, to] = [line.from + found.index, line.from + found.index + found[0].length];
      if (place < from || place > to) continue;
      const dot = line.text.indexOf(".", place - line.from);
      const chain = dot >= 0 && dot < to - line.from ? found[0].slice(0, dot - found.index) : found[0];
      const entry = known(chain, view.state.doc.toString());
      if (!entry?.about) return null;
      const begin = from + chain.lastIndexOf(".") + 1;
      return { pos: begin, end: from + chain.length, above: true, create: () => ({ dom: explanation(entry) }) };
    }
    return null;
  }

  const swatchOfOption = {
    position: 20,
    render: (/** @type {any} */ option) => (option.css ? swatch(option.css) : null),
  };

  return {
    /** @param {any} wanted */
    take(wanted) {
      words = wanted;
      colours = Object.fromEntries(wanted.colours);
    },
    /** The colour a word of the text is; "" where it is none. @param {string} word */
    colour: (word) => colours[word] ?? (/^#([0-9a-f]{3,4}|[0-9a-f]{6}|[0-9a-f]{8})$/i.test(word) ? word : ""),
    extensions: [
      Editor.autocompletion({ override: [complete], icons: false, addToOptions: [swatchOfOption] }),
      Editor.hoverTooltip(explain),
    ],
  };
}

/** An element in the text, made anew only when its words are others. @param {string} words
 * @param {(words: string) => HTMLElement} make */
export function widgetOf(words, make) {
  return new WordsWidget(words, make);
}

class WordsWidget extends Editor.WidgetType {
  /** @param {string} words @param {(words: string) => HTMLElement} make */
  constructor(words, make) {
    super();
    [this.words, this.make] = [words, make];
  }
  /** @param {any} other */
  eq(other) {
    return other.words === this.words && other.make === this.make;
  }
  toDOM() {
    return this.make(this.words);
  }
}

/** A small field of a colour. @param {string} css */
export function swatch(css) {
  const field = document.createElement("span");
  field.className = "swatch";
  field.style.backgroundColor = css;
  return field;
}
