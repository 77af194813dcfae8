<script lang="ts">
  import EnterTool from "../lib/EnterTool.svelte";
  import EntryField from "../lib/EntryField.svelte";
  import Panel from "../lib/Panel.svelte";
  import Scroll from "../lib/Scroll.svelte";
  import { other, session, shown } from "../session.svelte";
  import type { OperationBench } from "./bench.svelte";
  import Cautions from "./Cautions.svelte";
  import KindTable from "./KindTable.svelte";
  import PassTable from "./PassTable.svelte";

  let { bench, warn }: { bench: OperationBench; warn: () => void } = $props();

  const settings = $derived(bench.evaluation?.settings ?? []);
  const turning = $derived(["turned", "bore"].includes(bench.evaluation?.view.kind ?? ""));
  let typed = $state<Record<string, string | undefined>>({});
  $effect(() => {
    bench.typing = Object.values(typed).some((entry) => entry !== undefined);
  });

  const setting = (name: string) => settings.find((one) => one.name === name);
  const unplanned = $derived(
    bench.editor.job?.state.operations.find((row) => row.id === bench.operation && row.status === "no tool"),
  );
  const refusal = $derived(bench.problem?.errors.find((error) => error.field.startsWith("settings.")));
  const refused = (name: string) => (refusal?.field === `settings.${name}` ? refusal : undefined);
  const text = (name: string) => {
    if (typed[name] !== undefined) return typed[name];
    if (name in bench.tried) return String(bench.tried[name]);
    return shown(setting(name)?.display);
  };
  const place = (name: string) => {
    const at = setting(name);
    if (!at || at.high === null || at.high === undefined) return null;
    const low = at.low ?? 0;
    const share = (at.value - low) / Math.max(at.high - low, 1e-9);
    return Math.max(-0.22, Math.min(1.22, share)) * 62 + 25;
  };
  const over = (name: string) => {
    const at = setting(name);
    return (
      !!at &&
      ((at.high != null && at.value > at.high) ||
        (at.low != null && at.value < at.low && name !== "cutting_speed"))
    );
  };

  const passes = $derived.by(() => {
    const rows = bench.evaluation?.passes ?? [];
    const alike = rows.every((row) => row.depth.metric === rows[0]?.depth.metric);
    return `${rows.length || "–"} × ${alike ? "equal" : "planned"}`;
  });
  const overhang = $derived.by(() => {
    const view = bench.evaluation?.view;
    return view && "scene_labels" in view ? `↧ ${shown(view.scene_labels.overhang)}` : "";
  });
  const LABELS: Record<string, string> = { spindle_clamp: "clamp" };
  const kept = (one: { name: string; value: string }) => {
    const entry = one.name in bench.tried ? bench.tried[one.name] : one.value;
    return entry == null ? "" : String(entry).replace(/\s*(1\/min|rpm)$/, "");
  };

  function commit(name: string) {
    const entry = typed[name];
    if (entry === undefined) return;
    typed[name] = undefined;
    if (entry.trim() && entry !== shown(setting(name)?.display)) bench.attempt({ [name]: entry });
  }

  function key(event: KeyboardEvent, name: string) {
    const steps: Record<string, ["fine" | "normal" | "coarse", 1 | -1]> = {
      ArrowUp: [event.shiftKey ? "fine" : "normal", 1],
      ArrowDown: [event.shiftKey ? "fine" : "normal", -1],
      PageUp: ["coarse", 1],
      PageDown: ["coarse", -1],
    };
    const step = steps[event.key];
    if (step) {
      event.preventDefault();
      typed[name] = undefined;
      bench.nudge(name, ...step);
    } else if (event.key === "Enter") {
      commit(name);
    } else if (event.key === "Escape") {
      // Escape gives the entry up and leaves the field
      event.stopPropagation();
      typed[name] = undefined;
      if (name in bench.tried) bench.drop(name);
      (event.currentTarget as HTMLInputElement).blur();
    }
  }

  function leave(name: string) {
    commit(name);
    void bench.save();
  }
</script>

