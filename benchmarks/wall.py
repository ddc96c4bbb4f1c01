"""The wall in a real browser: from navigation to the moment when the last proof is painted."""

from __future__ import annotations

import os
import statistics
import tempfile
import time
import urllib.request
from typing import Any

from benchmarks.workspace import OwnWorkspace

ROUNDS = 7
SIGN_IN = """
const done = arguments[2];
const token = document.cookie.match(/fitzle_csrf=([^;]*)/)[1];
const body = JSON.stringify({email: arguments[0], password: arguments[1]});
const headers = {'Content-Type': 'application/json', 'X-CSRFToken': token};
fetch('/api/account/browser/v1/auth/login', {method: 'POST', headers, body})
  .then((answer) => done(answer.status));
"""
ALL_PAINTED = """
const proofs = [...document.querySelectorAll('main li img')];
return proofs.length >= 10 && proofs.every((entry) => entry.complete && entry.naturalWidth > 0);
"""
# The same of those that the window shows: of a large wall no more is drawn.
SEEN_PAINTED = """
const seen = [...document.querySelectorAll('main li img')].filter((entry) => {
  const { top, bottom, left } = entry.getBoundingClientRect();
  return top < innerHeight && bottom > 0 && left < innerWidth;
});
return seen.length >= 10 && seen.every((entry) => entry.complete && entry.naturalWidth > 0);
"""


# All scenes of a fit: they are figures, and each stands once its pictures do.
SCENES_PAINTED = """
const scenes = [...document.querySelectorAll('main figure')];
const pictures = [...document.querySelectorAll('main figure img')];
return scenes.length >= %d && pictures.every((entry) => entry.complete && entry.naturalWidth > 0);
"""


def running_at() -> str | None:
    """The address of a running Fitzle, or None."""
    address = f"http://127.0.0.1:{os.environ.get('FITZLE_PORT', '8700')}"
    try:
        urllib.request.urlopen(address, timeout=2).close()
    except OSError:
        return None
    return address


def browser() -> Any:
    """Headless Chromium from Debian's packages."""
    from selenium import webdriver
    from selenium.webdriver.chrome.service import Service

    options = webdriver.ChromeOptions()
    for flag in ("--headless=new", "--no-sandbox", "--disable-gpu", "--disable-dev-shm-usage", "--no-first-run",
                 "--disable-background-networking", "--disable-component-update", "--disable-sync",
                 "--window-size=1280,800", f"--user-data-dir={tempfile.mkdtemp()}"):  # fmt: skip
        options.add_argument(flag)
    return webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))


def proofs_ms(space: OwnWorkspace) -> tuple[float, int]:
    """The same of the proofs of the fit that has the most scenes, and how many it has."""
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.api.fit_scenes import scenes_of
    from fitzle.apps.pieces.fits import all_fits
    from fitzle.apps.pieces.opening import open_fit

    own = Workspace.objects.get(slug=space.slug)
    count, fit = max((len(scenes_of(open_fit(own, fit))[0]), str(fit.pk)) for fit in all_fits(own))
    return first_paint_ms(space, SCENES_PAINTED % count, f"/fits/{fit}/proofs"), count


def first_paint_ms(space: OwnWorkspace, painted: str = ALL_PAINTED, path: str = "") -> float:
    """Median over several loads of a page, the wall as a rule, with an empty browser cache and warm server caches."""
    driver = browser()
    try:
        driver.get(space.address)
        assert driver.execute_async_script(SIGN_IN, space.email, space.password) == 200
        taken = [_load_ms(driver, f"{space.address}/w/{space.slug}{path}", painted) for _ in range(ROUNDS)]
        return statistics.median(taken[1:])
    finally:
        driver.quit()


def _load_ms(driver: Any, address: str, painted: str) -> float:
    driver.execute_cdp_cmd("Network.clearBrowserCache", {})
    started = time.perf_counter()
    driver.get(address)
    while not driver.execute_script(painted):
        time.sleep(0.005)
    return (time.perf_counter() - started) * 1000
