<script lang="ts">
  import { push } from "svelte-spa-router";
  import type { Schemas } from "../api/client";
  import { Clinic } from "../clinic/clinic.svelte";
  import ClinicPane from "../clinic/ClinicPane.svelte";
  import { JobEditor } from "../job/editor.svelte";
  import { editOf } from "../operation/remedy";
  import { page } from "../page.svelte";

  let { params }: { params: { id: string; operation: string } } = $props();
  const editor = $derived(new JobEditor(Number(params.id)));
  const entry = $derived(editor.job?.document.operations.find((one) => one.id === params.operation));
  const kind = $derived(entry?.operation ?? "");
  const clinic = $derived(kind ? new Clinic(kind, { job: editor.id, operation: params.operation }) : null);
  let missing = $state("");
  const bench = $derived(`/jobs/${params.id}/operations/${params.operation}`);
  $effect(() => {
    editor.load().catch((reason: Error) => (missing = reason.message));
  });
  $effect(() =>
    page.open("Clinic", [
      { label: "Jobs", href: "#/" },
      { label: editor.job?.document.name ?? "", href: `#/jobs/${params.id}` },
      { label: editor.told(entry?.title ?? ""), href: `#${bench}` },
      { label: "Clinic" },
    ]),
  );
  async function apply(remedy: Schemas["RemedyOut"]) {
    await editor.save(editOf(params.operation, remedy));
    if (!editor.problem) await push(bench);
  }
</script>

<div class="mx-auto max-w-[1400px] p-3">
  <section class="bg-sheet border-edge border p-3" aria-label="Clinic">
    <h1 class="pb-2 text-lg font-semibold">Clinic: {editor.told(entry?.title ?? "")}</h1>
    {#if missing}<p role="alert" class="text-signal">{missing}</p>
    {:else if editor.job && !entry}<p role="alert" class="text-signal">The job has no such operation.</p>{/if}
    {#if editor.problem}<p role="alert" class="text-signal">Not saved. {editor.problem.message}</p>{/if}
    {#if clinic}{#key clinic}<ClinicPane
          {clinic}
          apply={(remedy) => void apply(remedy)}
          trial={() => void push(bench)}
        />{/key}{/if}
  </section>
</div>
