"""From pieces to a ZIP on the disk in a running Fitzle, and a build where nothing changed; both beside Pillow's way."""

from __future__ import annotations

import io
import json
import subprocess
import sys
import tempfile
import time
import urllib.request
import uuid
import warnings
import zipfile
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from threading import Event, Thread
from typing import Any, NamedTuple

from PIL import Image, ImageOps

from benchmarks.workspace import OwnWorkspace

FILES, OUTPUTS = 24, 200
LONGEST_S = 240.0
BUILDS = 5


class Delivering(NamedTuple):
    """Seconds from pieces to the ZIP, of Pillow for as many, the most memory of all workers, and how many files."""

    seconds: float
    pillow: float
    workers_mb: float
    files: int


def delivered(space: OwnWorkspace) -> Delivering:
    """Makes the files of 24 filled places anew, hands them over and saves the ZIP."""
    fits = _filled(space)
    ask = _script(space)
    memory = _Workers()
    with tempfile.TemporaryDirectory() as folder, memory:
        began = time.perf_counter()
        _have_made(fits)
        while _waiting(fits) and time.perf_counter() - began < LONGEST_S:
            time.sleep(0.1)
        delivery = json.loads(ask("deliveries", {"fits": [str(fit) for fit in fits]}))
        while delivery["state"] in ("waiting", "running"):
            time.sleep(0.1)
            delivery = json.loads(ask(f"deliveries/{delivery['id']}"))
        (Path(folder) / "all.zip").write_bytes(ask(f"deliveries/{delivery['id']}/zip"))
        seconds = time.perf_counter() - began
        with zipfile.ZipFile(Path(folder) / "all.zip") as archive:
            count = len(archive.namelist()) - 1
    return Delivering(seconds, _pillow_s(), memory.most_mb, count)


def build_unchanged_s() -> tuple[float, float]:
    """Median seconds of `./fitzle build` over 200 outputs of which none changed, and of making them by Pillow."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        Image.effect_noise((640, 400), 60).convert("RGB").save(folder / "photo.jpg", quality=90)
        lines = ["fitzle = 1"]
        for number in range(OUTPUTS):
            lines += [
                "[[picture]]",
                'artwork = "photo.jpg"',
                f'place = "PNG {64 + number} x 48 px"',
                f'file = "{number}"',
            ]
        (folder / "fitzle.toml").write_text("\n".join(lines))
        command = [sys.executable, "-m", "fitzle.cli", "build", str(folder)]
        subprocess.run(command, check=True, capture_output=True)
        taken = []
        for _ in range(BUILDS):
            began = time.perf_counter()
            subprocess.run(command, check=True, capture_output=True)
            taken.append(time.perf_counter() - began)
        began = time.perf_counter()
        for number in range(OUTPUTS):
            with Image.open(folder / "photo.jpg") as picture:
                ImageOps.fit(picture, (64 + number, 48)).save(folder / "other.png", optimize=True)
        return sorted(taken)[BUILDS // 2], time.perf_counter() - began


def _filled(space: OwnWorkspace) -> list[uuid.UUID]:
    """Twenty-four fits of the sample's artwork: its own places, and the same again on other shelves."""
    from demo.sheets import shelves

    from fitzle.apps.accounts.models import User, Workspace
    from fitzle.apps.destinations.shelves import add_destination
    from fitzle.apps.pieces.fits import fits_on_wall, stand

    workspace = Workspace.objects.get(slug=space.slug)
    User.objects.get(email=space.email)
    own = [fit for fit in fits_on_wall(workspace) if fit.placement.spec.name != "Wide banner"]
    number = 0
    while len(found := [fit for fit in fits_on_wall(workspace) if fit.placement.spec.name != "Wide banner"]) < FILES:
        number += 1
        for name, sheets in shelves().items():
            added = add_destination(workspace, f"{name} {number}", sheets)
            for placement in added.placements.select_related("destination"):
                fit = next((one for one in own if one.placement.spec.name == placement.spec.name), None)
                if fit:
                    stand(fit.piece, [placement])
    return [fit.pk for fit in found[:FILES]]


