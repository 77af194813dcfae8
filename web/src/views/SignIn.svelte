<script lang="ts">
  import { Problem } from "../api/client";
  import Factor from "../people/Factor.svelte";
  import Password from "../lib/Password.svelte";
  import { session } from "../session.svelte";

  interface Props {
    /** Who was signed in until now: the page behind waits with all that is typed on it. */
    back?: string;
  }
  let { back = "" }: Props = $props();
  // svelte-ignore state_referenced_locally
  let name = $state(back);
  let password = $state("");
  let code = $state("");
  /** The password was right, and a code is asked as well. */
  let asked = $state(false);
  let problem = $state("");
  let busy = $state(false);
  let first = $state<HTMLInputElement>();
  let second = $state<HTMLInputElement>();
  // svelte-ignore state_referenced_locally
  if (!back) document.title = "Sign in · Arrow Bench";
  $effect(() => (back ? second : first)?.focus());

  async function signIn(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    problem = "";
    try {
      await session.signIn(name, password, code);
      if (back && name !== back) location.reload(); // what stands behind is somebody else's
    } catch (reason) {
      problem = (reason as Error).message;
      if (reason instanceof Problem && reason.errors.some((one) => one.field === "code")) asked = true;
    } finally {
      busy = false;
    }
  }
</script>

<main class="grid min-h-full place-items-center p-6">
  <div class="bg-sheet border-line w-[360px] border p-6">
    <h1 class="flex items-center gap-3 text-2xl font-semibold">
      <svg viewBox="0 0 30 16" class="h-5 w-10" aria-hidden="true">
        <path d="M2 2v12M2 8h16" stroke="currentColor" stroke-width="2" fill="none" />
        <path d="M17 3l11 5-11 5z" class="fill-signal" />
      </svg>
      Arrow Bench
    </h1>
    {#if session.person?.must_have_factor && !session.person.must_change && !back}
      <p class="mt-3">
        The shop asks a second factor of your role, {session.person.name}: set it up, then the bench opens.
      </p>
      <div class="mt-4"><Factor done={() => void session.load()} /></div>
      <button class="plain-link mt-3" onclick={() => void session.signOut()}>Sign out</button>
    {:else if session.person?.name && !back}
      <p class="mt-3">
        Your password was made by somebody else. Choose one of your own, {session.person.name}: then the bench
        opens.
      </p>
      <div class="mt-4"><Password /></div>
      <button class="plain-link mt-3" onclick={() => void session.signOut()}>Sign out</button>
    {:else}
      <p class="text-soft mt-1">
        {back
          ? "You are signed out. What you typed stands behind this; sign in and go on."
          : "Every number shows how close its limits are."}
      </p>
      <form class="mt-5 grid gap-3" onsubmit={signIn}>
        <label class="grid gap-1"
          >Name <input
            class="control"
            name="name"
            autocomplete="username"
            required
            bind:this={first}
            bind:value={name}
          /></label
        >
        <label class="grid gap-1"
          >Password <input
            class="control"
            type="password"
            name="password"
            autocomplete="current-password"
            required
            bind:this={second}
            bind:value={password}
          /></label
        >
        {#if asked}<label class="grid gap-1"
            >Code of your device <input
              class="control"
              name="code"
              inputmode="numeric"
              autocomplete="one-time-code"
              bind:value={code}
            /></label
          >{/if}
        {#if problem}<p role="alert" class="text-signal font-semibold">{problem}</p>{/if}
        <button class="bg-ink text-sheet min-h-9 font-semibold" disabled={busy}>Sign in</button>
      </form>
    {/if}
  </div>
</main>
