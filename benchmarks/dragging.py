"""Dragging a part at the bench in a real browser: how many frames a second it keeps up with."""

from __future__ import annotations

import statistics
import time
from typing import Any

from benchmarks.wall import SIGN_IN, browser
from benchmarks.workspace import OwnWorkspace

FRAMES = 90
ROUNDS = 5
PAUSE_S = 1.5  # the file of the last round's move is made meanwhile
REST_MS = 200  # a hand rests on a part before it presses
DRAG = """
const done = arguments[arguments.length - 1];
const part = [...document.querySelectorAll('[data-stage] [role=button]')].find((e) => e.ariaLabel.includes('headline'));
const box = part.getBoundingClientRect();
const at = (kind, x, y) => part.dispatchEvent(new PointerEvent(kind,
  {bubbles: true, cancelable: true, pointerId: 1, button: 0, clientX: x, clientY: y}));
part.setPointerCapture = () => undefined;
const [x, y] = [box.x + 20, box.y + 20];
const times = [];
let count = 0;
const frame = (now) => {
  times.push(now);
  at('pointermove', x + 40 * Math.sin(count / 9), y + 25 * Math.cos(count / 7) + 25);
  if (count++ < arguments[0]) requestAnimationFrame(frame);
  else { at('pointermove', x, y); at('pointerup', x, y); done(times); }
};
at('pointerover', x, y);
setTimeout(() => { at('pointerdown', x, y); requestAnimationFrame(frame); }, arguments[1]);
"""


IDLE = """
const times = [];
const frame = (now) => {
  times.push(now);
  if (times.length <= arguments[0]) requestAnimationFrame(frame);
  else arguments[arguments.length - 1](times);
};
requestAnimationFrame(frame);
"""


def frames_a_second(space: OwnWorkspace) -> tuple[float, float]:
    """Frames painted in a second while the sample's headline is moved once a frame, and while nothing moves at all.

    The second is what the machine gives: 60 where none of its time is taken away. Medians of rounds in turn.
    """
    driver = browser()
    try:
        driver.get(space.address)
        assert driver.execute_async_script(SIGN_IN, space.email, space.password) == 200
        driver.get(f"{space.address}/w/{space.slug}/fits/{_fit(driver, space.slug)}")
        while not driver.execute_script("return document.querySelectorAll('[data-stage] [role=button]').length > 1"):
            time.sleep(0.1)
        dragging, idle = [], []
        for _ in range(ROUNDS):
            time.sleep(PAUSE_S)
            idle.append(_rate(driver.execute_async_script(IDLE, FRAMES)))
            dragging.append(_rate(driver.execute_async_script(DRAG, FRAMES, REST_MS)))
        return statistics.median(dragging), statistics.median(idle)
    finally:
        driver.quit()


def _rate(times: list[float]) -> float:
    return 1000 * (len(times) - 1) / (times[-1] - times[0])


def _fit(driver: Any, slug: str) -> str:
    wall = driver.execute_async_script(
        "const done = arguments[1]; fetch(`/api/workspaces/${arguments[0]}/wall`).then((a) => a.json()).then(done)",
        slug,
    )
    proofs = [proof for shelf in wall["shelves"] for proof in shelf["placements"]]
    return str(next(proof["fit"] for proof in proofs if proof["name"] == "Lesson thumbnail"))
