"""A page with an icon set in a real browser: which of its icons the browser asks for."""

from __future__ import annotations

import base64
import json
import time
from collections.abc import Iterator
from functools import partial
from http.server import SimpleHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from threading import Thread
from typing import Any

import numpy as np
import pytest
from demo.marks import MARKS

from fitzle.core.artwork.reading import read_artwork
from fitzle.core.icons.making import make_icon_set
from fitzle.core.icons.mark import IconMark
from fitzle.core.icons.svg_icon import Versions, svg_icon
from tests.browser.person import start_browser
from tests.core.judged import drawings

LONGEST_S = 15.0


class _Asked(SimpleHTTPRequestHandler):
    """Serves a folder and keeps what was asked for."""

    paths: list[str] = []

    def do_GET(self) -> None:
        self.paths.append(self.path)
        super().do_GET()

    def log_message(self, *_: Any) -> None:
        """Says nothing."""


@pytest.fixture
def site(tmp_path: Path) -> Iterator[str]:
    """A page of a site with the set of the sample's badge."""
    found = make_icon_set(read_artwork(MARKS["wheel-badge.svg"].encode(), "badge.svg"), "Ottermoor", path="/icons/")
    (tmp_path / "icons").mkdir()
    for name, data in found.files.items():
        (tmp_path / "icons" / name).write_bytes(data)
    head = found.files["icons.html"].decode()
    (tmp_path / "index.html").write_text(f"<!doctype html><title>Ottermoor</title>{head}<p>True wheels run quiet.")
    _Asked.paths.clear()
    server = ThreadingHTTPServer(("127.0.0.1", 0), partial(_Asked, directory=str(tmp_path)))
    Thread(target=server.serve_forever, daemon=True).start()
    yield f"http://127.0.0.1:{server.server_port}"
    server.shutdown()
    server.server_close()


def test_a_browser_takes_the_drawing_and_not_the_ico(site: str) -> None:
    driver = start_browser()
    try:
        driver.get(site)
        until = time.monotonic() + LONGEST_S
        while "/icons/icon.svg" not in _Asked.paths and time.monotonic() < until:
            time.sleep(0.1)
        time.sleep(0.5)
        icons = {path for path in _Asked.paths if path.startswith("/icons/") or path == "/favicon.ico"}
        assert icons <= {"/icons/icon.svg", "/icons/site.webmanifest"} and "/icons/icon.svg" in icons
        manifest = driver.execute_cdp_cmd("Page.getAppManifest", {})
        assert not manifest["errors"] and manifest["url"] == f"{site}/icons/site.webmanifest"
        assert json.loads(manifest["data"])["name"] == "Ottermoor"
    finally:
        driver.quit()


_AT_SIDES = """
const [data, sides, done] = [arguments[0], arguments[1], arguments[arguments.length - 1]];
const image = new Image();
image.onload = () => done(sides.map((side) => {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = side;
  const pen = canvas.getContext("2d");
  image.width = image.height = side;
  pen.drawImage(image, 0, 0, side, side);
  return Array.from(pen.getImageData(0, 0, side, side).data);
}));
image.src = "data:image/svg+xml;base64," + data;
"""


def test_a_browser_draws_the_simpler_version_where_the_icon_is_tiny() -> None:
    crest = IconMark(read_artwork(drawings.crest(2, "#17443c", "#f4d06f").encode(), "crest.svg"))
    simple = crest.simpler(16)
    assert simple
    both = svg_icon(Versions(crest, None), Versions(simple, None), 20)
    driver = start_browser()
    try:

        def drawn(data: bytes) -> list[np.ndarray]:
            found = driver.execute_async_script(_AT_SIDES, base64.b64encode(data).decode(), [16, 96])
            return [np.array(one) for one in found]

        tiny, large = drawn(both)
        full, plain = drawn(svg_icon(Versions(crest, None))), drawn(svg_icon(Versions(simple, None)))
        assert np.array_equal(tiny, plain[0]) and not np.array_equal(tiny, full[0])
        assert np.array_equal(large, full[1]) and not np.array_equal(large, plain[1])
    finally:
        driver.quit()
