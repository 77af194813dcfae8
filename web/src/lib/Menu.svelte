<script lang="ts">
  import { DropdownMenu } from "bits-ui";
  import { push } from "svelte-spa-router";
  import { session } from "../session.svelte";
  import { page } from "../page.svelte";

  const item = "data-highlighted:bg-ink data-highlighted:text-sheet block min-h-8 cursor-pointer px-3 py-1.5";
</script>

<DropdownMenu.Root>
  <DropdownMenu.Trigger class="text-bar-soft px-1 hover:underline" aria-label="{session.person?.name}, menu"
    >{session.person?.name} ▾</DropdownMenu.Trigger
  >
  <DropdownMenu.Portal>
    <DropdownMenu.Content
      class="bg-sheet text-ink border-edge z-50 min-w-48 border py-1"
      sideOffset={6}
      align="end"
    >
      <p class="text-soft px-3 py-1 text-[13px]">
        Signed in as <b>{session.person?.name}</b>, {session.person?.role}
      </p>
      <DropdownMenu.Item class={item} onSelect={() => page.explain()}>Help and keys</DropdownMenu.Item>
      {#if session.mayEdit}<DropdownMenu.Item
          class={item}
          onSelect={() => {
            void session.prefer({ first_steps: true });
            void push("/");
          }}>First steps</DropdownMenu.Item
        >{/if}
      <DropdownMenu.Item
        class={item}
        onSelect={() => void session.prefer({ letter_keys: !session.letterKeys })}
        >Single-letter keys {session.letterKeys ? "off" : "on"}</DropdownMenu.Item
      >
      <DropdownMenu.Item class={item} onSelect={() => void push("/programs")}
        >Check a program</DropdownMenu.Item
      >
      <DropdownMenu.Item class={item} onSelect={() => void push("/account")}>Your account</DropdownMenu.Item>
      {#if session.person?.role === "administrator"}<DropdownMenu.Item
          class={item}
          onSelect={() => void push("/people")}>People</DropdownMenu.Item
        >{/if}
      <DropdownMenu.Item class={item} onSelect={() => void session.signOut()}>Sign out</DropdownMenu.Item>
    </DropdownMenu.Content>
  </DropdownMenu.Portal>
</DropdownMenu.Root>
