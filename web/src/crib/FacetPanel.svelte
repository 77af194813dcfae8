<script lang="ts">
  import type { FacetName, ToolSearch } from "./search.svelte";

  let { search }: { search: ToolSearch } = $props();
  const words: Record<string, string> = {
    kind: "kind of tool",
    diameter: "cutting Ø, mm",
    pitch: "pitch of a thread, mm",
    shape: "shape",
    circle: "inscribed circle, mm",
    nose_radius: "corner radius, mm",
    geometry: "geometry",
    grade: "grade",
    tool_class: "tool material",
    hand: "hand",
    section: "shank or bar, mm",
    angle: "κr, °",
  };
  let open = $state<Record<string, boolean>>({ kind: true, shape: true, tool_class: true });
</script>

<section
  class="bg-sheet border-line min-h-0 overflow-auto border px-2 py-1"
  aria-label="Narrow by"
  tabindex="-1"
>
  {#each search.facets as facet (facet.name)}
    {@const name = facet.name as FacetName}
    <details bind:open={open[name]} class="border-line border-b py-1 last:border-0">
      <summary class="cursor-pointer py-0.5"
        >{words[name]}{#if search.chosen[name]?.length}<b class="text-mark">
            · {search.chosen[name]!.length}</b
          >{/if}</summary
      >
      <ul class="max-h-44 overflow-auto">
        {#each facet.values as value (value.value)}
          <li>
            <label class="flex items-center gap-1.5 py-px">
              <input
                type="checkbox"
                checked={search.chosen[name]?.includes(value.value) ?? false}
                onchange={() => search.toggle(name, value.value)}
              />
              <span class="min-w-0 flex-1 truncate">{value.value}</span>
              <span class="figure text-soft">{value.count.toLocaleString("en").replace(/,/g, " ")}</span>
            </label>
          </li>
        {/each}
      </ul>
    </details>
  {/each}
</section>
