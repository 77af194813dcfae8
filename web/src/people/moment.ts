/** A moment as the reader's clock shows it, to the minute. */
export function moment(at: string | null): string {
  if (!at) return "never";
  const when = new Date(at);
  const two = (value: number) => String(value).padStart(2, "0");
  return `${when.getFullYear()}-${two(when.getMonth() + 1)}-${two(when.getDate())} ${two(when.getHours())}:${two(when.getMinutes())}`;
}
