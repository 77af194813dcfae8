<script lang="ts">
  import Sheet from "../lib/Sheet.svelte";
  import { session } from "../session.svelte";
  import type { JobEditor } from "./editor.svelte";

  let { editor, close }: { editor: JobEditor; close: () => void } = $props();
  const house = $derived(editor.job!.document.house ?? {});
  const locked = $derived(!session.mayEdit);

  // where good people disagree: both schools, the first is the default
  const SCHOOLS: { name: string; label: string; why: string; options: [string, boolean | number][] }[] = [
    {
      name: "never_above_book",
      label: "above the book's window",
      why: "The cautious school never goes above it and freely below; the other pushes until chip or edge says no.",
      options: [
        ["never", true],
        ["may go above", false],
      ],
    },
    {
      name: "equal_cuts",
      label: "last cut to a tolerance",
      why: "Equal cuts keep the tool's pressure, and so its offset; a light last cut wants a sharp edge.",
      options: [
        ["like the others", true],
        ["light, with a sharp edge", false],
      ],
    },
    {
      name: "off_centre",
      label: "height of the tip",
      why: "On centre, or a hundredth of the diameter below it outside; rake and clearance are shown at the edge angles.",
      options: [
        ["on centre", 0],
        ["a little below outside", 0.01],
      ],
    },
  ];
  const NUMBERS: [string, string, number, number, number, string][] = [
    ["light_cut", "light last cut, mm", 0.2, 0.01, 5, "where the last cut is light"],
    [
      "polishing_allowance",
      "left for polishing, mm on Ø",
      0.01,
      0,
      0.2,
      "where a surface is polished to size",
    ],
    [
      "measuring_uncertainty",
      "micrometer ±, mm",
      0.01,
      0.0001,
      1,
      "expanded, k = 2, of the usual instrument",
    ],
    [
      "share_of_tolerance",
      "share of the tolerance for springing",
      0.5,
      0.05,
      1,
      "how much of it the part may spring",
    ],
    ["wear_factor", "worn edge's force", 1.3, 1, 2, "against a new one; power and strength are checked worn"],
    ["grip_safety", "grip safety", 2, 1, 10, "held torque over cutting torque"],
    [
      "secure_probability",
      "secure run, unattended",
      0.95,
      0.5,
      0.9999,
      "that an edge reaches its planned change",
    ],
    ["attended_probability", "the same, attended", 0.8, 0.3, 0.9999, ""],
  ];

  const now = (school: (typeof SCHOOLS)[number]) => {
    const value = house[school.name];
    return (school.options.find(([, one]) => one === value) ?? school.options[0]!)[0];
  };

  function keep(name: string, value: boolean | number | undefined) {
    if (value !== undefined)
      void editor.save({ action: "set_part", operation: "", units: session.units, house: { [name]: value } });
  }

  function number(event: Event, name: string) {
    const field = event.currentTarget as HTMLInputElement;
    if (field.value.trim() !== "" && Number.isFinite(Number(field.value))) keep(name, Number(field.value));
    else field.reportValidity();
  }
</script>

<Sheet title="House rules of this job" {close}>
  <p class="text-soft">Where good people disagree both schools are here; the first is the default.</p>
  <div class="mt-2 grid grid-cols-[1fr_220px] items-center gap-x-4 gap-y-2">
    {#each SCHOOLS as school (school.name)}
      <label for="house-{school.name}"
        >{school.label}<br /><span class="text-soft text-[13px]">{school.why}</span></label
      >
      <select
        id="house-{school.name}"
        class="control"
        disabled={locked}
        value={now(school)}
        onchange={(event) =>
          keep(school.name, school.options.find(([said]) => said === event.currentTarget.value)?.[1])}
      >
        {#each school.options as [said] (said)}<option>{said}</option>{/each}
      </select>
    {/each}
    {#each NUMBERS as [name, label, usual, low, high, why] (name)}
      <label for="house-{name}"
        >{label}{#if why}<br /><span class="text-soft text-[13px]">{why}</span>{/if}</label
      >
      <input
        id="house-{name}"
        class="control figure"
        type="number"
        min={low}
        max={high}
        step="any"
        disabled={locked}
        value={house[name] ?? usual}
        onchange={(event) => number(event, name)}
      />
    {/each}
  </div>
  {#if editor.problem}<p role="alert" class="text-signal mt-2">{editor.problem.message}</p>{/if}
</Sheet>
