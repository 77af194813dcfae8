import { StreamLanguage } from "@codemirror/language";

/** Word-address code as colours tell it apart: comments, words of motion and mode, words of the machine, numbers of lines. */
export const wordAddress = StreamLanguage.define<null>({
  name: "word-address",
  token(stream) {
    if (stream.match(/^\([^)]*\)?/) || stream.match(/^;.*/)) return "comment";
    if (stream.match(/^N\s*\d+/i)) return "meta";
    if (stream.match(/^G\s*\d+(\.\d+)?/i)) return "keyword";
    if (stream.match(/^[MT]\s*\d+/i)) return "atom";
    if (stream.match(/^[A-Z]\s*[+-]?(\d+\.?\d*|\.\d+)/i)) return "number";
    stream.next();
    return null;
  },
});
