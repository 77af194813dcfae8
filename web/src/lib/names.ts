/** A tool's name as it is said: a word that its designation and its geometry share is said once. */
export const toolName = (name: string): string => name.replace(/\b([a-z]{3,}) \1\b/g, "$1");

/** So many pieces, with the word in its number. */
export const pieces = (count: number | string): string =>
  `${count} ${String(count).trim() === "1" ? "piece" : "pieces"}`;

/** A count with its thousands apart. */
export const spaced = (count: number): string => count.toLocaleString("en").replace(/,/g, " ");

/** A moment as everywhere in the product: year, month, day, hour and minute, by the clock on the wall. */
export function when(at: string): string {
  const moment = new Date(at);
  const two = (value: number) => String(value).padStart(2, "0");
  const day = `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}`;
  return `${day} ${two(moment.getHours())}:${two(moment.getMinutes())}`;
}

/** A tool as a document names it: its parts by role, what carries the edge first. */
export type ToolNames = Record<string, string>;

/** What carries the edge: it names the tool. */
export const edgeOf = (tool: ToolNames | undefined): string => Object.values(tool ?? {})[0] ?? "";

/** What the edge sits on; a tool of one part is named by itself. */
export function seatOf(tool: ToolNames | undefined): string {
  const parts = Object.values(tool ?? {});
  return (parts.length > 1 ? parts.slice(1) : parts).join(" on ");
}

/** A layer's name where its drawing has room for the whole of it, else the number by which limits call it. */
export function labelOf(name: string, place: number, room: number): string {
  return name.length * 6.5 <= room ? name : String(place + 1);
}

/** A word with its first letter large, as it begins a sentence. */
export const capital = (word: string): string => word.slice(0, 1).toUpperCase() + word.slice(1);
