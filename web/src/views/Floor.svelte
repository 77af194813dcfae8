<script lang="ts">
  import { createQuery } from "@tanstack/svelte-query";
  import { scaleLinear } from "d3-scale";
  import { api, ask, type Schemas } from "../api/client";
  import { page } from "../page.svelte";
  import { shown } from "../session.svelte";

  page.open("Floor", [{ label: "Floor" }]);
  const machines = createQuery(() => ({
    queryKey: ["machines"],
    queryFn: () => ask(api.GET("/api/floor/machines")),
  }));

  function curve(machine: Schemas["MachineSheet"]) {
    const top = Number(machine.power_curve.at(-1)?.[0] ?? 1);
    const points = machine.power_curve as [number, number][];
    const most = Math.max(...points.map(([, power]) => power));
    const x = scaleLinear([0, top], [34, 250]);
    const y = scaleLinear([0, most * 1.1], [84, 8]);
    return {
      path: points.map(([n, p], k) => `${k ? "L" : "M"}${x(n)},${y(p)}`).join(""),
      x,
      y,
      top,
      most,
    };
  }
</script>

<div class="mx-auto max-w-[1264px] p-2">
  <h1 class="sr-only">Floor</h1>
  {#if machines.isError}<p role="alert" class="text-signal p-4">{machines.error.message}</p>{/if}
  <div class="grid grid-cols-2 gap-2 max-lg:grid-cols-1">
    {#each machines.data ?? [] as machine (machine.name)}
      {@const c = curve(machine)}
      <section class="bg-sheet border-line border p-3" aria-label={machine.name}>
        <h2 class="text-[17px] font-semibold">{machine.name}</h2>
        <p class="text-soft">
          {machine.description} · condition {machine.condition} · coolant {machine.coolant.join(", ")}
        </p>
        <div class="mt-2 grid grid-cols-[260px_1fr] gap-4 max-sm:grid-cols-1">
          <div>
            <svg
              viewBox="0 0 270 104"
              role="img"
              aria-label="Power over spindle speed, at the {machine.curve_at}"
            >
              <path d="M34,8V84H250" class="draw-size" />
              <path d={c.path} fill="none" stroke="var(--ink)" stroke-width="1.8" />
              {#each c.x.ticks(4) as t (t)}<text
                  x={c.x(t)}
                  y="98"
                  text-anchor="middle"
                  class="draw-text figure"
                  font-size="11">{t}</text
                >{/each}
              {#each c.y.ticks(3) as t (t)}<text
                  x="30"
                  y={c.y(t) + 4}
                  text-anchor="end"
                  class="draw-text figure"
                  font-size="11">{t}</text
                >{/each}
            </svg>
            <p class="text-soft text-[13px]">kW at the {machine.curve_at} over 1/min</p>
          </div>
          <dl class="grid grid-cols-[1fr_auto] gap-x-3 self-start text-[13px]">
            {#each machine.facts as fact (fact.label)}<dt class="text-soft">{fact.label}</dt>
              <dd class="figure text-right">{shown(fact.display)}</dd>{/each}
          </dl>
        </div>
        {#if machine.speeds.length}<p class="mt-2">
            <span class="text-soft">speeds</span> <span class="figure">{machine.speeds.join(" · ")}</span>
          </p>{/if}
        {#if machine.feeds.length}<p>
            <span class="text-soft">feeds</span>
            <span class="figure">{machine.feeds.map((f) => shown(f).replace(/ .*/, "")).join(" · ")}</span>
          </p>{/if}
        <p class="text-soft mt-1 text-[13px]">Source: {machine.source}.</p>
      </section>
    {/each}
  </div>
</div>
