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
