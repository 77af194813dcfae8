import { createQuery } from "@tanstack/svelte-query";
import { api, ask, type Schemas } from "../api/client";

export type KindForm = Schemas["OperationKindOut"];

/** The kinds of operation with the fields that each asks for; they do not change while the page is open. */
export const operationKinds = () =>
  createQuery(() => ({
    queryKey: ["operation-kinds"],
    queryFn: () => ask(api.GET("/api/kinds")),
    staleTime: Infinity,
  }));

/** What an operation is told of its feature: what the drawing asks, and over that its own entries; blank takes one away. */
export function told(
  document: Schemas["Document"],
  operation: Schemas["Operation"],
): Record<string, string | number | boolean> {
  const asked = document.features?.find((one) => one.id === operation.drawn)?.asked ?? {};
  const every = Object.entries({ ...asked, ...operation.feature });
  return Object.fromEntries(every.filter(([, value]) => value !== null && value !== "")) as Record<
    string,
    string | number | boolean
  >;
}