<Panel title="Settings" stale={bench.stale} class="area-settings">
  {#snippet aside()}adjust <kbd>↑</kbd> <kbd>↓</kbd> fine <kbd>⇧</kbd>{/snippet}
  <!-- one roll for all of it: however many entries a kind has, the cautions below stay in sight -->
  <Scroll class="px-2.5" counts="label, tbody tr">
    <div class="grid grid-cols-[56px_108px_82px_1fr] items-center gap-x-2 gap-y-[3px]">
      {#each settings as at (at.name)}
        {@const name = at.name}
        {@const error = refused(name)}
        <label for={name}>{at.label}</label>
        <input
          id={name}
          class="control figure w-full !px-1.5 text-[14px] {error
            ? 'refused'
            : over(name)
              ? '!border-signal'
              : ''}"
          style={text(name).length > 12 ? "font-size: 11px; padding-inline: 2px !important" : ""}
          value={text(name)}
          disabled={!session.mayEdit}
          autocomplete="off"
          aria-invalid={error ? "true" : undefined}
          aria-describedby="{name}-more"
          onfocus={(event) => event.currentTarget.select()}
          oninput={(event) => (typed[name] = event.currentTarget.value)}
          onblur={() => leave(name)}
          onkeydown={(event) => key(event, name)}
        />
        <svg viewBox="0 0 112 28" width="82" height="24" role="img" aria-label="{at.label} in its window">
          <rect x="2" y="9" width="108" height="4" class="fill-[var(--rail)]" />
          {#if at?.high != null}
            <rect x="25" y="9" width="62" height="4" class="fill-safe" />
            <text x="25" y="26" text-anchor="middle" class="draw-text figure"
              >{shown(at.low_display).replace("–", "0")}</text
            >
            <text x="87" y="26" text-anchor="middle" class="draw-text figure">{shown(at.high_display)}</text>
            <path d="M{place(name)! - 4},0h8l-4,8z" class={over(name) ? "fill-signal" : "fill-ink"} />
          {/if}
        </svg>
        <span
          class="figure text-soft text-[12px] {(other(at?.display) ?? '').length > 12
            ? 'leading-none'
            : 'whitespace-nowrap'}"
          id="{name}-more">{name === "depth_of_cut" ? passes : other(at?.display)}</span
        >
        {#if error}
          <p class="text-signal col-span-4" role="alert">
            {error.message}
            {#each error.readings ?? [] as reading (reading)}
              <button class="plain-link mr-2" onclick={() => bench.attempt({ [name]: reading })}
                >{reading}</button
              >
            {/each}
          </p>
        {/if}
      {/each}
      <div class="col-span-4 flex flex-wrap items-center gap-x-3 gap-y-1">
        {#each bench.evaluation?.choices ?? [] as choice (choice.name)}
          <label class="flex items-center gap-1.5"
            >{choice.label}
            <select
              id={choice.name}
              class="control max-w-[150px]"
              disabled={!session.mayEdit}
              value={String(bench.tried[choice.name] ?? choice.value)}
              onchange={(event) => bench.attempt({ [choice.name]: event.currentTarget.value })}
            >
              {#each choice.options as option (option)}<option>{option}</option>{/each}
            </select></label
          >
        {/each}
        <label class="flex items-center gap-1.5"
          >coolant
          <select
            id="coolant"
            class="control"
            disabled={!session.mayEdit}
            value={String(bench.tried.coolant ?? bench.entry?.settings.coolant ?? "flood")}
            onchange={(event) => bench.attempt({ coolant: event.currentTarget.value })}
          >
            {#each bench.evaluation?.coolants ?? [] as coolant (coolant)}<option>{coolant}</option>{/each}
          </select></label
        >
        {#each bench.evaluation?.typed ?? [] as one (one.name)}
          <label class="flex items-center gap-1.5"
            >{LABELS[one.name] ?? one.label}
            <span class="inline-block {one.name === 'per_layer' ? 'w-[180px]' : 'w-[70px]'}"
              ><EntryField
                id={one.name === "spindle_clamp" ? "clamp" : one.name}
                field="settings.{one.name}"
                problem={bench.problem}
                placeholder={one.name === "spindle_clamp" ? "none" : one.example}
                disabled={!session.mayEdit}
                value={kept(one)}
                giveUp={() => bench.drop(one.name)}
                commit={(text) => bench.attempt({ [one.name]: text || null })}
              /></span
            ></label
          >
        {/each}
        {#if turning}<span class="figure text-soft text-[12.5px]" title="overhang of the tool"
            >{overhang}</span
          >{/if}
      </div>
    </div>
    {#if unplanned?.problem}
      <p class="text-signal mt-1 font-semibold" role="status">
        {shown(unplanned.problem)}
        <EnterTool record={unplanned.wanted} job={bench.editor.id} />
      </p>
    {:else if bench.problem && !refusal}
      <p class="text-signal mt-1" role="alert">{bench.problem.message}</p>
    {/if}
    {#if turning}<PassTable passes={bench.evaluation?.passes ?? []} />
    {:else if bench.evaluation?.table}<KindTable table={bench.evaluation.table} />{/if}
  </Scroll>
  <div class="border-line mx-2.5 border-t py-1"><Cautions {bench} open={warn} /></div>
</Panel>
