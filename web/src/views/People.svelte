<script lang="ts">
  import { createQuery, useQueryClient } from "@tanstack/svelte-query";
  import { api, ask, Problem, type Schemas } from "../api/client";
  import EntryField from "../lib/EntryField.svelte";
  import Scroll from "../lib/Scroll.svelte";
  import GivenPassword from "../people/GivenPassword.svelte";
  import Happenings from "../people/Happenings.svelte";
  import { when } from "../lib/names";
  import SessionList from "../people/SessionList.svelte";
  import { page } from "../page.svelte";
  import { session } from "../session.svelte";

  page.open("People", [{ label: "People" }]);
  const ROLES = ["reader", "operator", "engineer", "administrator"] as const;
  const MAY: Record<(typeof ROLES)[number], string> = {
    reader: "reads",
    operator: "reads, notes, measures",
    engineer: "changes jobs, tools, materials, machines",
    administrator: "changes everything, sees to the people",
  };
  const queries = useQueryClient();
  let picked = $state<number | null>(null);
  let given = $state<Schemas["GivenPassword"] | null>(null);
  let name = $state("");
  let role = $state<(typeof ROLES)[number]>("operator");
  let problem = $state<Problem | null>(null); // of what was done to the one picked
  let refused = $state<Problem | null>(null); // of the one who is entered
  const people = createQuery(() => ({
    queryKey: ["people", "all"],
    queryFn: () => ask(api.GET("/api/people")),
  }));
  const backups = createQuery(() => ({
    queryKey: ["people", "backups"],
    queryFn: () => ask(api.GET("/api/people/backups")),
  }));
  const person = $derived(people.data?.find((one) => one.id === picked));
  const sessions = createQuery(() => ({
    queryKey: ["people", "sessions", picked],
    queryFn: () =>
      ask(api.GET("/api/people/{person_id}/sessions", { params: { path: { person_id: picked! } } })),
    enabled: picked !== null,
  }));
  const again = () => queries.invalidateQueries({ queryKey: ["people"] });
  const at = () => ({ path: { person_id: picked! } });

  async function add(event: SubmitEvent) {
    event.preventDefault();
    refused = null;
    try {
      given = await ask(api.POST("/api/people", { body: { name, role } }));
      picked = given.person.id;
      name = "";
    } catch (reason) {
      refused = reason as Problem;
    }
    await again();
  }

  async function tried(call: () => Promise<unknown>): Promise<Problem | null> {
    problem = null;
    let own: Problem | null = null;
    try {
      await call();
    } catch (reason) {
      own = reason as Problem;
      if (!own.errors.length) problem = own;
    }
    await again();
    return own;
  }
  const change = (body: Schemas["PersonPatch"]) =>
    tried(() => ask(api.PATCH("/api/people/{person_id}", { params: at(), body })));
  const give = () =>
    tried(
      async () =>
        (given = await ask(api.POST("/api/people/{person_id}/password", { params: at(), body: undefined }))),
    );
  const endAll = () => tried(() => ask(api.DELETE("/api/people/{person_id}/sessions", { params: at() })));
</script>

