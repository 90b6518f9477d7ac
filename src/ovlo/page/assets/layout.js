// @ts-check
// Where the panels are: tabs to choose among them, and dividers that move and are remembered.
//
//   const layout = createLayout();
//   layout.offer("explore", true);
//   layout.choose("explore");

import { part } from "./panel.js";

const PANELS = ["program", "explore", "findings", "tree", "printed"];
const NARROW = "(max-width: 52rem) and (orientation: portrait), (max-width: 30rem)";

export function createLayout() {
  const narrow = matchMedia(NARROW);
  /** Those that have something to show. */
  const offered = new Set(["program", "findings", "tree"]);
  let chosen = "findings";

  /** @param {string} name */
  function panelOf(name) {
    return part(name === "explore" ? name : `${name}-part`);
  }

  /** Panels that are chosen by their tab; the program stands above them where there is room. */
  function tabbed() {
    return PANELS.filter((name) => offered.has(name) && (name !== "program" || narrow.matches));
  }

  function show() {
    const names = tabbed();
    if (!names.includes(chosen)) chosen = names.includes("explore") ? "explore" : (names[0] ?? "");
    for (const name of PANELS) {
      const tab = part(`tab-${name}`);
      tab.hidden = !names.includes(name);
      tab.setAttribute("aria-selected", String(name === chosen));
      tab.tabIndex = name === chosen ? 0 : -1;
      panelOf(name).hidden = name === "program" && !narrow.matches ? !offered.has(name) : name !== chosen;
    }
    part("divider-rows").hidden = !offered.has("program");
  }

  /** @param {string} name */
  function choose(name) {
    if (tabbed().includes(name)) chosen = name;
    show();
  }

  for (const name of PANELS) {
    part(`tab-${name}`).addEventListener("click", () => choose(name));
  }
  // The keys of tabs, as ARIA's authoring practices have them.
  part("tabs").addEventListener("keydown", (event) => {
    const names = tabbed();
    const at = names.indexOf(chosen);
    const next = { ArrowRight: at + 1, ArrowLeft: at - 1, Home: 0, End: names.length - 1 }[event.key];
    if (next === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    choose(names[(next + names.length) % names.length]);
    part(`tab-${chosen}`).focus();
  });
  narrow.addEventListener("change", show);

  movable(part("divider"), "--panels", ({ clientX }) => 100 - (100 * clientX) / innerWidth);
  movable(part("divider-rows"), "--program", ({ clientY }) => (100 * clientY) / innerHeight);
  show();

  return {
    choose,
    /** Choose a panel, but never in place of the program. @param {string} name */
    prefer(name) {
      if (chosen !== "program") choose(name);
    },
    /** Whether a panel has something to show. @param {string} name @param {boolean} isThere */
    offer(name, isThere) {
      if (isThere === offered.has(name)) return;
      if (isThere) offered.add(name);
      else offered.delete(name);
      show();
    },
    /** Write how many there are on a tab. @param {string} name @param {string} words */
    label(name, words) {
      part(`tab-${name}`).textContent = words;
    },
  };
}

/** A divider that is moved with the mouse or the arrow keys; it stays where it was put in this browser.
 * @param {HTMLElement} divider @param {string} name of the length in per cent
 * @param {(event: PointerEvent) => number} read */
function movable(divider, name, read) {
  const low = Number(divider.getAttribute("aria-valuemin"));
  const high = Number(divider.getAttribute("aria-valuemax"));

  /** @param {number} wanted */
  function put(wanted) {
    const value = Math.min(Math.max(wanted, low), high);
    divider.setAttribute("aria-valuenow", String(Math.round(value)));
    document.body.style.setProperty(name, `${value}%`);
    remember(name, String(value));
  }

  const before = Number(remembered(name));
  if (before) put(before);
  divider.addEventListener("pointerdown", (event) => {
    divider.setPointerCapture(event.pointerId);
    event.preventDefault();
  });
  divider.addEventListener("pointermove", (event) => {
    if (divider.hasPointerCapture(event.pointerId)) put(read(event));
  });
  divider.addEventListener("keydown", (event) => {
    const isAcross = divider.getAttribute("aria-orientation") === "vertical";
    const [more, less] = isAcross ? ["ArrowLeft", "ArrowRight"] : ["ArrowDown", "ArrowUp"];
    const by = { [more]: 2, [less]: -2 }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    put(Number(divider.getAttribute("aria-valuenow")) + by);
  });
}

/** What this browser keeps for the page; a page opened from disk may not be allowed to.
 * @param {string} name @param {string} value */
function remember(name, value) {
  try {
    localStorage.setItem(`ovlo${name}`, value);
  } catch {
    // It begins as it is next time.
  }
}

/** @param {string} name */
function remembered(name) {
  try {
    return localStorage.getItem(`ovlo${name}`);
  } catch {
    return null;
  }
}
