// @ts-check
// The program's panel as an editor: what is typed goes to the server, which draws it; what the server knows of the
// text stands at its lines.
//
//   const writing = createWriting(player, explorer);

import { made, part } from "../../page/assets/panel.js";
import { Editor, createCompleting } from "./completing.js";
import { changeOf, coloursCame, createMarking } from "./marking.js";
import { createDial } from "./dial.js";

/** Characters that are sent of a change at a time. */
const MOST_SENT = 20_000;

/** Keys of the editor that are listed with those of the page. */
const SHORTCUTS = [
  ["F2", "Go to the program"],
  ["Ctrl+S", "Save the program"],
  ["Ctrl+Enter", "Draw the program now"],
  ["Alt+, Alt+.", "Turn the number at the caret down, up; Esc takes it back"],
  ["Ctrl+Space", "Complete"],
  ["F8", "Next mark in the program, with its fix"],
  ["Ctrl+F", "Search in the program"],
  ["Esc Tab", "Leave the editor"],
];

/** Looks of the editor; it stands in a tree of its own, so that the page's policy need allow no style for it. */
const LOOK = {
  "&": { height: "100%", color: "var(--ink)", backgroundColor: "var(--panel)", fontSize: "0.93rem" },
  "&.cm-focused": { outline: "none" },
  ".cm-scroller": { fontFamily: "ui-monospace, monospace", lineHeight: "1.6", overflow: "auto" },
  ".cm-content": { caretColor: "var(--ink)", minHeight: "100%" },
  ".cm-cursor": { borderLeftColor: "var(--ink)" },
  ".cm-gutters": { color: "var(--soft)", backgroundColor: "var(--panel)", border: "none" },
  ".cm-lineNumbers .cm-gutterElement": { cursor: "pointer", padding: "0 0.6rem 0 0.4rem" },
  ".cm-activeLine": { backgroundColor: "transparent" },
  ".cm-activeLineGutter": { backgroundColor: "transparent", color: "var(--ink)" },
  "&.cm-focused .cm-selectionBackground, .cm-selectionBackground": { background: "var(--selected) !important" },
  ".cm-line.lit": { backgroundColor: "var(--lit)" },
  ".cm-line.chosen": { boxShadow: "inset 3px 0 var(--strong)" },
  ".cm-tooltip": { color: "var(--ink)", backgroundColor: "var(--panel)", border: "1px solid var(--line)", borderRadius: "0.35rem" },
  ".cm-tooltip-autocomplete ul li[aria-selected]": { backgroundColor: "var(--strong)", color: "var(--panel)" },
  ".cm-completionDetail": { color: "inherit", opacity: "0.75", fontStyle: "normal" },
  ".cm-tooltip.cm-tooltip-autocomplete > ul": { fontFamily: "ui-monospace, monospace", maxWidth: "min(30rem, 34vw)" },
  ".cm-tooltip.cm-tooltip-autocomplete > ul > li": { overflow: "hidden", textOverflow: "ellipsis" },
  ".explanation": { padding: "0.4rem 0.6rem", maxWidth: "26rem", fontFamily: "system-ui, sans-serif", whiteSpace: "normal" },
  ".explanation p": { margin: "0.2rem 0 0" },
  ".explanation code": { fontFamily: "ui-monospace, monospace", color: "var(--word)" },
  ".cm-tooltip .cm-tooltip-arrow": { display: "none" },
  ".cm-diagnostic": { padding: "0.3rem 0.6rem", maxWidth: "30rem", fontFamily: "system-ui, sans-serif", whiteSpace: "pre-wrap" },
  ".cm-diagnosticAction": { backgroundColor: "var(--strong)", color: "var(--panel)", padding: "0.15rem 0.6rem", borderRadius: "0.3rem" },
  ".cm-panels": { color: "var(--ink)", backgroundColor: "var(--ground)" },
  ".cm-panels .cm-button": { color: "var(--ink)", backgroundImage: "none", backgroundColor: "var(--panel)", border: "1px solid var(--line)" },
  ".cm-textfield": { color: "var(--ink)", backgroundColor: "var(--panel)", border: "1px solid var(--line)" },
  ".cm-searchMatch": { backgroundColor: "var(--lit)" },
  ".cm-matchingBracket, &.cm-focused .cm-matchingBracket": { backgroundColor: "var(--lit)" },
  ".cm-placeholder": { color: "var(--soft)" },
  ".swatch": { display: "inline-block", width: "0.8em", height: "0.8em", margin: "0 0.25em 0 0.1em", verticalAlign: "-0.05em", border: "1px solid var(--soft)", borderRadius: "2px" },
  ".turned": { backgroundColor: "var(--strong)", color: "var(--panel)", borderRadius: "2px" },
};