{#if session.person?.role !== "administrator"}
  <p class="p-6">Only administrators manage people.</p>
{:else}
  <div
    class="mx-auto grid h-full max-w-[1500px] grid-cols-[330px_minmax(0,1fr)] gap-2 p-2 max-lg:grid-cols-1 max-lg:overflow-auto"
  >
    <h1 class="sr-only">People</h1>
    <div class="flex min-h-0 flex-col gap-2">
      <section class="bg-sheet border-line border p-2.5" aria-label="Enter a person">
        <h2 class="font-semibold">Enter a person</h2>
        <form class="mt-1 grid gap-2" onsubmit={add}>
          <label class="grid gap-1" for="new-name">Name</label>
          <input
            id="new-name"
            class="control -mt-1 {refused ? 'refused' : ''}"
            autocomplete="off"
            required
            aria-invalid={refused ? "true" : undefined}
            aria-describedby={refused ? "new-name-refused" : undefined}
            bind:value={name}
          />
          {#if refused}<p id="new-name-refused" role="alert" class="text-signal text-[13px]">
              {refused.message}
            </p>{/if}
          <label
            >Role <select class="control" bind:value={role}
              >{#each ROLES as one (one)}<option>{one}</option>{/each}</select
            ></label
          >
          <p class="text-soft -mt-1 text-[13px]">{MAY[role]}</p>
          <button class="bg-ink text-sheet min-h-8 px-4">Enter and make a password</button>
        </form>
      </section>
      <section
        class="bg-sheet border-line min-h-0 flex-1 overflow-auto border p-2.5"
        aria-label="People"
        tabindex="-1"
      >
        <h2 class="font-semibold">
          People <span class="text-soft figure">{people.data?.length ?? ""}</span>
        </h2>
        <ul>
          {#each people.data ?? [] as one (one.id)}
            <li class="border-line border-t">
              <button
                class="w-full px-1 py-1 text-left {one.id === picked ? 'bg-ink text-sheet' : ''}"
                aria-pressed={one.id === picked}
                onclick={() => {
                  picked = one.id === picked ? null : one.id;
                  problem = null;
                }}
              >
                <span class="flex items-baseline gap-2"
                  ><b class="truncate">{one.name}</b><span class="ml-auto text-[13px]">{one.role}</span></span
                >
                <span class="block text-[13px]"
                  >{one.locked
                    ? "locked"
                    : one.must_change
                      ? "has yet to choose a password"
                      : one.signed_in_at
                        ? `last signed in ${when(one.signed_in_at)}`
                        : "never signed in"}{one.sessions
                    ? `, ${one.sessions === 1 ? "one session" : `${one.sessions} sessions`}`
                    : ""}</span
                >
              </button>
            </li>
          {/each}
        </ul>
      </section>
    </div>
    <div class="flex min-h-0 flex-col gap-2">
      {#if person}
        <section class="bg-sheet border-line border p-2.5" aria-label="The person">
          <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
            <h2 class="text-[16px] font-semibold">{person.name}</h2>
            <span class="text-soft">entered {when(person.added_at)}{person.locked ? ", locked" : ""}</span>
            <span class="flex-1"></span>
            <button class="control" onclick={() => void give()}>Make a new password</button>
            <button class="control" onclick={() => void change({ locked: !person.locked })}
              >{person.locked ? "Unlock" : "Lock"}</button
            >
          </div>
          {#if problem}<p role="alert" class="text-signal mt-1">{problem.message}</p>{/if}
          <div class="mt-2 flex flex-wrap items-start gap-x-6 gap-y-2">
            <label class="grid w-56 gap-1" for="person-name"
              >Name {#key person.id}<EntryField
                  id="person-name"
                  value={person.name}
                  field="name"
                  commit={(text) => change({ name: text })}
                />{/key}</label
            >
            <label class="grid gap-1"
              >Role <select
                class="control"
                value={person.role}
                onchange={async (event) => {
                  const select = event.currentTarget;
                  if (await change({ role: select.value as (typeof ROLES)[number] }))
                    select.value = person.role;
                }}
                >{#each ROLES as one (one)}<option>{one}</option>{/each}</select
              ></label
            >
            <p class="text-soft self-end text-[13px]">{MAY[person.role]}</p>
          </div>
          <div class="mt-3 flex items-baseline gap-3">
            <h3 class="font-semibold">Signed in</h3>
            {#if sessions.data?.some((one) => !one.here)}<button
                class="plain-link"
                onclick={() => void endAll()}>Sign out everywhere</button
              >{/if}
          </div>
          <Scroll label="Where this person is signed in" class="max-h-44"
            ><SessionList sessions={sessions.data ?? []} /></Scroll
          >
        </section>
      {/if}
      <section
        class="bg-sheet border-line flex min-h-0 flex-1 flex-col border p-2.5"
        aria-label="What happened"
      >
        {#if backups.data}
          <p class="mb-2">
            {#if backups.data.newest}<span class={backups.data.late ? "text-warn" : ""}
                >Newest backup: <span class="figure">{when(backups.data.newest.at)}</span>{backups.data.late
                  ? ", older than a day and a half"
                  : ""}</span
              > <span class="text-soft">{backups.data.newest.more}</span>
            {:else}<span class="text-warn">No backup has been taken yet.</span>{/if}
            {#if backups.data.failed}<span class="text-signal block"
                >The last try, {when(backups.data.failed.at)}, failed: {backups.data.failed.more}</span
              >{/if}
          </p>
        {/if}
        <Happenings name={person?.name ?? ""} />
      </section>
    </div>
  </div>
{/if}
{#if given}<GivenPassword {given} close={() => (given = null)} />{/if}
