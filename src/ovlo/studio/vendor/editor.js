// What the studio uses of CodeMirror, as one object.
export { EditorState, Compartment, StateEffect, StateField, Transaction, Prec, Annotation } from "@codemirror/state";
export {
  EditorView, Decoration, WidgetType, ViewPlugin, keymap, lineNumbers, drawSelection, dropCursor, hoverTooltip,
  highlightActiveLine, highlightActiveLineGutter, highlightSpecialChars, placeholder, tooltips, gutters, gutter, GutterMarker,
} from "@codemirror/view";
export { defaultKeymap, history, historyKeymap, indentWithTab, isolateHistory, undo, redo } from "@codemirror/commands";
export { bracketMatching, indentOnInput, indentUnit, syntaxHighlighting, HighlightStyle, syntaxTree, LanguageSupport } from "@codemirror/language";
export { pythonLanguage } from "@codemirror/lang-python";
export { tags } from "@lezer/highlight";
export { setDiagnostics, lintGutter, lintKeymap } from "@codemirror/lint";
export { autocompletion, completionKeymap, closeBrackets, closeBracketsKeymap, startCompletion } from "@codemirror/autocomplete";
export { search, searchKeymap, highlightSelectionMatches } from "@codemirror/search";
