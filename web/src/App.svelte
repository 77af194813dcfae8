<script lang="ts">
  import { QueryClient, QueryClientProvider } from "@tanstack/svelte-query";
  import { onMount } from "svelte";
  import Router, { router } from "svelte-spa-router";
  import { wrap } from "svelte-spa-router/wrap";
  import Head from "./lib/Head.svelte";
  import { pageKeys } from "./keys";
  import { page } from "./page.svelte";
  import { session } from "./session.svelte";
  import Jobs from "./views/Jobs.svelte";
  import Missing from "./views/Missing.svelte";

  // a page is fetched when it is opened; the list of jobs comes with the first one
  const later = (load: Parameters<typeof wrap>[0]["asyncComponent"]) => wrap({ asyncComponent: load });
  const AtMachine = later(() => import("./views/AtMachine.svelte"));
  const Crib = later(() => import("./views/Crib.svelte"));
  const HeavyTools = later(() => import("./views/HeavyTools.svelte"));
  const Shelf = later(() => import("./views/Shelf.svelte"));
  const Threads = later(() => import("./views/Threads.svelte"));
  const routes = {
    "/": Jobs,
    "/jobs": Jobs,
    "/jobs/:id": later(() => import("./views/JobBench.svelte")),
    "/jobs/:id/operations/:operation": later(() => import("./views/OperationBench.svelte")),
    "/jobs/:id/at-machine": AtMachine,
    "/jobs/:id/at-machine/:operation": AtMachine,
    "/crib": Crib,
    "/crib/tools/:id": Crib,
    "/crib/geometries": later(() => import("./views/Geometries.svelte")),
    "/crib/assemblies": later(() => import("./views/Assemblies.svelte")),
    "/crib/heavy-tools": HeavyTools,
    "/crib/heavy-tools/:id": HeavyTools,
    "/crib/tool-materials": later(() => import("./views/ToolMaterials.svelte")),
    "/exchange": later(() => import("./views/Exchange.svelte")),
    "/shelf": Shelf,
    "/shelf/threads": Threads,
    "/shelf/threads/:words": Threads,
    "/shelf/:name": Shelf,
    "/programs": later(() => import("./views/Programs.svelte")),
    "/trials": later(() => import("./views/Trials.svelte")),
    "/trials/:id": later(() => import("./views/Trial.svelte")),
    "/jobs/:id/operations/:operation/clinic": later(() => import("./views/OperationClinic.svelte")),
    "/clinic": later(() => import("./views/ClinicPage.svelte")),
    "/exercises": later(() => import("./views/Exercises.svelte")),
    "/exercises/:id": later(() => import("./views/Exercise.svelte")),
    "/floor": later(() => import("./views/Floor.svelte")),
    "/help/:page": later(() => import("./views/HelpPage.svelte")),
    "/people": later(() => import("./views/People.svelte")),
    "/account": later(() => import("./views/Account.svelte")),
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
  {:else if session.ready && (!session.person?.name || session.person.must_change || session.person.must_have_factor)}
    {#await import("./views/SignIn.svelte") then { default: SignIn }}<SignIn />{/await}
  {:else if session.ready}
    {#if session.ended}
      <div
        class="bg-black/60 fixed inset-0 z-60 overflow-auto"
        role="dialog"
        aria-modal="true"
        aria-label="Sign in again"
      >
        {#await import("./views/SignIn.svelte") then { default: SignIn }}
          <SignIn back={session.person?.name ?? ""} />
        {/await}
      </div>
    {/if}
    <div class="flex h-full flex-col" inert={session.ended}>
      <Head />
      <main id="main" tabindex="-1" class="min-h-0 flex-1 overflow-auto">
        <Router {routes} />
      </main>
    </div>
    {#if page.help}
      {#await import("./help/Help.svelte") then { default: Help }}
        {#key page.asked}<Help close={() => (page.help = false)} />{/key}
      {/await}
    {/if}
    {#if page.dialog === "search"}
      {#await import("./lib/Search.svelte") then { default: Search }}
        <Search close={() => (page.dialog = null)} />
      {/await}
    {/if}
  {:else}
    <main class="text-soft p-8">Opening the bench …</main>
  {/if}
</QueryClientProvider>
