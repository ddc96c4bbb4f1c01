"""Bad files of every format: lying headers, no size, absurd sizes, too many frames. Made by hand from good ones."""

from __future__ import annotations

import io
import struct
import zlib
from collections.abc import Callable
from functools import cache, partial

import pillow_heif
from PIL import Image

from tests.clips import clip
from tests.make import disc, photo, saved, svg
from tests.pdf import pdf

Patch = Callable[[bytes, int, int], bytes]


def heic(picture: Image.Image, **options: object) -> bytes:
    """A HEIC of a picture, written by libheif."""
    out = io.BytesIO()
    pillow_heif.from_pillow(picture).save(out, **options)
    return out.getvalue()


@cache
def good_file(fmt: str) -> bytes:
    """A good file of a format, not written by the library that reads it."""
    small = photo(64, 48)
    return {
        "png": lambda: saved(small, "PNG"),
        "apng": lambda: saved(disc(48, margin=5), "PNG", save_all=True, append_images=[disc(48, margin=9)]),
        "jpeg": lambda: saved(small, "JPEG"),
        "webp": lambda: saved(small, "WEBP"),
        "moving webp": lambda: saved(disc(48, margin=5), "WEBP", save_all=True, append_images=[disc(48, margin=9)]),
        "gif": lambda: saved(small.quantize(32), "GIF"),
        "bmp": lambda: saved(small, "BMP"),
        "tiff": lambda: saved(small, "TIFF"),
        "avif": lambda: saved(small, "AVIF"),
        "heic": lambda: heic(small),
        "ico": lambda: saved(disc(64, margin=5), "ICO", sizes=[(16, 16), (48, 48)]),
        "svg": svg,
        "pdf": lambda: pdf((300, 150, b"0.1 0.3 0.2 rg 30 30 240 90 re f")),
        "mp4": clip,
        "mov": lambda: clip("mov", "prores_ks", stamps_ms=list(range(0, 400, 40)), pixels="yuv422p10le"),
        "webm": lambda: clip("webm", "libvpx", stamps_ms=list(range(0, 400, 40)), deadline="realtime"),
        "mkv": lambda: clip("matroska", "libx264", pixels="yuv420p10le"),
    }[fmt]()


FORMATS = (
    "png", "apng", "jpeg", "webp", "moving webp", "gif", "bmp", "tiff", "avif", "heic", "ico", "svg", "pdf", "mp4",
    "mov", "webm", "mkv",
)  # fmt: skip


def png_chunk(kind: bytes, body: bytes) -> bytes:
    """A chunk with its checksum (PNG, 5.3)."""
    return struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))


def _png(data: bytes, width: int, height: int) -> bytes:
    return data[:8] + png_chunk(b"IHDR", struct.pack(">II", width, height) + data[24:29]) + data[33:]


def _jpeg(data: bytes, width: int, height: int) -> bytes:
    at = data.index(b"\xff\xc0")
    return data[: at + 5] + struct.pack(">HH", height & 0xFFFF, width & 0xFFFF) + data[at + 9 :]


def _webp(data: bytes, width: int, height: int) -> bytes:
    """The canvas of an extended file (24 bits), the frame of a plain one (14 bits)."""
    if data[12:16] == b"VP8X":
        canvas = (max(0, width - 1)).to_bytes(3, "little") + max(0, height - 1).to_bytes(3, "little")
        return data[:24] + canvas + data[30:]
    return data[:26] + struct.pack("<HH", width & 0x3FFF, height & 0x3FFF) + data[30:]


def _gif(data: bytes, width: int, height: int) -> bytes:
    at = data.index(b",", 13 + 3 * 2 ** ((data[10] & 7) + 1))
    size = struct.pack("<HH", width & 0xFFFF, height & 0xFFFF)
    return data[:6] + size + data[10 : at + 5] + size + data[at + 9 :]


def _bmp(data: bytes, width: int, height: int) -> bytes:
    return data[:18] + struct.pack("<ii", width, height) + data[26:]


def _tiff(data: bytes, width: int, height: int) -> bytes:
    """The first two tags of the directory that hold the size (TIFF 6.0: 256 and 257)."""
    found = bytearray(data)
    at = struct.unpack("<I", data[4:8])[0]
    for entry in range(struct.unpack("<H", data[at : at + 2])[0]):
        place = at + 2 + 12 * entry
        tag = struct.unpack("<H", data[place : place + 2])[0]
        if tag in (256, 257):
            found[place + 2 : place + 12] = struct.pack("<HII", 4, 1, width if tag == 256 else height)
    return bytes(found)


def _ispe(data: bytes, width: int, height: int) -> bytes:
    """Every picture's stated size (ISO/IEC 23008-12, 6.5.3)."""
    found, at = bytearray(data), data.find(b"ispe")
    while at > 0:
        found[at + 8 : at + 16] = struct.pack(">II", width, height)
        at = data.find(b"ispe", at + 4)
    return bytes(found)


def _ico(data: bytes, width: int, height: int) -> bytes:
    """The PNG within the last entry."""
    offset = struct.unpack("<I", data[6 + 16 + 12 : 6 + 16 + 16])[0]
    return data[:offset] + _png(data[offset:], width, height)


def _svg(data: bytes, width: int, height: int) -> bytes:
    return data.replace(b'viewBox="0 0 100 50"', b'viewBox="0 0 %d %d"' % (width, height))


def _pdf(data: bytes, width: int, height: int) -> bytes:
    return data.replace(b"[0 0 300 150]", b"[0 0 %d %d]" % (width, height))


