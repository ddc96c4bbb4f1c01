"""What a file is by its content; the extension is never believed."""

from __future__ import annotations

from fitzle.core.artwork.png_frames import png_frames

READABLE = ("png", "jpeg", "webp", "gif", "bmp", "tiff", "avif", "heic", "ico", "svg", "pdf")

SNIFFED_BYTES = 4096  # of a file are enough to know it
_PREFIXES = (
    (b"\x89PNG\r\n\x1a\n", "png"),
    (b"\xff\xd8\xff", "jpeg"),
    (b"GIF87a", "gif"),
    (b"GIF89a", "gif"),
    (b"BM", "bmp"),
    (b"\x00\x00\x01\x00", "ico"),
    (b"II*\x00", "tiff"),
    (b"MM\x00*", "tiff"),
    (b"%PDF-", "pdf"),
    (b"PK\x03\x04", "zip"),
    (b"\x1f\x8b", "gzip"),
)
_BRANDS = {
    b"avif": "avif",
    b"avis": "avif",
    b"heic": "heic",
    b"heix": "heic",
    b"hevc": "heic",
    b"mif1": "heic",
    b"qt  ": "mov",
}
_EBML = b"\x1a\x45\xdf\xa3"
_OLD_MOV = (b"moov", b"mdat", b"wide", b"free", b"skip", b"pnot")
_TEXT_STARTS = (b"<", b"\xef\xbb\xbf<", b"\xff\xfe<", b"\xfe\xff\x00<", b"<\x00", b"\x00<")
_MARKUP_LOOKED_AT = 4096


def sniff_format(data: bytes) -> str | None:
    """The format's key (see core.formats) or None when it is none of them."""
    if data[:4] == b"RIFF" and data[8:12] == b"WEBP":
        return "webp"
    if data[4:8] == b"ftyp":
        return _BRANDS.get(data[8:12], "mp4")
    if data[4:8] in _OLD_MOV:
        return "mov"
    if data.startswith(_EBML):
        return "webm" if b"webm" in data[:128] else "mkv"
    for prefix, name in _PREFIXES:
        if data.startswith(prefix):
            return "apng" if name == "png" and png_frames(data) > 1 else name
    return _sniffed_text(data)


def _sniffed_text(data: bytes) -> str | None:
    if _looks_like_lottie(data):
        return "lottie"
    return "svg" if _looks_like_svg(data) else None


def _looks_like_lottie(data: bytes) -> bool:
    head = data[:SNIFFED_BYTES].removeprefix(b"\xef\xbb\xbf").lstrip()
    return head.startswith(b"{") and any(key in head for key in (b'"layers"', b'"fr"', b'"assets"'))


def _looks_like_svg(data: bytes) -> bool:
    head = data[:_MARKUP_LOOKED_AT]
    stripped = head.lstrip(b" \t\r\n")
    return stripped.startswith(_TEXT_STARTS) and b"svg" in head.replace(b"\x00", b"").lower()
