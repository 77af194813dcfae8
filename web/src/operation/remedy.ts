import type { Schemas } from "../api/client";

/** The edit that a change which was run asks for: settings, another tool, an operation before. */
export function editOf(operation: string, remedy: Schemas["RemedyOut"]) {
  const { settings = {}, holding = {}, feature = {}, before, tool } = remedy.patch;
  const { operation: kind = "", title = "", ...told } = before ?? {};
  return {
    action: "set_settings" as const,
    operation,
    settings,
    holding,
    feature,
    before: before
      ? { operation: String(kind), title: String(title), feature: told, tool: {}, settings: {} }
      : null,
    tool: tool ? Object.fromEntries(Object.entries(tool).map(([role, name]) => [role, String(name)])) : null,
    units: "mm" as const,
  };
}
