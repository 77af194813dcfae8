<script lang="ts">
  import { api, ask, Problem } from "../api/client";
  import { Draft } from "../lib/draft.svelte";
  import FormField from "../lib/FormField.svelte";
  import Panel from "../lib/Panel.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import { session, shown } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";

  let { editor }: { editor: JobEditor } = $props();
  const job = $derived(editor.job!);
  let refused = $state("");
  let looking = $state<number | null>(null);
  let writing = $state(false);
  let refusal = $state<Problem | null>(null);
  // svelte-ignore state_referenced_locally
  const draft = new Draft(`baseline ${editor.id}`, () => ({ seconds: "", cost: "" }));

  async function upload(event: Event) {
    const field = event.currentTarget as HTMLInputElement;
    const file = field.files?.[0];
    if (!file) return;
    refused = "";
    const form = new FormData();
    form.append("file", file);
    try {
      await ask(
        api.POST("/api/jobs/{job_id}/prints", {
          params: { path: { job_id: job.id } },
          body: form as never,
          bodySerializer: (body) => body as never,
        }),
      );
      await editor.load();
    } catch (reason) {
      refused = (reason as Problem).message;
    }
    field.value = "";
  }

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const baseline = { name: "present process", ...draft.value, note: "" };
    refusal = await editor.keep({ action: "set_baseline", operation: "", baseline });
    if (refusal) return;
    draft.done();
    writing = false;
  }
</script>

<Panel title="Compared with current process">
  <div class="overflow-auto p-2.5 pt-0">
    {#if job.state.baseline}
      {@const base = job.state.baseline}
      <dl class="grid grid-cols-[1fr_auto_auto] gap-x-4 gap-y-0.5">
        <dt class="text-soft">per piece</dt>
        <dd class="text-soft text-right">present</dd>
        <dd class="text-soft text-right">this plan</dd>
        <dt>time</dt>
        <dd class="figure text-right">{shown(base.seconds)}</dd>
        <dd class="figure text-right font-semibold">{shown(job.state.tape.seconds_display)}</dd>
        <dt>cost</dt>
        <dd class="figure text-right">{shown(base.cost)}</dd>
        <dd class="figure text-right font-semibold">{shown(job.state.tape.money_display)}</dd>
      </dl>
      <p class="mt-1 {base.better ? 'text-safe' : 'text-signal'} font-semibold">
        {base.better ? "saves" : "costs more:"} <span class="figure">{shown(base.saving)}</span> per piece{#if base.yearly_saving},
          <span class="figure">{shown(base.yearly_saving)}</span> a year{/if}
      </p>
      {#if base.note}<p class="text-soft">{base.note}</p>{/if}
    {:else if writing}
      <form class="grid grid-cols-[110px_1fr] items-center gap-1.5" onsubmit={keep}>
        <label for="base-seconds">seconds per piece</label>
        <FormField id="base-seconds" field="seconds" problem={refusal} bind:value={draft.value.seconds} />
        <label for="base-cost">{session.currency} per piece</label>
        <FormField id="base-cost" field="cost" problem={refusal} bind:value={draft.value.cost} />
        <button class="control col-start-2">Keep as the current process</button>
      </form>
    {:else}
      <p class="text-soft">No current process is kept with this job.</p>
      {#if session.mayEdit}<button class="control mt-1" onclick={() => (writing = true)}
          >Enter the current process</button
        >{/if}
    {/if}
    <h3 class="text-soft mt-2 text-[13px] font-semibold">Prints</h3>
    <ul>
      {#each job.prints as print (print.id)}
        <li>
          <button class="block w-full" aria-label="Look at {print.name}" onclick={() => (looking = print.id)}
            ><img
              src="/api/jobs/{job.id}/prints/{print.id}/picture"
              alt="Print {print.name}"
              class="border-line max-h-40 w-full border object-contain object-top"
              onerror={(event) => ((event.currentTarget as HTMLImageElement).hidden = true)}
            /></button
          >
          <a class="plain-link" href="/api/jobs/{job.id}/prints/{print.id}">{print.name}</a>
        </li>
      {/each}
    </ul>
    {#if session.mayEdit}
      <label class="mt-1 block text-[13px]"
        >Add a drawing (PDF, PNG, JPEG)
        <input
          type="file"
          accept=".pdf,.png,.jpg,.jpeg"
          class="block w-full text-[13px]"
          onchange={upload}
        /></label
      >
    {/if}
    {#if refused}<p role="alert" class="text-signal">{refused}</p>{/if}
  </div>
</Panel>
{#if looking !== null}
  <Sheet
    title="Print · {job.prints.find((one) => one.id === looking)?.name}"
    close={() => (looking = null)}
    wide
  >
    <img src="/api/jobs/{job.id}/prints/{looking}/picture" alt="The print of the part" class="w-full" />
  </Sheet>
{/if}
