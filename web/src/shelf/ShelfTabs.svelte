<script lang="ts">
  let { here }: { here: "materials" | "threads" } = $props();
  const rooms = [
    ["materials", "/shelf", "Materials"],
    ["threads", "/shelf/threads", "Threads"],
  ] as const;
</script>

<nav aria-label="On the shelf" class="border-line flex gap-5 border-b px-1 pb-1">
  {#each rooms as [name, path, label] (path)}
    <a
      href="#{path}"
      aria-current={name === here ? "page" : undefined}
      class="pb-0.5 {name === here ? 'border-mark border-b-2 font-semibold' : 'text-soft hover:underline'}"
      >{label}</a
    >
  {/each}
</nav>