def _have_made(fits: list[uuid.UUID]) -> None:
    """Forgets what was made of them, and has the running workers make it."""
    from celery import current_app
    from django.utils import timezone

    from fitzle.apps.jobs.models import Job
    from fitzle.apps.pieces.models import Fit, Rendition

    workspace = Fit.objects.select_related("piece").get(pk=fits[0]).piece.workspace_id
    Rendition.objects.filter(workspace=workspace).delete()
    now = timezone.now()
    for fit in fits:
        Job.objects.create(
            kind="make_fit_file", subject=str(fit), arguments=[str(fit)], wanted=uuid.uuid4().hex, wanted_at=now,
            due_at=now, sent_at=now,
        )  # fmt: skip
        warnings.simplefilter("ignore")  # that tasks of this process run at once: this one is for the workers
        current_app.send_task("fitzle.apps.jobs.tasks.make_fit_file", args=[str(fit)], queue="files")


def _waiting(fits: list[uuid.UUID]) -> bool:
    from fitzle.apps.jobs.models import Job

    return Job.objects.filter(kind="make_fit_file", subject__in=[str(fit) for fit in fits]).exists()


def _script(space: OwnWorkspace) -> Any:
    """Asks as a script does, by a token."""
    from fitzle.apps.accounts.access import access_to
    from fitzle.apps.accounts.models import User
    from fitzle.apps.accounts.tokens import make_token

    access = access_to(User.objects.get(email=space.email), space.slug)
    secret = make_token(access, "bench", ["change", "deliver"]).secret

    def ask(path: str, body: Any = None) -> bytes:
        address = f"{space.address}/api/workspaces/{space.slug}/{path}"
        headers = {"Authorization": f"Bearer {secret}", "Content-Type": "application/json"}
        data = json.dumps(body).encode() if body is not None else None
        with urllib.request.urlopen(urllib.request.Request(address, data, headers)) as answer:
            return bytes(answer.read())

    return ask


class _Workers:
    """The most memory of all workers together while something runs, in MB."""

    def __init__(self) -> None:
        self.most_mb, self._done = 0.0, Event()
        self._thread = Thread(target=self._look, daemon=True)

    def __enter__(self) -> _Workers:
        self._thread.start()
        return self

    def __exit__(self, *_: object) -> None:
        self._done.set()
        self._thread.join()

    def _look(self) -> None:
        while not self._done.wait(0.1):
            self.most_mb = max(self.most_mb, sum(_share_mb(process) for process in Path("/proc").iterdir()))


def _share_mb(process: Path) -> float:
    """The memory of a worker's process, shared pages by their share."""
    try:
        if not process.name.isdigit() or b"celery" not in (process / "cmdline").read_bytes():
            return 0.0
        rollup = (process / "smaps_rollup").read_text()
        return int(next(line for line in rollup.splitlines() if line.startswith("Pss:")).split()[1]) / 1000
    except (OSError, StopIteration):
        return 0.0


def _pillow_s() -> float:
    """Pillow's way for as many files on two processes: fitted, quality stepped down until the limit is kept, zipped."""
    from demo.photos import all_photos
    from demo.sheets import shelves

    photo = next(iter(all_photos().values()))
    sheets = [sheet for sheets in shelves().values() for sheet in sheets]
    wanted = [(photo, *_size_of(sheet), sheet.max_bytes or 300_000) for sheet in (sheets * 2)[:FILES]]
    began = time.perf_counter()
    with ProcessPoolExecutor(2) as pool:
        files = list(pool.map(_stepped, wanted))
    with zipfile.ZipFile(io.BytesIO(), "w") as archive:
        for number, data in enumerate(files):
            archive.writestr(f"{number}.jpg", data)
    return time.perf_counter() - began


def _size_of(sheet: Any) -> tuple[int, int]:
    size = getattr(sheet.size, "recommended", None) or sheet.size
    return size.width, size.height


def _stepped(asked: tuple[bytes, int, int, int]) -> bytes:
    data, width, height, limit = asked
    with Image.open(io.BytesIO(data)) as picture:
        fitted = ImageOps.fit(picture.convert("RGB"), (width, height), Image.Resampling.LANCZOS)
    for quality in range(95, 0, -5):
        out = io.BytesIO()
        fitted.save(out, "JPEG", quality=quality, optimize=True)
        if out.tell() <= limit:
            break
    return out.getvalue()