/** @param {ReturnType<typeof import("../../page/assets/player.js").createPlayer>} player
 * @param {ReturnType<typeof import("../../page/assets/explorer.js").createExplorer>} explorer */
export function createWriting(player, explorer) {
  const panel = part("program-part");
  const bar = made("div", "", "bar");
  const name = made("strong", "", "file");
  const state = made("span", "", "state");
  const saveText = button("Save", "Save (Ctrl+S)", () => explorer.send({ do: "store" }));
  const drawNow = button("Draw", "Draw now (Ctrl+Enter)", draw);
  const note = made("p", "", "note");
  note.setAttribute("role", "status");
  const conflict = made("section", "", "conflict");
  const host = made("div", "", "editor");
  const surface = made("div", "", "surface");
  host.append(surface);
  bar.append(name, state, drawNow, saveText);
  part("program").remove();
  panel.append(bar, note, conflict, host);
  conflict.hidden = note.hidden = true;

  let version = 0;
  /** The version that is drawn. */
  let drawnVersion = -1;
  /** Whether what is dispatched comes from the server. */
  let isHeard = false;
  let isUnsaved = false;
  let shownDifference = "";
  let isFirst = true;
  /** @type {any} */
  let typing = {};
  /** @type {{line: number, words: string, brief: string, textVersion: number}} */
  let trouble = { line: 0, words: "", brief: "", textVersion: 0 };
  /** @type {any[]} */
  let findings = [];
  let findingsVersion = -1;
  const completing = createCompleting();
  const marking = createMarking(completing.colour);
  const dial = createDial(host, (wish) => explorer.send(wish), () => version, () => !typing.readOnly);

  /** @param {string} words @param {string} title @param {() => void} act */
  function button(words, title, act) {
    const element = made("button", words);
    element.type = "button";
    element.title = title;
    element.addEventListener("click", act);
    return element;
  }

  function goToProgram() {
    player.layout.choose("program");
    view.focus();
  }

  function draw() {
    explorer.send({ do: "draw" });
    return true;
  }

  function store() {
    explorer.send({ do: "store" });
    return true;
  }

  // ── the editor ───────────────────────────────────────────────────────────────────────────────────────────

  const root = surface.attachShadow({ mode: "open" });
  const readOnly = new Editor.Compartment();
  const { EditorView, tags } = Editor;
  const colours = Editor.HighlightStyle.define([
    { tag: [tags.keyword, tags.operatorKeyword, tags.controlKeyword, tags.definitionKeyword, tags.moduleKeyword, tags.self], color: "var(--word)" },
    { tag: [tags.string, tags.special(tags.string)], color: "var(--string)" },
    { tag: [tags.number, tags.bool, tags.null], color: "var(--number)" },
    { tag: [tags.comment], color: "var(--soft)", fontStyle: "italic" },
    { tag: [tags.function(tags.definition(tags.variableName)), tags.definition(tags.className)], fontWeight: "600" },
  ]);
  const own = Editor.keymap.of([
    { key: "Mod-s", run: store, preventDefault: true },
    { key: "Mod-Enter", run: draw },
    ...Editor.closeBracketsKeymap,
    ...Editor.completionKeymap,
    ...Editor.searchKeymap,
    ...Editor.lintKeymap,
    ...Editor.historyKeymap,
    ...Editor.defaultKeymap,
    Editor.indentWithTab,
  ]);
  const gutter = Editor.lineNumbers({
    domEventHandlers: {
      mousedown(/** @type {any} */ view, /** @type {any} */ line) {
        showLine(view.state.doc.lineAt(line.from).number);
        return false;
      },
    },
  });
  const view = new EditorView({
    root,
    parent: root,
    state: Editor.EditorState.create({
      doc: "",
      extensions: [
        Editor.Prec.highest(own),
        gutter,
        Editor.history(),
        Editor.drawSelection(),
        Editor.dropCursor(),
        Editor.highlightSpecialChars(),
        Editor.bracketMatching(),
        Editor.closeBrackets(),
        Editor.indentOnInput(),
        Editor.indentUnit.of("    "),
        Editor.highlightActiveLine(),
        Editor.highlightActiveLineGutter(),
        Editor.search({ top: true }),
        Editor.highlightSelectionMatches(),
        new Editor.LanguageSupport(Editor.pythonLanguage),
        Editor.syntaxHighlighting(colours),
        Editor.placeholder("Write a program here, such as\n\nfrom ovlo import drawing\n\n@drawing()\ndef kite(nib):\n    nib.forward(60)"),
        EditorView.theme(LOOK),
        EditorView.contentAttributes.of({ "aria-label": "Program", spellcheck: "false", tabindex: "0" }),
        readOnly.of(Editor.EditorState.readOnly.of(false)),
        EditorView.updateListener.of(changed),
        completing.extensions,
        marking.extensions,
        dial.extensions,
      ],
    }),
  });
  dial.use(view);

  /** @param {any} change */
  function changed(change) {
    if (change.docChanged && !isHeard) {
      // From the last to the first, so that places are those of the text as it stands over there.
      /** @type {[number, number, string][]} */
      const pieces = [];
      change.changes.iterChanges((/** @type {number} */ from, /** @type {number} */ to, /** @type {number} */ _, /** @type {number} */ __, /** @type {any} */ words) =>
        pieces.unshift([from, to, words.toString()]),
      );
      for (const [from, to, words] of pieces) sendChange(from, to, words);
      isUnsaved = true;
      tell();
    }
    if (change.selectionSet && !change.docChanged) selected(change.state);
    const isClicked = change.transactions.some((/** @type {any} */ one) => one.isUserEvent("select.pointer"));
    if (isClicked && change.state.selection.main.empty && version === drawnVersion) {
      player.showLine(change.state.doc.lineAt(change.state.selection.main.head).number);
    }
  }

  /** @param {number} begin @param {number} end @param {string} words */
  function sendChange(begin, end, words) {
    let rest = words;
    do {
      const piece = rest.slice(0, MOST_SENT);
      explorer.send({ do: "edit", version, begin, end, words: piece });
      version += 1;
      rest = rest.slice(MOST_SENT);
      begin = end = begin + piece.length;
    } while (rest);
  }

  let hasSelected = false;
  /** Several lines selected light all they drew. @param {any} editor */
  function selected({ selection, doc }) {
    const [first, last] = [selection.main.from, selection.main.to].map((place) => doc.lineAt(place).number);
    if (version !== drawnVersion) return;
    if (last > first) {
      player.showLines(new Set(Array.from({ length: last - first + 1 }, (_, i) => first + i)));
      hasSelected = true;
    } else if (hasSelected) {
      player.showAll();
      hasSelected = false;
    }
  }

  let alone = 0;
  /** Show what a line drew; a second click shows all again. @param {number} line */
  function showLine(line) {
    if (version !== drawnVersion) return;
    if (alone === line) player.showAll();
    else player.showLines(new Set([line]));
    alone = alone === line ? 0 : line;
  }

  player.useProgram({
    take: () => {},
    light(line) {
      if (version === drawnVersion) marking.setLines(view, { lit: line });
    },
    choose: (lines) => marking.setLines(view, { chosen: lines }),
  });

  // ── what the server says ─────────────────────────────────────────────────────────────────────────────────

  /** @param {any} change */
  function hear(change) {
    isHeard = true;
    view.dispatch(change);
    isHeard = false;
  }

  explorer.listen({
    text(told) {
      version = told.version;
      const before = view.state.doc.toString();
      if (before !== told.text) hear({ changes: differenceOf(before, told.text) });
      hear({ effects: readOnly.reconfigure(Editor.EditorState.readOnly.of(told.readOnly)) });
      name.textContent = told.file;
      take(told);
      if (isFirst && !told.text) goToProgram();
      isFirst = false;
    },
    edit({ begin, end, words, version: now }) {
      version = now;
      hear({ changes: { from: begin, to: end, insert: words }, annotations: Editor.Transaction.addToHistory.of(false) });
    },
    typing: take,
    trouble(told) {
      trouble = told;
      mark();
    },
    findings(told) {
      [findings, findingsVersion] = [told.findings, told.textVersion];
      mark();
      if (findings.length) announce(`${findings.length} ${findings.length === 1 ? "finding" : "findings"}.`);
    },
    vocabulary(told) {
      completing.take(told);
      hear({ effects: coloursCame.of(null) });
    },
    shown(drawing) {
      if (drawing.live.turned) return;
      drawnVersion = drawing.live.version;
      tell();
      mark();
    },
    small: ({ head, drawing }) => dial.take(head.turned, drawing, player.drawing()),
    lost({ forGood }) {
      if (!forGood || !isUnsaved) return;
      const text = view.state.doc.toString();
      const copy = button("Copy the text", "", () => navigator.clipboard.writeText(text));
      const download = button("Download the text", "", () => player.sharing.handOver(name.textContent || "kite.py", new Blob([text])));
      part("gone").append(made("p", "The program has text that is not saved."), copy, download);
    },
  });

  /** How the text stands to the file. @param {any} told */
  function take(told) {
    typing = { ...typing, ...told };
    isUnsaved = told.isUnsaved;
    const { line, words, isUnfinished } = told.waiting;
    const isNew = typing.isThere === false ? `${name.textContent} does not exist yet; it is made when you save.` : "";
    note.textContent = told.trouble || (words && !isUnfinished ? words : isNew);
    note.hidden = !note.textContent;
    conflict.hidden = !told.difference;
    if (told.difference && told.difference !== shownDifference) {
      shownDifference = told.difference;
      const lines = made("pre", told.difference);
      lines.tabIndex = 0;
      conflict.replaceChildren(
        made("p", "Another program changed this file while text was typed here. Both are kept; choose one:"),
        button("Keep what is typed here", "", () => explorer.send({ do: "settle", mine: true })),
        button("Take the file's text", "", () => explorer.send({ do: "settle", mine: false })),
        lines,
      );
    }
    if (line && isUnfinished) announce(`Line ${line}: ${words}`);
    tell();
    mark();
  }

  function tell() {
    state.textContent = typing.readOnly ? "read only" : isUnsaved ? "not saved" : typing.isThere === false ? "new" : "saved";
    saveText.disabled = typing.readOnly || !isUnsaved;
    document.title = `${isUnsaved ? "● " : ""}${document.title.replace(/^● /, "")}`;
  }

  /** Show at their lines what is known of the text as it stands. */
  function mark() {
    const errors = [];
    const { line, words, isUnfinished } = typing.waiting ?? {};
    if (line && isUnfinished) errors.push({ line, words });
    else if (trouble.words && trouble.textVersion === version) {
      errors.push({ line: trouble.line, words: (trouble.brief || trouble.words).replace(/^line \d+: /, "") });
    }
    marking.show(view, errors, findingsVersion === version ? findings : [], apply);
  }

  /** Write what a finding proposes, as one step of the history. @param {any} finding */
  function apply(finding) {
    view.dispatch({ changes: changeOf(view.state.doc, finding.edit), annotations: Editor.isolateHistory.of("full"), userEvent: "input.fix" });
    draw();
    view.focus();
  }

  /** @param {string} words */
  function announce(words) {
    view.dispatch({ effects: EditorView.announce.of(words) });
  }

  const listed = part("shortcuts").querySelector("dl");
  for (const [keys, words] of SHORTCUTS) listed?.append(made("dt", keys), made("dd", words));
  document.addEventListener("keydown", (event) => {
    if (event.defaultPrevented || document.querySelector("dialog[open]")) return;
    if (event.key === "F2") goToProgram();
    else if (!(event.ctrlKey || event.metaKey)) return;
    else if (event.key === "s") store();
    else if (event.key === "Enter") draw();
    else return;
    event.preventDefault();
  });

  return {
    script: {
      /** The editor, for scripts. */
      get editor() {
        return view;
      },
    },
  };
}

/** The one part in which two texts differ, as a change. @param {string} before @param {string} after */
function differenceOf(before, after) {
  let from = 0;
  const most = Math.min(before.length, after.length);
  while (from < most && before[from] === after[from]) from += 1;
  let end = 0;
  while (end < most - from && before[before.length - 1 - end] === after[after.length - 1 - end]) end += 1;
  return { from, to: before.length - end, insert: after.slice(from, after.length - end) };
}
