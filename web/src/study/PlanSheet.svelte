<script lang="ts">
  import { pieces } from "../lib/names";
  import { api, ask } from "../api/client";
  import EntryField from "../lib/EntryField.svelte";
  import Sheet from "../lib/Sheet.svelte";
  import type { OperationBench } from "../operation/bench.svelte";
  import ChipForm from "../operation/ChipForm.svelte";
  import { session, shown } from "../session.svelte";
  import DepthRails from "./DepthRails.svelte";
  import SizeControl from "./SizeControl.svelte";
  import { Study } from "./study.svelte";
  import Working from "./Working.svelte";

  let { bench, close }: { bench: OperationBench; close: () => void } = $props();
  // svelte-ignore state_referenced_locally
  const study = new Study(bench, () =>
    ask(api.POST("/api/jobs/{job_id}/operations/{operation}/plan", bench.question)),
  );
  const found = $derived(study.answer);
  const bare = (text: string) => text.replace(/\s.*$/, "");
  const refusal = $derived(
    bench.problem?.errors.find((error) => /pass_depths|last_depth|depth_of_cut/.test(error.field)),
  );
  const list = $derived(
    refusal
      ? bench.kept("pass_depths")
      : (found?.passes.map((one) => bare(shown(one.depth))).join("; ") ?? ""),
  );
</script>

<Sheet title="Passes and size · {bench.heading}" wide {close}>
  {#if study.problem && !refusal}<p role="alert" class="text-signal">{study.problem}</p>{/if}
  {#if found}
    <div class="grid gap-x-6 md:grid-cols-[1fr_1.25fr]" aria-busy={study.stale}>
      <section>
        <h3 class="font-semibold">How deep a pass may be</h3>
        <DepthRails plan={found} />
      </section>
      <section>
        <h3 class="font-semibold">
          {found.passes.length}
          {found.passes.length === 1 ? "pass" : "passes"} over
          <span class="figure">{shown(found.stock)}</span>
        </h3>
        <div class="mt-1 flex flex-wrap items-end gap-2">
          <label class="grid min-w-44 flex-1"
            >depths, one by one <EntryField
              value={list}
              disabled={!session.mayEdit}
              field="pass_depths"
              problem={bench.problem}
              giveUp={() => bench.drop("pass_depths")}
              commit={(text) => bench.attempt({ pass_depths: text || null })}
            /></label
          >
          <label class="grid w-28"
            >planned last <EntryField
              field="last_depth"
              problem={bench.problem}
              giveUp={() => bench.drop("last_depth")}
              value={bench.kept("last_depth")}
              placeholder="like the others"
              disabled={!session.mayEdit}
              commit={(text) => bench.attempt({ last_depth: text || null, pass_depths: null })}
            /></label
          >
          {#if session.mayEdit}
            <button
              class="control"
              onclick={() =>
                bench.attempt({
                  depth_of_cut: shown(found.equal_depth),
                  last_depth: null,
                  pass_depths: null,
                })}>fewest: {found.fewest} × {shown(found.equal_depth)}</button
            >
            {#if found.explicit}<button class="control" onclick={() => bench.attempt({ pass_depths: null })}
                >equal cuts</button
              >{/if}
          {/if}
        </div>
        <table class="mt-2 w-full" aria-label="Passes as planned">
          <thead class="text-soft text-left text-[13px]"
            ><tr class="border-line border-b"
              ><th scope="col" class="py-1 font-normal">pass</th><th scope="col" class="font-normal">depth</th
              ><th scope="col" class="font-normal">to Ø</th><th scope="col" class="font-normal">deflection</th
              ><th scope="col" class="font-normal">springs</th><th scope="col" class="font-normal"
                >chip, ISO 3685</th
              ></tr
            ></thead
          >
          <tbody>
            {#each found.passes as pass (pass.number)}
              <tr class="border-line border-b" data-testid="planned-pass"
                ><td class="figure py-1">{pass.number}</td><td class="figure">{shown(pass.depth)}</td><td
                  class="figure">{shown(pass.to_diameter)}</td
                ><td class="figure">{shown(pass.push)}</td><td class="figure">{shown(pass.springs)}</td><td
                  ><span class="flex items-center gap-1.5" title={pass.chip.why}
                    ><ChipForm code={pass.chip.code} />
                    <span class={pass.chip.verdict === "breaks" ? "text-safe" : "text-warn"}
                      >{pass.chip.code} {pass.chip.form}, {pass.chip.verdict}</span
                    ></span
                  ><span class="text-soft text-[13px]"
                    >h <span class="figure">{shown(pass.chip.thickness)}</span> →
                    <span class="figure">{shown(pass.chip.thickness_after)}</span>{#if pass.chip.curl_radius},
                      curl r
                      <span class="figure">{shown(pass.chip.curl_radius)}</span>{/if}, about
                    <span class="figure">{shown(pass.chip.long)}</span> long · strain {pass.chip.strain}</span
                  ></td
                ></tr
              >
            {/each}
          </tbody>
        </table>
        {#each found.notes as note, k (k)}<p class="mt-1.5">▸ {note}</p>{/each}
        <p class="mt-1.5">
          ▸ Wear makes it {bench.entry?.operation === "bore" ? "shrink" : "grow"} by
          <span class="figure">{shown(found.drift)}</span>
          per piece{#if found.correct_every}: offset interval {pieces(found.correct_every)}{/if}.
        </p>
      </section>
    </div>
    {#if found.ledger}<SizeControl {bench} ledger={found.ledger} reload={() => study.ask()} />{/if}
    <Working lines={[...found.working, ...(found.ledger?.working ?? [])]} />
  {:else if !study.problem}<p class="text-soft" aria-busy="true">Planning the passes …</p>{/if}
</Sheet>
