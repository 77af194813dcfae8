<script lang="ts">
  import EntryField from "../lib/EntryField.svelte";
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
      label: "above the recommended speed",
      why: "Never: stay within the range. Allowed: until another limit governs.",
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
      label: "tool centre height",
      why: "On centre, or a hundredth of the diameter below it outside; rake and clearance are shown at the edge angles.",
      options: [
        ["on centre", 0],
        ["a little below outside", 0.01],
      ],
    },
  ];
  const NUMBERS: [string, string, number, string][] = [
    ["light_cut", "light last cut, mm", 0.2, "where the last cut is light"],
    ["polishing_allowance", "left for polishing, mm on Ø", 0.01, "where a surface is polished to size"],
    ["setting_step", "setting step, mm on Ø", 0.002, "finest step of an offset or a boring head"],
    ["temperature_known", "temperature known to ±, K", 1, "of the part, when it is measured"],
    ["measuring_uncertainty", "micrometer ±, mm", 0.01, "expanded, k = 2, of the usual instrument"],
    ["share_of_tolerance", "share of the tolerance for springing", 0.5, "how much of it the part may spring"],
    [
      "finish_of_tolerance",
      "height of the surface, share of a tolerance",
      0.33,
      "Rz that a tolerance implies where no finish is said; 0: none",
    ],
    [
      "general_roughness",
      "finish where nothing is said, Ra µm",
      6.3,
      "of a turned face that no later cut finishes",
    ],
    [
      "left_over_share",
      "charged of what a batch leaves of an edge, share",
      0.02,
      "for few pieces a dear edge is worn little; 0: it stays in use",
    ],
    ["wear_factor", "worn edge's force", 1.3, "against a new one; power and strength are checked worn"],
    [
      "sure_fastest",
      "plan holds, fastest",
      0.8,
      "chance that every hard limit of a plan holds, which its settings are chosen for",
    ],
    ["sure_cheapest", "the same, cheapest", 0.9, ""],
    ["sure_secure", "the same, most reliable", 0.97, ""],
    ["grip_safety", "grip safety", 2, "held torque over cutting torque"],
    ["secure_probability", "reliability, unattended", 0.95, "that an edge reaches its planned change"],
    ["attended_probability", "reliability, attended", 0.8, ""],
    ["longest_change_hours", "max. edge use, h in cut", 8, "however well it still looks"],
  ];

  const now = (school: (typeof SCHOOLS)[number]) => {
    const value = house[school.name];
    return (school.options.find(([, one]) => one === value) ?? school.options[0]!)[0];
  };

  const keep = (name: string, value: boolean | number | string) =>
    editor.keep({ action: "set_part", operation: "", units: session.units, house: { [name]: value } });
</script>

<Sheet title="Shop rules for this job" {close}>
  <p class="text-soft">Where shops differ, choose your practice. First option: default.</p>
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
          void keep(school.name, school.options.find(([said]) => said === event.currentTarget.value)![1])}
      >
        {#each school.options as [said] (said)}<option>{said}</option>{/each}
      </select>
    {/each}
    {#each NUMBERS as [name, label, usual, why] (name)}
      <label for="house-{name}"
        >{label}{#if why}<br /><span class="text-soft text-[13px]">{why}</span>{/if}</label
      >
      <span
        ><EntryField
          id="house-{name}"
          field="house.{name}"
          disabled={locked}
          value={String(house[name] ?? usual)}
          commit={(text) => keep(name, text || usual)}
        /></span
      >
    {/each}
  </div>
</Sheet>
