<script lang="ts">
  import { router } from "svelte-spa-router";

  const rooms = [
    ["/crib", "Tools"],
    ["/crib/geometries", "Geometries and grades"],
    ["/crib/assemblies", "Assemblies"],
    ["/crib/heavy-tools", "Heavy tools"],
    ["/crib/tool-materials", "Tool material"],
    ["/exchange", "Import and export"],
  ] as const;
  // the longest path that the address starts with
  const here = $derived(
    rooms.filter(([path]) => router.location === path || router.location.startsWith(`${path}/`)).at(-1)?.[0],
  );
</script>

<nav aria-label="In the crib" class="border-line flex gap-5 border-b px-1 pb-1">
  {#each rooms as [path, label] (path)}
    <a
      href="#{path}"
      aria-current={path === here ? "page" : undefined}
      class="pb-0.5 {path === here ? 'border-mark border-b-2 font-semibold' : 'text-soft hover:underline'}"
      >{label}</a
    >
  {/each}
</nav>
