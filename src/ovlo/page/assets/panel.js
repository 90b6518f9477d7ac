// @ts-check
// What stands beside the picture: the program with its lines, the tree of its functions, and the findings.
//
//   const program = createProgram(element, (line) => show(line));
//   program.take(drawing.source, drawing.steps.lines);
//   program.light(7);

/** @template {HTMLElement} T @param {string} id @returns {T} */
export function part(id) {
  return /** @type {T} */ (document.getElementById(id));
}

/** @template {keyof HTMLElementTagNameMap} K @param {K} tag @param {string} words @param {string} name
 * @returns {HTMLElementTagNameMap[K]} */
export function made(tag, words = "", name = "") {
  const element = document.createElement(tag);
  element.textContent = words;
  if (name) element.className = name;
  return element;
}

/** The program, a line of it a button that lights what it drew.
 * @param {HTMLElement} list @param {(line: number) => void} chosen */
export function createProgram(list, chosen) {
  /** @type {HTMLElement[]} */
  let rows = [];
  /** @type {HTMLElement | null} */
  let lit = null;
  /** Of the program that is shown. @type {number | null} */
  let known = null;
  let marked = "";

  /** A line of the program. @param {[string, string][]} pieces @param {number} number @param {boolean} hasDrawn */
  function rowOf(pieces, number, hasDrawn) {
    const row = made("li");
    const holder = hasDrawn ? made("button", "", "line") : made("span", "", "line");
    for (const [kind, words] of pieces) holder.append(made("span", words, kind));
    if (!pieces.length) holder.append("\u200b");
    if (holder instanceof HTMLButtonElement) {
      holder.type = "button";
      holder.title = `Show what line ${number} drew`;
      holder.addEventListener("click", () => chosen(number));
    }
    row.append(holder);
    return row;
  }

  return {
    /** @param {{file: string, lines: [string, string][][], digest: number} | null} source
     * @param {Int32Array | null} lines those the steps came from */
    take(source, lines) {
      const drawing = new Set(lines ?? []);
      const marks = [...drawing].join();
      const digest = source?.digest ?? null;
      if (digest === known && marks === marked) return;
      [known, marked, lit] = [digest, marks, null];
      rows = (source?.lines ?? []).map((pieces, i) => rowOf(pieces, i + 1, drawing.has(i + 1)));
      const top = list.scrollTop;
      list.replaceChildren(...rows);
      list.scrollTop = top;
    },
    /** Light the line that draws. @param {number} line */
    light(line) {
      const row = rows[line - 1] ?? null;
      if (row === lit) return;
      lit?.classList.remove("lit");
      row?.classList.add("lit");
      lit = row;
      if (!row) return;
      // Only the list itself is scrolled, never the page.
      const [top, bottom] = [row.offsetTop, row.offsetTop + row.offsetHeight];
      if (top < list.scrollTop || bottom > list.scrollTop + list.clientHeight) {
        list.scrollTop = top - list.clientHeight / 2;
      }
    },
    /** Mark the lines whose marks are shown alone. @param {Set<number>} lines */
    choose(lines) {
      rows.forEach((row, i) => row.classList.toggle("chosen", lines.has(i + 1)));
    },
  };
}

/** The tree of functions; a switch shows one of them alone.
 * @param {HTMLElement} list @param {(numbers: Set<number> | null) => void} chosen */
export function createTree(list, chosen) {
  /** @type {HTMLInputElement[]} */
  let switches = [];
  /** @type {any[]} */
  let known = [];

  /** A call. @param {any} call @param {number} i @param {number} top @param {string} unit */
  function rowOf(call, i, top, unit) {
    const row = made("li");
    row.style.paddingInlineStart = `${(call.depth - top) * 1.1}em`;
    const label = made("label");
    const box = made("input");
    box.type = "checkbox";
    box.addEventListener("change", () => {
      switches.forEach((other) => (other.checked = other === box && box.checked));
      chosen(box.checked ? within(known, i) : null);
    });
    switches.push(box);
    const name = call.function === "<module>" ? "the script" : call.function;
    const counts = `${times(call.times, "call")}, ${times(call.steps, "step")}, ${round(call.drawn)} ${unit}`;
    label.append(box, made("span", name, "name"), made("span", counts, "counts"));
    row.append(label);
    return row;
  }

  return {
    /** @param {any[]} calls @param {string} unit */
    take(calls, unit) {
      [switches, known] = [[], calls];
      const top = Math.min(...calls.map((call) => call.depth), 0);
      list.replaceChildren(...calls.map((call, i) => rowOf(call, i, top, unit)));
    },
    clear() {
      for (const box of switches) box.checked = false;
    },
    /** The function that is shown alone; "" for none. @returns {string} */
    chosen: () => known[switches.findIndex((box) => box.checked)]?.function ?? "",
    /** Show a function alone. @param {string} name */
    choose(name) {
      const number = known.findIndex((call) => call.function === name);
      if (number >= 0) switches[number].click();
    },
  };
}

/** Values as they would be typed, one after the other. @param {Record<string, unknown>} values */
export function inWords(values) {
  const typed = (/** @type {unknown} */ value) => (value === true ? "yes" : value === false ? "no" : value);
  return Object.entries(values).map(([name, value]) => `${name}=${typed(value)}`);
}

/** The numbers of a call and of all it called. @param {any[]} calls @param {number} i */
function within(calls, i) {
  const numbers = new Set([calls[i].number]);
  for (let n = i + 1; n < calls.length && calls[n].depth > calls[i].depth; n++) numbers.add(calls[n].number);
  return numbers;
}

/** @param {number} count @param {string} noun */
function times(count, noun) {
  return `${count.toLocaleString("en")} ${noun}${count === 1 ? "" : "s"}`;
}

/** @param {number} value */
export function round(value) {
  return String(Number(value.toFixed(2)) + 0);
}

/** The findings, each a button that shows where it is; null when nobody looked for any.
 * @param {HTMLElement} list @param {any[] | null} findings @param {(finding: any) => void} chosen
 * @param {string} unknown what is said then */
export function createFindings(list, findings, chosen, unknown) {
  list.replaceChildren();
  for (const finding of findings ?? []) {
    const row = made("li", "", finding.severity);
    const button = made("button", `${finding.rule}`, "finding");
    button.type = "button";
    button.addEventListener("click", () => chosen(finding));
    const lines = finding.lines.length ? `Line ${finding.lines.join(", ")}. ` : "";
    row.append(button, made("p", `${lines}${finding.message}`), made("p", `Fix: ${finding.fix}`, "fix"));
    list.append(row);
  }
  if (!findings) list.append(made("li", unknown));
  else if (!findings.length) list.append(made("li", "No findings."));
}
