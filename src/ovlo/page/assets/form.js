// @ts-check
// A form from a drawing's parameters: a control for each, of the kind that fits.
//
//   const form = createForm(element, (values) => draw(values));
//   form.take([{ name: "sides", kind: "span", low: 3, high: 12, step: 1, default: "4" }], {});

import { made } from "./panel.js";

/** A parameter; values are text, as they would be typed on a command line.
 * @typedef {{name: string, kind: string, allowed: string, default: string, low: number, high: number,
 *   step: number | null, choices: string[], colour: string}} Parameter */
/** What shows and takes a value. @typedef {{show: (text: string) => void, parts: HTMLElement[]}} Control */

const YES = ["yes", "true", "on", "1"];

/** @template {keyof HTMLElementTagNameMap} K @param {K} tag @param {Record<string, string>} attributes */
function madeWith(tag, attributes) {
  const element = made(tag);
  for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, value);
  return element;
}

/** Slider and number, which say the same. @param {Parameter} parameter @param {string} id
 * @param {(text: string) => void} set @returns {Control} */
function numberControl(parameter, id, set) {
  const step = parameter.step ?? (parameter.high - parameter.low) / 1000;
  const range = madeWith("input", { type: "range", id, min: String(parameter.low), step: "any" });
  range.max = String(parameter.high);
  if (parameter.step) range.step = String(parameter.step);
  const number = madeWith("input", { type: "number", step: "any", "aria-label": `${parameter.name}, as a number` });
  range.addEventListener("input", () => {
    // As many digits as the slider can tell apart.
    const digits = Math.max(0, Math.ceil(-Math.log10(step)));
    number.value = String(Number(Number(range.value).toFixed(digits)));
    set(number.value);
  });
  number.addEventListener("input", () => {
    range.value = number.value;
    if (number.value !== "") set(number.value);
  });
  const show = (/** @type {string} */ text) => {
    if (document.activeElement !== number) number.value = text;
    range.value = text;
  };
  return { show, parts: [range, number] };
}

/** @param {Parameter} parameter @param {string} id @param {(text: string) => void} set @returns {Control} */
function choiceControl(parameter, id, set) {
  const select = madeWith("select", { id });
  for (const choice of parameter.choices) select.append(made("option", choice));
  select.addEventListener("change", () => set(select.value));
  return { show: (text) => (select.value = text), parts: [select] };
}

/** @param {Parameter} _ @param {string} id @param {(text: string) => void} set @returns {Control} */
function switchControl(_, id, set) {
  const box = madeWith("input", { type: "checkbox", id });
  box.addEventListener("change", () => set(box.checked ? "yes" : "no"));
  return { show: (text) => (box.checked = YES.includes(text.toLowerCase())), parts: [box] };
}

/** @param {Parameter} parameter @param {string} id @param {(text: string) => void} set @returns {Control} */
function textControl(parameter, id, set) {
  const field = madeWith("input", { type: "text", id, title: parameter.allowed });
  field.addEventListener("input", () => set(field.value));
  const show = (/** @type {string} */ text) => {
    if (document.activeElement !== field) field.value = text;
  };
  return { show, parts: [field] };
}

/** A swatch, and any colour in the words of CSS. @param {Parameter} parameter @param {string} id
 * @param {(text: string) => void} set @returns {Control} */
function colourControl(parameter, id, set) {
  const field = textControl(parameter, id, (text) => {
    swatch.value = hexOf(text);
    set(text);
  });
  const swatch = madeWith("input", { type: "color", "aria-label": `${parameter.name}, as a swatch` });
  swatch.addEventListener("input", () => {
    field.show(swatch.value);
    set(swatch.value);
  });
  const show = (/** @type {string} */ text) => {
    field.show(text);
    swatch.value = hexOf(text);
  };
  return { show, parts: [swatch, ...field.parts] };
}

/** A colour of CSS as six hexadecimal digits, opaque. @param {string} text */
function hexOf(text) {
  const context = /** @type {CanvasRenderingContext2D} */ (document.createElement("canvas").getContext("2d"));
  context.fillStyle = "#000";
  context.fillStyle = text;
  context.fillRect(0, 0, 1, 1);
  const [red, green, blue] = context.getImageData(0, 0, 1, 1).data;
  return `#${[red, green, blue].map((part) => part.toString(16).padStart(2, "0")).join("")}`;
}

/** A slider along a list of values. @param {Parameter} parameter @param {string} id
 * @param {(text: string) => void} set @returns {Control} */
function listControl(parameter, id, set) {
  const { choices } = parameter;
  const range = madeWith("input", { type: "range", id, min: "0", max: String(choices.length - 1), step: "1" });
  const shown = madeWith("output", { for: id });
  const show = (/** @type {string} */ text) => {
    range.value = String(choices.indexOf(text));
    range.setAttribute("aria-valuetext", text);
    shown.textContent = text;
  };
  range.addEventListener("input", () => {
    show(choices[Number(range.value)]);
    set(choices[Number(range.value)]);
  });
  return { show, parts: [range, shown] };
}

const CONTROLS = {
  span: numberControl,
  choice: choiceControl,
  switch: switchControl,
  text: textControl,
  colour: colourControl,
  list: listControl,
};

/** @param {HTMLElement} element @param {(values: Record<string, string>) => void} changed given the touched values */
export function createForm(element, changed) {
  /** @type {Record<string, string>} */
  let touched = {};
  /** @type {Parameter[]} */
  let parameters = [];
  /** @type {Record<string, Control & {row: HTMLElement}>} */
  let controls = {};

  /** @param {Parameter} parameter */
  function add(parameter) {
    const [row, id] = [made("div", "", "field"), `value-${parameter.name}`];
    const label = madeWith("label", { for: id });
    label.textContent = parameter.name;
    label.title = parameter.allowed;
    const kind = /** @type {keyof typeof CONTROLS} */ (parameter.kind);
    const control = CONTROLS[kind](parameter, id, (text) => {
      touched[parameter.name] = text;
      row.classList.add("touched");
      changed({ ...touched });
    });
    row.append(label, ...control.parts);
    element.append(row);
    controls[parameter.name] = { ...control, row };
  }

  /** Show the values that are touched, and the defaults of the others. */
  function show() {
    for (const { name, default: standard } of parameters) {
      controls[name].show(touched[name] ?? standard);
      controls[name].row.classList.toggle("touched", name in touched);
    }
  }

  return {
    /** The parameters, with new defaults or others than before. @param {Parameter[]} wanted
     * @param {Record<string, string>} values those that are touched */
    take(wanted, values) {
      const kinds = (/** @type {Parameter[]} */ list) => JSON.stringify(list.map((one) => ({ ...one, default: "" })));
      const isLike = kinds(wanted) === kinds(parameters);
      [parameters, touched] = [wanted, { ...values }];
      if (!isLike) {
        controls = {};
        element.replaceChildren();
        parameters.forEach(add);
      }
      show();
    },
    /** @param {Record<string, string>} values */
    set(values) {
      touched = { ...values };
      show();
      changed({ ...touched });
    },
    /** Values that were moved elsewhere. @param {Record<string, string>} values */
    receive(values) {
      touched = { ...values };
      show();
    },
    values: () => ({ ...touched }),
  };
}