def _track(data: bytes, width: int, height: int) -> bytes:
    """The size in the track's head and in its sample entry (ISO/IEC 14496-12, 8.3.2 and 12.1.3)."""
    found = bytearray(data)
    at = data.index(b"tkhd") + 4 + 76
    found[at : at + 8] = struct.pack(">II", width << 16 & 0xFFFFFFFF, height << 16 & 0xFFFFFFFF)
    at = data.index(b"stsd") + 12 + 4 + 28
    found[at : at + 4] = struct.pack(">HH", width & 0xFFFF, height & 0xFFFF)
    return bytes(found)


def _ebml(data: bytes, width: int, height: int) -> bytes:
    """PixelWidth and PixelHeight (RFC 9559, 5.1.4.1.28): a byte or two as the file has it."""
    found = bytearray(data)
    for mark, value in ((0xB0, width), (0xBA, height)):
        at = next(at for at in range(len(data)) if data[at] == mark and data[at + 1] in (0x81, 0x82))
        count = data[at + 1] & 0x0F
        found[at + 2 : at + 2 + count] = (value & (1 << 8 * count) - 1).to_bytes(count, "big")
    return bytes(found)


PATCHES: dict[str, Patch] = {
    "png": _png, "apng": _png, "jpeg": _jpeg, "webp": _webp, "moving webp": _webp, "gif": _gif, "bmp": _bmp,
    "tiff": _tiff, "avif": _ispe, "heic": _ispe, "ico": _ico, "svg": _svg, "pdf": _pdf, "mp4": _track, "mov": _track,
    "webm": _ebml, "mkv": _ebml,
}  # fmt: skip


def claiming(fmt: str, width: int, height: int) -> bytes:
    """A good file whose header claims another size."""
    return PATCHES[fmt](good_file(fmt), width, height)


def many_frames(fmt: str, count: int) -> bytes:
    """An animation of so many tiny frames: gif, apng or webp."""
    if fmt == "gif":
        frame = b"\x21\xf9\x04\x00\x01\x00\x00\x00,\x00\x00\x00\x00\x01\x00\x01\x00\x00\x02\x02D\x01\x00"
        return b"GIF89a\x01\x00\x01\x00\x80\x00\x00\x00\x00\x00\xff\xff\xff" + frame * count + b";"
    if fmt == "webp":
        still = saved(Image.new("RGB", (1, 1), "#17443c"), "WEBP", lossless=True)[12:]
        anmf = bytes(6) + bytes(6) + (40).to_bytes(3, "little") + b"\x00" + still
        frames = (b"ANMF" + struct.pack("<I", len(anmf)) + anmf) * count
        head = b"VP8X" + struct.pack("<I", 10) + b"\x02" + bytes(9) + b"ANIM" + struct.pack("<I", 6) + bytes(6)
        return b"RIFF" + struct.pack("<I", 4 + len(head) + len(frames)) + b"WEBP" + head + frames
    return _many_png_frames(count)


def _many_png_frames(count: int) -> bytes:
    pixel = zlib.compress(b"\x00\x17\x44\x3c")
    chunks = [png_chunk(b"IHDR", struct.pack(">IIBBBBB", 1, 1, 8, 2, 0, 0, 0))]
    chunks.append(png_chunk(b"acTL", struct.pack(">II", count, 0)))
    for number in range(count):
        order = 2 * number
        control = struct.pack(">IIIIIHHBB", max(0, order - 1), 1, 1, 0, 0, 4, 100, 0, 0)
        chunks.append(png_chunk(b"fcTL", control))
        body = pixel if number == 0 else struct.pack(">I", order) + pixel
        chunks.append(png_chunk(b"IDAT" if number == 0 else b"fdAT", body))
    return b"\x89PNG\r\n\x1a\n" + b"".join(chunks) + png_chunk(b"IEND", b"")


def locked_pdf() -> bytes:
    """A PDF behind a password, encrypted by another library than the one that reads it."""
    import pypdf

    out = io.BytesIO()
    document = pypdf.PdfWriter(clone_from=io.BytesIO(good_file("pdf")))
    document.encrypt("wheel", "true-wheel", algorithm="RC4-128")
    document.write(out)
    return out.getvalue()


def cut_in_half(fmt: str) -> bytes:
    """The first half of a good file."""
    whole = good_file(fmt)
    return whole[: len(whole) // 2]


def bad_files() -> dict[str, Callable[[], bytes]]:
    """Makes one of each kind of badness for each format, by a name that says which."""
    found: dict[str, Callable[[], bytes]] = {}
    for fmt in FORMATS:
        found[f"{fmt}, cut in half"] = partial(cut_in_half, fmt)
        found[f"{fmt}, only its head"] = lambda fmt=fmt: good_file(fmt)[:24]  # type: ignore[misc]
        found[f"{fmt}, no size"] = partial(claiming, fmt, 0, 0)
        found[f"{fmt}, no height"] = partial(claiming, fmt, 64, 0)
        found[f"{fmt}, 65,535 px wide"] = partial(claiming, fmt, 65_535, 48)
        found[f"{fmt}, 65,535 px square"] = partial(claiming, fmt, 65_535, 65_535)
        found[f"{fmt}, larger than it is"] = partial(claiming, fmt, 3000, 2000)
    for fmt in ("gif", "apng", "webp"):
        found[f"{fmt}, too many frames"] = partial(many_frames, fmt, 10_001)
    return found
