"""A print of a part as a picture on the screen."""

from __future__ import annotations

import io

import pypdfium2

from server.errors import Refusal

WIDTH, MOST_PIXELS = 1400, 12_000_000  # of a page on the screen


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
