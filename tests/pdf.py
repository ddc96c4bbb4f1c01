"""PDFs for tests, written by hand (ISO 32000-1) or by Pillow."""

from __future__ import annotations

Page = tuple[int, int, bytes]  # width and height in points, and what is drawn


def pdf(*pages: Page) -> bytes:
    """A PDF of these pages."""
    bodies = [b"<< /Type /Catalog /Pages 2 0 R >>", b""]
    kids = []
    for width, height, drawn in pages:
        kids.append(b"%d 0 R" % (len(bodies) + 1))
        box = b"[0 0 %d %d]" % (width, height)
        bodies += [
            b"<< /Type /Page /Parent 2 0 R /MediaBox %b /Contents %d 0 R /Resources << >> >>" % (box, len(bodies) + 2),
            b"<< /Length %d >>\nstream\n%b\nendstream" % (len(drawn), drawn),
        ]
    bodies[1] = b"<< /Type /Pages /Count %d /Kids [%b] >>" % (len(pages), b" ".join(kids))
    return _numbered(bodies)


def _numbered(bodies: list[bytes]) -> bytes:
    out, places = b"%PDF-1.7\n", []
    for number, body in enumerate(bodies, 1):
        places.append(b"%010d 00000 n \n" % len(out))
        out += b"%d 0 obj\n%b\nendobj\n" % (number, body)
    table = b"xref\n0 %d\n0000000000 65535 f \n%b" % (len(bodies) + 1, b"".join(places))
    end = b"trailer << /Size %d /Root 1 0 R >>\nstartxref\n%d\n%%%%EOF\n" % (len(bodies) + 1, len(out))
    return out + table + end
