"""Decodes one picture or draws one page: run as a process of its own, which takes its memory with it when it ends.

`python draw_apart.py upright image/png < file` or `… page application/pdf < file`; the picture comes out, a reason on the other line.
It imports nothing of the house: it starts in a tenth of a second.
"""

from __future__ import annotations

import io
import sys

import pypdfium2
from PIL import Image, ImageOps

WIDTH, MOST_PIXELS = 1400, 12_000_000  # of a page on the screen
MOST_OF_PICTURE = 80_000_000  # pixels of a scanned drawing: an A0 sheet at 220 dpi
REFUSED = 3
TOO_MANY = f"has more pixels than a drawing needs.|{MOST_OF_PICTURE / 1e6:.0f} million pixels"  # what is wrong, and the bound


def upright(content: bytes, form: str) -> bytes:
    """A PNG or JPEG decoded and written again, upright, with nothing but its pixels. Its header tells its size before it is decoded."""
    with Image.open(io.BytesIO(content), formats=[form]) as picture:
        if picture.width * picture.height > MOST_OF_PICTURE:
            raise ValueError(TOO_MANY)
        turned = ImageOps.exif_transpose(picture)
        turned.info.clear()
        out = io.BytesIO()
        turned.save(out, format=form, **({"quality": 92} if form == "JPEG" else {}))
    return out.getvalue()


def page(content: bytes) -> bytes:
    """The first page of a PDF as PNG."""
    document = pypdfium2.PdfDocument(content)
    try:
        first = document[0]
        scale = min(WIDTH / first.get_width(), (MOST_PIXELS / (first.get_width() * first.get_height())) ** 0.5)
        drawn = io.BytesIO()
        first.render(scale=scale).to_pil().save(drawn, format="PNG")
    finally:
        document.close()
    return drawn.getvalue()


def main(what: str, media_type: str) -> int:
    """Read the file, write the picture."""
    content = sys.stdin.buffer.read()
    Image.MAX_IMAGE_PIXELS = MOST_OF_PICTURE
    try:
        made = page(content) if what == "page" else upright(content, {"image/png": "PNG", "image/jpeg": "JPEG"}[media_type])
    except Image.DecompressionBombError:
        print(TOO_MANY, file=sys.stderr)
        return REFUSED
    except ValueError as error:
        print(error if "pixels" in str(error) else "cannot be drawn.", file=sys.stderr)
        return REFUSED
    except (OSError, SyntaxError, IndexError, ZeroDivisionError, MemoryError, pypdfium2.PdfiumError):
        print("cannot be drawn: it is not whole, or too large.", file=sys.stderr)
        return REFUSED
    sys.stdout.buffer.write(made)
    return 0


if __name__ == "__main__":
    sys.exit(main(*sys.argv[1:3]))
