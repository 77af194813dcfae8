"""A print of a part as a picture on the screen."""

from __future__ import annotations

import io

import pypdfium2
from PIL import Image, ImageOps

from server.errors import Refusal

WIDTH, MOST_PIXELS = 1400, 12_000_000  # of a page on the screen
MOST_OF_PICTURE = 80_000_000  # pixels of a scanned drawing: an A0 sheet at 220 dpi


def drawn_anew(content: bytes, media_type: str) -> bytes:
    """A PNG or JPEG decoded and written again, upright, with nothing but its pixels; a PDF as it is.

    Its header tells its size before anything is decoded. Raises a 422 refusal for a giant, and for what is no whole picture.
    """
    if media_type == "application/pdf":
        return content
    form = {"image/png": "PNG", "image/jpeg": "JPEG"}[media_type]
    try:
        with Image.open(io.BytesIO(content), formats=[form]) as picture:
            if picture.width * picture.height > MOST_OF_PICTURE:
                raise Image.DecompressionBombError
            upright = ImageOps.exif_transpose(picture)
            upright.info.clear()
            out = io.BytesIO()
            upright.save(out, format=form, **({"quality": 92} if form == "JPEG" else {}))
    except Image.DecompressionBombError as error:
        said, bound = "has more pixels than a drawing needs.", f"{MOST_OF_PICTURE / 1e6:.0f} million pixels"
        raise Refusal(422, f"file: {said}", [{"field": "file", "message": said, "bound": bound}]) from error
    except (OSError, ValueError, SyntaxError) as error:
        said = f"not a whole {form}: it cannot be drawn."
        raise Refusal(422, f"file: {said}", [{"field": "file", "message": said}]) from error
    return out.getvalue()


def picture_of(content: bytes, media_type: str) -> tuple[bytes, str]:
    """The picture and its media type: of a PDF its first page. Raises a 422 refusal for a file that cannot be drawn."""
    if media_type != "application/pdf":
        return content, media_type
    try:
        document = pypdfium2.PdfDocument(content)
        try:
            page = document[0]
            scale = min(WIDTH / page.get_width(), (MOST_PIXELS / (page.get_width() * page.get_height())) ** 0.5)
            drawn = io.BytesIO()
            page.render(scale=scale).to_pil().save(drawn, format="PNG")
        finally:
            document.close()
    except (pypdfium2.PdfiumError, IndexError, ValueError, ZeroDivisionError) as error:
        raise Refusal(422, "This PDF cannot be drawn here; it is kept and can be opened.") from error
    return drawn.getvalue(), "image/png"
