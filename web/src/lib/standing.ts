/** How an operation stands, in words and in colour: the same on every list. */
export const STANDING = { holds: "✓ holds", close: "▲ close", over: "■ over", "no tool": "○ no tool yet" };
export const TONES = {
  holds: "text-safe",
  close: "text-warn",
  over: "text-signal font-semibold",
  "no tool": "text-signal font-semibold",
};
