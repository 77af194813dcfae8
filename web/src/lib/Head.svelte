<script lang="ts">
  import Moon from "@lucide/svelte/icons/moon";
  import Redo2 from "@lucide/svelte/icons/redo-2";
  import Sun from "@lucide/svelte/icons/sun";
  import Undo2 from "@lucide/svelte/icons/undo-2";
  import { page } from "../page.svelte";
  import { session } from "../session.svelte";
  import Choice from "./Choice.svelte";
  import Menu from "./Menu.svelte";

  const dark = $derived(session.person?.theme === "dark");

  function skip(event: Event) {
    event.preventDefault();
    document.getElementById("main")?.focus();
  }
</script>

<a
  href="#main"
  class="bg-sheet text-ink absolute top-1 left-1 z-50 -translate-y-20 px-3 py-2 focus:translate-y-0"
  onclick={skip}>Skip to the bench</a
>
<header
  class="bg-bar text-bar-ink flex min-h-11 shrink-0 items-center gap-x-3 gap-y-1 px-3 whitespace-nowrap max-[1150px]:flex-wrap max-[1150px]:py-1.5"
>
  <a href="#/" class="flex items-center gap-2 text-[17px] font-semibold" aria-label="Arrow Bench, jobs">
    <svg viewBox="0 0 30 16" class="h-4 w-[30px]" aria-hidden="true">
      <path d="M2 2v12M2 8h16" stroke="currentColor" stroke-width="2" fill="none" />
      <path d="M17 3l11 5-11 5z" fill="#ff7a52" />
    </svg>
    Arrow Bench
  </a>
  <nav
    aria-label="Where you are"
    class="text-bar-soft min-w-0 flex-1 text-[13.5px] leading-tight whitespace-normal max-[1150px]:basis-[calc(100%-170px)]"
  >
    {#each page.crumbs as crumb, k (k)}
      <span aria-hidden="true">/</span>
      {#if crumb.href}<a href={crumb.href} class="hover:underline">{crumb.label}</a>
      {:else}<span class="text-bar-ink font-semibold" aria-current="page">{crumb.label}</span>{/if}
    {/each}
  </nav>
  {#if page.goal}
    <Choice
      label="Goal"
      options={["cheapest", "fastest", "most secure"]}
      told={{ "most secure": "most reliable" }}
      value={page.goal}
      disabled={!session.mayEdit}
      choose={(goal) => page.setGoal?.(goal)}
    />
  {/if}
  <nav aria-label="Rooms" class="flex gap-3">
    <a href="#/crib" class="hover:underline">Tools</a>
    <a href="#/shelf" class="hover:underline">Materials</a>
    <a href="#/floor" class="hover:underline">Machines</a>
    <a href="#/trials" class="hover:underline">Trials</a>
    <a href="#/clinic" class="hover:underline">Clinic</a>
  </nav>
  <Choice
    label="Units"
    options={["mm", "inch"]}
    value={session.units}
    choose={(units) => void session.prefer({ units })}
  />
  {#if page.goal}
    <span class="flex">
      <button
        class="p-1.5 disabled:opacity-35"
        disabled={!page.undo}
        onclick={() => page.undo?.()}
        aria-label="Undo"
        title="Undo (Ctrl Z)"><Undo2 size={17} /></button
      >
      <button
        class="p-1.5 disabled:opacity-35"
        disabled={!page.redo}
        onclick={() => page.redo?.()}
        aria-label="Redo"
        title="Redo (Ctrl Y)"><Redo2 size={17} /></button
      >
    </span>
  {/if}
  {#if page.saved}<span class="text-bar-soft figure" role="status" data-testid="saved">{page.saved}</span
    >{/if}
  <button
    class="p-1.5"
    aria-label={dark ? "Light theme" : "Dark theme"}
    onclick={() => void session.prefer({ theme: dark ? "light" : "dark" })}
  >
    {#if dark}<Sun size={17} />{:else}<Moon size={17} />{/if}
  </button>
  <button class="px-1.5" aria-label="Search" title="Search ( / )" onclick={() => (page.dialog = "search")}
    >/</button
  >
  <button class="px-1.5" aria-label="Help" title="Help ( ? or F1 )" onclick={() => page.explain()}>?</button>
  <Menu />
</header>
