<script lang="ts">
  import { QueryClient, QueryClientProvider } from "@tanstack/svelte-query";
  import { onMount } from "svelte";
  import Router, { router } from "svelte-spa-router";
  import Head from "./lib/Head.svelte";
  import Keys from "./lib/Keys.svelte";
  import Search from "./lib/Search.svelte";
  import { pageKeys } from "./keys";
  import { page } from "./page.svelte";
  import { session } from "./session.svelte";
  import AtMachine from "./views/AtMachine.svelte";
  import Account from "./views/Account.svelte";
  import Assemblies from "./views/Assemblies.svelte";
  import Crib from "./views/Crib.svelte";
  import Exchange from "./views/Exchange.svelte";
  import Floor from "./views/Floor.svelte";
  import Geometries from "./views/Geometries.svelte";
  import HeavyTools from "./views/HeavyTools.svelte";
  import JobBench from "./views/JobBench.svelte";
  import Jobs from "./views/Jobs.svelte";
  import Missing from "./views/Missing.svelte";
  import OperationBench from "./views/OperationBench.svelte";
  import People from "./views/People.svelte";
  import Shelf from "./views/Shelf.svelte";
  import SignIn from "./views/SignIn.svelte";
  import Threads from "./views/Threads.svelte";
  import ToolMaterials from "./views/ToolMaterials.svelte";

  const routes = {
    "/": Jobs,
    "/jobs/:id": JobBench,
    "/jobs/:id/operations/:operation": OperationBench,
    "/jobs/:id/at-machine": AtMachine,
    "/jobs/:id/at-machine/:operation": AtMachine,
    "/crib": Crib,
    "/crib/tools/:id": Crib,
    "/crib/geometries": Geometries,
    "/crib/assemblies": Assemblies,
    "/crib/heavy-tools": HeavyTools,
    "/crib/heavy-tools/:id": HeavyTools,
    "/crib/tool-materials": ToolMaterials,
    "/exchange": Exchange,
    "/shelf": Shelf,
    "/shelf/threads": Threads,
    "/shelf/threads/:words": Threads,
    "/shelf/:name": Shelf,
    "/floor": Floor,
    "/people": People,
    "/account": Account,
    "*": Missing,
  };
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  // every page opens at its top
  $effect(() => {
    void router.location;
    document.getElementById("main")?.scrollTo(0, 0);
  });
  let unreachable = $state("");

  onMount(() => {
    session.load().catch((reason: Error) => (unreachable = reason.message));
    return pageKeys();
  });
</script>

<QueryClientProvider client={queries}>
  {#if unreachable}
    <main class="p-8" role="alert">
      <h1 class="text-xl font-semibold">Not connected</h1>
      <p>{unreachable}</p>
    </main>
  {:else if session.ready && (!session.person?.name || session.person.must_change)}
    <SignIn />
  {:else if session.ready}
    {#if session.ended}
      <div
        class="bg-black/60 fixed inset-0 z-60 overflow-auto"
        role="dialog"
        aria-modal="true"
        aria-label="Sign in again"
      >
        <SignIn back={session.person?.name ?? ""} />
      </div>
    {/if}
    <div class="flex h-full flex-col" inert={session.ended}>
      <Head />
      <main id="main" tabindex="-1" class="min-h-0 flex-1 overflow-auto">
        <Router {routes} />
      </main>
    </div>
    {#if page.dialog === "keys"}<Keys close={() => (page.dialog = null)} />{/if}
    {#if page.dialog === "search"}<Search close={() => (page.dialog = null)} />{/if}
  {:else}
    <main class="text-soft p-8">Opening the bench …</main>
  {/if}
</QueryClientProvider>
