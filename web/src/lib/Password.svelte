<script lang="ts">
  import { api, ask, Problem } from "../api/client";
  import { session } from "../session.svelte";

  interface Props {
    done?: () => void;
  }
  let { done }: Props = $props();
  let old = $state("");
  let fresh = $state("");
  let again = $state("");
  let problem = $state<Problem | null>(null);
  let busy = $state(false);
  const wrong = (field: string) => problem?.errors.find((one) => one.field === field)?.message ?? "";

  async function change(event: SubmitEvent) {
    event.preventDefault();
    problem = null;
    if (fresh !== again) {
      problem = new Problem(422, {
        title: "The two are not the same.",
        errors: [{ field: "again", message: "The two are not the same." }],
      });
      return;
    }
    busy = true;
    try {
      session.accept(await ask(api.POST("/api/session/password", { body: { old, new: fresh } })));
      old = fresh = again = "";
      done?.();
    } catch (reason) {
      problem = reason as Problem;
    } finally {
      busy = false;
    }
  }
</script>

{#snippet field(label: string, name: string, complete: "current-password" | "new-password")}
  <label class="grid gap-1" for="password-{name}">{label}</label>
  <input
    id="password-{name}"
    class="control {wrong(name) ? 'refused' : ''}"
    type="password"
    autocomplete={complete}
    required
    aria-invalid={wrong(name) ? "true" : undefined}
    aria-describedby={wrong(name) ? `password-${name}-refused` : undefined}
    bind:value={
      () => (name === "old" ? old : name === "new" ? fresh : again),
      (text) => {
        if (name === "old") old = text;
        else if (name === "new") fresh = text;
        else again = text;
      }
    }
  />
  {#if wrong(name)}<p id="password-{name}-refused" role="alert" class="text-signal text-[13px]">
      {wrong(name)}
    </p>{/if}
{/snippet}

<form class="grid gap-1.5" onsubmit={change}>
  {@render field("Password so far", "old", "current-password")}
  {@render field("New password, 12 letters or more", "new", "new-password")}
  {@render field("New password again", "again", "new-password")}
  {#if problem && !problem.errors.length}<p role="alert" class="text-signal font-semibold">
      {problem.message}
    </p>{/if}
  <button class="bg-ink text-sheet mt-2 min-h-9 font-semibold" disabled={busy}>Change the password</button>
</form>
