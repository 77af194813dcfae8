<script module lang="ts">
  import { Annotation } from "@codemirror/state";

  /** A change that came from the page and not from the person. */
  const fromOutside = Annotation.define<boolean>();
</script>

<script lang="ts">
  import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
  import { HighlightStyle, syntaxHighlighting } from "@codemirror/language";
  import { lintGutter, setDiagnostics, type Diagnostic } from "@codemirror/lint";
  import { EditorState, StateEffect, StateField } from "@codemirror/state";
  import { Decoration, EditorView, highlightActiveLine, keymap, lineNumbers } from "@codemirror/view";
  import { tags } from "@lezer/highlight";
  import { onMount } from "svelte";
  import type { Schemas } from "../api/client";
  import { wordAddress } from "./language";

  /** A program as text: faults stand on their line, the line in the picture is marked, what is typed goes out. */
  interface Props {
    text: string;
    label: string;
    findings: readonly Schemas["FindingOut"][];
    /** The line that the picture shows, from 1. */
    line: number | null;
    change: (text: string) => void;
    go: (line: number) => void;
    readonly?: boolean;
  }
  let { text, label, findings, line, change, go, readonly = false }: Props = $props();
  let place: HTMLElement | undefined = $state();
  let view: EditorView | undefined = $state.raw();

  const mark = StateEffect.define<number | null>();
  const marked = StateField.define({
    create: () => Decoration.none,
    update(now, transaction) {
      let found = now.map(transaction.changes);
      for (const effect of transaction.effects)
        if (effect.is(mark)) {
          const at = effect.value;
          found =
            at && at <= transaction.state.doc.lines
              ? Decoration.set([
                  Decoration.line({ class: "cm-shown" }).range(transaction.state.doc.line(at).from),
                ])
              : Decoration.none;
        }
      return found;
    },
    provide: (field) => EditorView.decorations.from(field),
  });
  const colours = HighlightStyle.define([
    { tag: tags.comment, color: "var(--soft)", fontStyle: "italic" },
    { tag: tags.keyword, color: "var(--ink)", fontWeight: "600" },
    { tag: tags.atom, color: "var(--warn)" },
    { tag: tags.meta, color: "var(--soft)" },
    { tag: tags.number, color: "var(--ink)" },
  ]);

  const looks = EditorView.theme({
    "&": { height: "100%", fontSize: "13px", background: "var(--sheet)", color: "var(--ink)" },
    ".cm-scroller": { fontFamily: "var(--font-mono)", lineHeight: "1.45" },
    ".cm-gutters": { background: "var(--wash)", color: "var(--soft)", border: "none" },
    ".cm-activeLine": { background: "transparent", outline: "1px dotted var(--soft)" },
    ".cm-activeLineGutter": { background: "transparent", color: "var(--ink)" },
    ".cm-shown": { background: "var(--mark-wash)", boxShadow: "inset 3px 0 var(--mark)" },
    ".cm-cursor": { borderLeftColor: "var(--ink)" },
    ".cm-lintRange-error": { textDecoration: "underline wavy var(--signal)", backgroundImage: "none" },
    ".cm-lintRange-warning": { textDecoration: "underline wavy var(--warn)", backgroundImage: "none" },
    ".cm-lint-marker": { content: '""', width: "10px", height: "10px" },
    ".cm-lint-marker-error": { background: "var(--signal)", clipPath: "polygon(50% 0, 100% 100%, 0 100%)" },
    ".cm-lint-marker-warning": { background: "var(--warn)", borderRadius: "50%" },
    ".cm-tooltip": { background: "var(--sheet)", color: "var(--ink)", border: "1px solid var(--edge)" },
  });

  onMount(() => {
    const root = place!.shadowRoot ?? place!.attachShadow({ mode: "open" });
    view = new EditorView({
      parent: root,
      root,
      state: EditorState.create({
        doc: text,
        extensions: [
          looks,
          lineNumbers(),
          lintGutter(),
          history(),
          highlightActiveLine(),
          marked,
          wordAddress,
          syntaxHighlighting(colours),
          // Escape leaves the editor, so that Tab goes on to the next field
          keymap.of([...defaultKeymap, ...historyKeymap]),
          EditorState.readOnly.of(readonly),
          EditorView.contentAttributes.of({ "aria-label": label, spellcheck: "false", tabindex: "0" }),
          // typed over a selection: done here, as the browser would mend the lines with styles that the page's policy forbids
          EditorView.domEventHandlers({
            beforeinput(event, now) {
              if (event.inputType !== "insertText" || event.data === null || now.state.selection.main.empty)
                return false;
              event.preventDefault();
              now.dispatch(now.state.replaceSelection(event.data), { userEvent: "input.type" });
              return true;
            },
          }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged && !update.transactions.some((one) => one.annotation(fromOutside)))
              change(update.state.doc.toString());
            if (update.selectionSet && update.view.hasFocus)
              go(update.state.doc.lineAt(update.state.selection.main.head).number);
          }),
        ],
      }),
    });
    return () => view?.destroy();
  });

  $effect(() => {
    if (!view || view.state.doc.toString() === text) return;
    view.dispatch({
      changes: { from: 0, to: view.state.doc.length, insert: text },
      annotations: fromOutside.of(true),
    });
  });
  $effect(() => {
    if (!view) return;
    const doc = view.state.doc;
    const diagnostics: Diagnostic[] = findings
      .filter((one) => one.line <= doc.lines)
      .map((one) => ({
        from: doc.line(one.line).from,
        to: doc.line(one.line).to,
        severity: one.severity === "stop" ? ("error" as const) : ("warning" as const),
        message: one.remedy ? `${one.text} → ${one.remedy}` : one.text,
      }));
    view.dispatch(setDiagnostics(view.state, diagnostics));
  });
  $effect(() => {
    if (!view) return;
    const at = line && line <= view.state.doc.lines ? line : null;
    view.dispatch({
      effects: [
        mark.of(at),
        ...(at && !view.hasFocus
          ? [EditorView.scrollIntoView(view.state.doc.line(at).from, { y: "nearest" })]
          : []),
      ],
    });
  });
</script>

<!-- in a root of its own: its rules are sheets that the page's policy lets stand -->
<div bind:this={place} class="border-line h-full border" data-testid="program-editor"></div>
