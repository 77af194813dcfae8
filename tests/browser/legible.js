// What a person could not read on the page: words that are cut off, that lie over each other, that leave their picture, that a line runs through.
const found = [];
const seen = [];
const main = document.querySelector(arguments[0] ?? "main");
const view = { left: 0, top: 0, right: document.documentElement.clientWidth, bottom: 1e9 };
const hidden = (e) => e.closest(".sr-only, [hidden], datalist, option, title, defs, desc");

function clip(element, box) {
  let { left, top, right, bottom } = box;
  let cut = "";
  for (let up = element.parentElement; up && up !== document.body; up = up.parentElement) {
    const style = getComputedStyle(up);
    if (style.overflowX === "visible" && style.overflowY === "visible") continue;
    const edge = up.getBoundingClientRect();
    if (box.right > edge.right + 1.5 || box.left < edge.left - 1.5) cut ||= `sideways by ${up.tagName.toLowerCase()}`;
    const scrolls = /auto|scroll/.test(style.overflowY);
    if (!scrolls && style.overflowY !== "visible" && (box.bottom > edge.bottom + 1.5 || box.top < edge.top - 1.5)) cut ||= `in height by ${up.tagName.toLowerCase()}`;
    left = Math.max(left, edge.left); right = Math.min(right, edge.right);
    top = Math.max(top, edge.top); bottom = Math.min(bottom, edge.bottom);
  }
  if (box.right > view.right + 1) cut ||= "by the window";
  return { box: { left, top, right, bottom }, cut };
}

const walker = document.createTreeWalker(main, NodeFilter.SHOW_TEXT);
while (walker.nextNode()) {
  const node = walker.currentNode;
  const element = node.parentElement;
  const words = node.textContent.trim();
  if (!words || !element || hidden(element) || getComputedStyle(element).visibility === "hidden") continue;
  const range = document.createRange();
  range.selectNodeContents(node);
  for (const line of range.getClientRects()) {
    if (line.width < 1 || line.height < 1) continue;
    const { box, cut } = clip(element, line);
    if (box.right - box.left < 1 || box.bottom - box.top < 2) continue; // scrolled out of sight
    if (cut) found.push(`cut off ${cut}: "${words.slice(0, 50)}"`);
    seen.push({ words, box, element, section: element.closest("section, dialog, [role=dialog]"), svg: element.closest("svg"), line });
  }
}
for (const field of main.querySelectorAll("input:not([type=checkbox]):not([type=range]):not([type=file]), select")) {
  if (hidden(field) || !field.getClientRects().length) continue;
  if (field.scrollWidth > field.clientWidth + 1) found.push(`field clips "${field.value}" (${field.id})`);
}
for (const one of seen) {
  if (!one.svg || getComputedStyle(one.svg).overflow === "visible" && !one.svg.closest("[data-frame]")) continue;
  const frame = one.svg.getBoundingClientRect();
  if (one.line.left < frame.left - 1 || one.line.right > frame.right + 1 || one.line.top < frame.top - 2 || one.line.bottom > frame.bottom + 3)
    found.push(`out of its picture: "${one.words.slice(0, 50)}"`);
}
for (let i = 0; i < seen.length; i++)
  for (let k = i + 1; k < seen.length; k++) {
    const [a, b] = [seen[i], seen[k]];
    if (a.section !== b.section || a.element === b.element || a.element.contains(b.element) || b.element.contains(a.element)) continue;
    const wide = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
    const tall = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
    if (wide > 2.5 && tall > 4.5) found.push(`over each other: "${a.words.slice(0, 40)}" and "${b.words.slice(0, 40)}"`);
  }
// a line through words that have no halo of their own
for (const svg of new Set(seen.map((one) => one.svg).filter(Boolean))) {
  const texts = seen.filter((one) => one.svg === svg && getComputedStyle(one.element).paintOrder !== "stroke");
  for (const line of svg.querySelectorAll("path, line, polyline")) {
    const style = getComputedStyle(line);
    if (style.stroke === "none" || line.closest("defs") || !line.getTotalLength) continue;
    const matrix = line.getScreenCTM();
    let length = 0;
    try { length = line.getTotalLength(); } catch { continue; }
    for (let at = 0; at <= length; at += 3) {
      const point = line.getPointAtLength(at).matrixTransform(matrix);
      const struck = texts.find((one) => point.x > one.box.left + 2 && point.x < one.box.right - 2 && point.y > one.box.top + 4 && point.y < one.box.bottom - 4);
      if (struck) { found.push(`a line through "${struck.words.slice(0, 50)}"`); break; }
    }
  }
}
return [...new Set(found)];
