<script lang="ts">
  /** The product's own line drawings of what is seen: part, hole, edge or chip, and what is wrong with it. */
  let { picture }: { picture: string } = $props();
  const BAR = "M4 12H44V28H4z";
  const BLOCK = "M4 8H18V32H4zM30 8H44V32H30z";
  const EDGE = "M6 10H40V34";
  const GROOVE = "M4 10H16V28H32V10H44";
  const GAUGE = "M4 12H20V28H4zM20 15H34V25H20z";
  const DISC = "M10 8H24V32H10z";
  const SIGHTS: Record<string, string> = {
    string: "M4 22c6-14 10 14 16 0s10 14 16 0 6 4 8 0M4 28c6-10 10 10 16 0s10 10 16 0 6 4 8 0",
    crumbs: "M8 28l4-6 4 6zM18 20l4-6 4 6zM24 30l4-6 4 6zM34 24l4-6 4 6zM14 12l3-4 3 4z",
    flutes: "M16 4V36M32 4V36M16 8l16 8M16 16l16 8M16 24l16 8M20 9l4 5M24 18l4 5M20 26l4 4",
    corkscrews: "M14 4c8 4-8 6 0 10s-8 6 0 10-8 6 0 10M32 4c8 4-8 6 0 10s-8 6 0 10-8 6 0 10",
    stuck: `${EDGE}M8 10c-6 0-6 8 0 8 2 6 10 4 10-2 4-1 3-6 0-6`,
    dark_chips:
      "M8 28c0-12 10-14 12-4M12 28c0-7 5-8 6-3M28 28c0-12 10-14 12-4M32 28c0-7 5-8 6-3M8 28h6M28 28h6M10 25h6M30 25h6",
    smoke: "M8 30H40M14 26c-4-6 4-8 0-14M24 26c-4-6 4-8 0-14M34 26c-4-6 4-8 0-14",
    torn: `${BAR}M8 12l3 4 2-3 4 5 3-4 3 4 4-5 2 4 4-4 3 3M10 22l4 2M22 20l4 3M33 22l4 2`,
    smeared: `${BAR}M9 18h12c4 0 4 4 0 4H9M26 16h10c3 0 3 3 0 3H26`,
    lines: `${BAR}M9 12V28M14 12V28M19 12V28M24 12V28M29 12V28M34 12V28M39 12V28`,
    scratch: `${BAR}M4 20H44M4 21H44`,
    waves: `${BAR}M6 20c3-6 5 6 8 0s5 6 8 0 5 6 8 0 5 6 8 0`,
    sound: "M6 16h6l8-7v22l-8-7H6zM26 15c3 3 3 7 0 10M31 11c6 6 6 12 0 18M36 8c8 8 8 16 0 24",
    taper_free: "M4 14L44 9V31L4 26z",
    taper_chuck: "M4 9L44 14V26L4 31z",
    barrel: "M4 14c12-7 28-7 40 0V26c-12 7-28 7-40 0z",
    hourglass: "M4 9c12 7 28 7 40 0V31c-12-7-28-7-40 0z",
    scatter: "M6 6V34H44M12 24v1M17 14v1M22 28v1M27 12v1M32 22v1M37 16v1M42 27v1M8 20H44",
    drift: "M6 6V34H44M10 30L42 10M12 30v1M20 24v1M28 20v1M36 13v1",
    thermometer: "M22 6c0-3 5-3 5 0V24c5 3 3 10-2.500 10S17 27 22 24zM24.500 14V28M32 10h5M32 16h3M32 22h5",
    lobes: "M24 6c6 0 6 6 11 9 5 4 2 12-4 13-5 1-9 1-14 0-6-1-9-9-4-13 5-3 5-9 11-9z",
    eccentric: "M24 4a16 16 0 1 0 .1 0M27 12a10 10 0 1 0 .1 0M24 18v4M22 20h4M27 20v4",
    taper_bore: "M4 6H44V34H4zM4 12L44 16M4 28L44 24",
    bell: "M4 6H44V34H4zM4 10C10 16 16 16 44 16M4 30C10 24 16 24 44 24",
    dish: "M10 8H24c-5 8-5 16 0 24H10zM34 8c-5 8-5 16 0 24",
    pip: `${DISC}M24 18h5v4h-5`,
    rim_burr: `${DISC}M24 8l6-3M24 32l6 3M24 9l4 0M24 31l4 0`,
    break_centre: "M4 8H20V32H4zM28 4v14l-4 2 4 2v14h6V4zM21 20l4-3M21 20l4 3",
    falls: "M4 10H18V24H4zM26 22l12 6-5 10-12-6zM20 14c6 0 8 3 9 6",
    walls: `${GROOVE}M16 14l4 1M16 19l3 1M16 24l4 1M32 13l-4 2M32 19l-3 1M32 25l-4 0`,
    width: `${GROOVE}M16 33H32M16 31v4M32 31v4M20 31l-4 2 4 2M28 31l4 2-4 2`,
    floor: "M4 10H16V28l4-3 4 3 4-3 4 3V10H44",
    rub_outside: "M4 6V34H14V6M34 6V34H44V6M14 10l6 2M14 16l6 2M14 22l6 2M20 6V26H30V6",
    rub_inside: "M4 6V34H14V6M34 6V34H44V6M34 10l-6 2M34 16l-6 2M34 22l-6 2M18 6V26H28V6",
    oversize: `${BLOCK}M18 20H30M18 20l4-3M18 20l4 3M30 20l-4-3M30 20l-4 3`,
    tight: `${BLOCK}M20 4V36H28V4M18 20h2M28 20h2`,
    crooked: "M4 6H44V34H4zM18 6C18 18 24 20 28 34M26 6C26 18 32 20 36 34M22 2V10",
    off_place: "M4 6H44V34H4zM30 20a6 6 0 1 0 .1 0M18 14v12M12 20h12",
    exit_burr: "M4 8H18V28H4zM30 8H44V28H30zM18 28l-3 7M30 28l3 7M20 28l-1 6M28 28l1 6",
    broken_exit: "M4 8H18V24l-5 8H4zM30 8H44V32H35L30 24z",
    layer: "M4 8H18V32H4zM30 8H44V32H30zM4 18H20V24H4M44 18H28V24H44",
    rings: "M4 6H44V34H4zM4 14L44 18M4 20L44 24M4 26L44 30M4 12H44M4 30H44",
    load: "M6 34V6M6 34H44M10 30L18 27 26 21 34 14 42 7M38 7h4v4",
    broken: "M18 4H30V16l-5 3 4 2-6 3 3 2-8 2V4zM19 32l4-3 6 3v4H19z",
    gauge: `${GAUGE}M40 8V32M44 8V32M36 20h2`,
    gauge_far: "M4 12H20V28H4zM20 15H44V25H20zM34 8V15M34 25V32",
    torn_flank: "M4 28L10 12l6 16 6-16 3 7-2 2 4 1-1 3 3 3 6-16 6 16",
    tapered_thread: "M4 26l5-16 5 15 5-13 5 12 5-10 5 9 5-7 5 6M4 30L44 24",
    drunken: "M4 28l6-16 4 16 8-16 3 16 8-16 5 16 6-14",
    first_turn: "M4 28l3-4 2 2 3-5 2 7 6-16 6 16 6-16 6 16 6-16",
    shallow: "M4 28l4-10h4l4 10 4-10h4l4 10 4-10h4l4 10 4-10",
    flank: `${EDGE}M6 10v5l26-1v-4M12 15v-5M18 15v-5M24 15v-5M30 14v-4`,
    crater: `${EDGE}M12 6c6-4 18-4 22 0M14 6c4 5 14 5 18 0`,
    notch: `${EDGE}M10 10l4 12 4-12M12 14h4`,
    sunk: "M6 16c4 0 6-6 12-6H40V34M6 16v6M6 10h8",
    comb: `${EDGE}M12 4v12M18 4v14M24 4v12M30 4v14`,
    chipped: `${EDGE}M8 10l3 4 3-4M18 10l2 6 4-6M28 10l2 3 2-3`,
    broken_insert: "M18 10H40V34M18 10l-4 6 5 4-3 8 6 6",
    corner: "M14 4H34V22L24 32 14 22zM34 22l-3 3M33 18h-3M34 14h-4M32 20l-4 4",
    slips: "M4 6H14V14H4zM4 26H14V34H4zM10 14H44V26H10M20 20h14M30 17l4 3-4 3",
    shakes: "M14 10H34V30H14zM8 12c-3 5-3 11 0 16M4 14c-2 4-2 8 0 12M40 12c3 5 3 11 0 16M44 14c2 4 2 8 0 12",
    money: "M8 30h14v4H8zM8 26h14v4H8zM8 22h14v4H8zM8 18h14v4H8zM26 30h14v4H26zM26 26h14v4H26z",
    // where a round of looks is taken: the place of the glass, the dial or the eye
    "at control":
      "M6 6H42V30H6zM10 10H30V20H10zM12 17l5-4 4 3 6-5M34 11h5M34 15h5M34 19h5M14 25a2 2 0 1 0 .1 0M24 25a2 2 0 1 0 .1 0M34 25h5",
    "at edge": "M4 30V20H20L24 26V30zM30 13a9 9 0 1 0 .1 0M24 20l-3 4M36 28l7 8",
    "at tool": "M4 14H26V22H4zM26 15h6l2 3-2 3h-6M38 6a6 6 0 1 0 .1 0M38 9v3l2 1M38 18v5l-4-2",
    "at piece": "M4 12H34V28H4zM34 14h4v12h-4M40 4v12l-3-4M40 16l3-4M10 12V28",
    "at coolant": "M6 6H16L20 12M20 12l6 4M20 12l8 1M20 12l4 7M28 22H44V32H28zM8 30c3-4 6 4 9 0s6 4 8 0",
    "at holding": "M4 6H14V14H4zM4 26H14V34H4zM14 14H42V26H14M8 14v3M8 26v-3M36 6a5 5 0 1 0 .1 0M36 16v-2",
    "at machine": "M4 30H44V34H4zM8 30V16H18V30M18 20H40M30 20v-6a4 4 0 1 1 4-4M34 10l2 2",
    "at marks": "M4 16H32V30H4zM8 16V30M12 16V30M16 16V30M20 16V30M34 8a8 8 0 1 0 .1 0M39 22l5 7",
    "at again": "M10 20a12 12 0 1 1 4 9M14 29l-5 1 1-6M24 12v8l6 3",
    "at hole": "M4 8H18V32H4zM30 8H44V32H30zM20 4H28V22H20zM20 12h8M20 17h8",
  };
</script>

<svg viewBox="0 0 48 40" class="h-9 w-11 shrink-0" aria-hidden="true"
  ><path
    d={SIGHTS[picture] ?? ""}
    fill="none"
    stroke="currentColor"
    stroke-width="1.4"
    stroke-linejoin="round"
  /></svg
>
