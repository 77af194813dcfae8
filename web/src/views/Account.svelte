<script lang="ts">
  import { createQuery, useQueryClient } from "@tanstack/svelte-query";
  import { api, ask } from "../api/client";
  import Password from "../lib/Password.svelte";
  import Factor from "../people/Factor.svelte";
  import SessionList from "../people/SessionList.svelte";
  import { page } from "../page.svelte";
  import { session } from "../session.svelte";

  page.open("Your account", [{ label: "Your account" }]);
  const queries = useQueryClient();
  const mine = createQuery(() => ({
    queryKey: ["sessions"],
    queryFn: () => ask(api.GET("/api/session/list")),
  }));
  let changed = $state(false);
  const again = () => queries.invalidateQueries({ queryKey: ["sessions"] });

  async function end(name: string) {
    await ask(api.DELETE("/api/session/list/{name}", { params: { path: { name } } }));
    await again();
  }
</script>

<div
  class="mx-auto grid max-w-[1100px] grid-cols-[330px_minmax(0,1fr)] items-start gap-2 p-2 max-lg:grid-cols-1"
>
  <h1 class="sr-only">Your account</h1>
  <section class="bg-sheet border-line border p-2.5" aria-label="Your password">
    <h2 class="font-semibold">Password of {session.person?.name}</h2>
    <p class="text-soft mb-2 text-[13px]">Changing it signs you out everywhere else.</p>
    <Password
      done={() => {
        changed = true;
        void again();
      }}
    />
    {#if changed}<p role="status" class="mt-2 font-semibold">The password is changed.</p>{/if}
    <h2 class="mt-4 font-semibold">Second factor</h2>
    <Factor />
  </section>
  <section class="bg-sheet border-line border p-2.5" aria-label="Where you are signed in">
    <div class="flex items-baseline gap-3">
      <h2 class="font-semibold">Where you are signed in</h2>
      {#if (mine.data?.length ?? 0) > 1}<button class="plain-link" onclick={() => void end("others")}
          >Sign out everywhere else</button
        >{/if}
    </div>
    <SessionList sessions={mine.data ?? []} {end} />
  </section>
</div>
