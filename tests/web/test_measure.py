"""The arithmetic of rulers, dragging, snapping and aligning in web/src/measure, run by node."""

from __future__ import annotations

import atexit
import itertools
import json
import subprocess
from functools import cache
from pathlib import Path
from typing import Any

import pytest

WEB = Path(__file__).parents[2] / "web"
RUN = """
const ts = require(process.argv[1] + '/node_modules/typescript');
const fs = require('fs');
const path = require('path');
const modules = {};
function load(name) {
  if (modules[name]) return modules[name];
  const source = fs.readFileSync(path.join(process.argv[1], 'src/measure', name + '.ts'), 'utf8');
  const code = ts.transpileModule(source, {compilerOptions: {module: 'commonjs', target: 'es2022'}}).outputText;
  const exports = modules[name] = {};
  new Function('exports', 'require', code)(exports, (other) => load(other.replace('./', '')));
  return exports;
}
require('readline').createInterface({input: process.stdin}).on('line', (line) => {
  const answers = JSON.parse(line).map(([name, method, args]) => load(name)[method](...args));
  process.stdout.write(JSON.stringify(answers) + '\\n');
});
"""


def call(module: str, function: str, *args: Any) -> Any:
    """What a function of a module answers."""
    return _answer(json.dumps([[module, function, list(args)]]))[0]


@cache
def _node() -> subprocess.Popen[str]:
    """One node for all tests of this process: loading the compiler takes a second."""
    command = ["node", "-e", RUN, str(WEB)]
    node = subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)
    atexit.register(node.kill)
    return node


def _answer(calls: str) -> Any:
    node = _node()
    assert node.stdin and node.stdout
    print(calls, file=node.stdin, flush=True)
    return json.loads(node.stdout.readline())


def box(x: float, y: float, width: float, height: float) -> dict[str, float]:
    return {"x": x, "y": y, "width": width, "height": height}


def about(found: dict[str, float], expected: dict[str, float]) -> None:
    assert found == {key: pytest.approx(value, abs=1e-6) for key, value in expected.items()}


START = box(100, 50, 80, 40)


@pytest.mark.parametrize(
    ("handle", "by", "keep", "expected"),
    [
        ({"x": 1, "y": 1}, (20, 10), False, box(100, 50, 100, 50)),
        ({"x": -1, "y": -1}, (20, 10), False, box(120, 60, 60, 30)),
        ({"x": 1, "y": 0}, (20, 99), False, box(100, 50, 100, 40)),
        ({"x": 0, "y": -1}, (99, -10), False, box(100, 40, 80, 50)),
        ({"x": 1, "y": 1}, (80, 0), True, box(100, 50, 160, 80)),
        ({"x": -1, "y": 1}, (-80, 0), True, box(20, 50, 160, 80)),
        ({"x": 1, "y": 1}, (-500, -500), False, box(100, 50, 2, 2)),
    ],
)
def test_a_box_is_resized_from_a_handle_and_the_other_side_stays(
    handle: dict[str, int], by: tuple[float, float], keep: bool, expected: dict[str, float]
) -> None:
    about(call("boxes", "resized", START, handle, {"x": by[0], "y": by[1]}, 0, keep), expected)


@pytest.mark.parametrize("turn", [30, 90, -135])
@pytest.mark.parametrize("handle", [{"x": 1, "y": 1}, {"x": -1, "y": 1}, {"x": 1, "y": 0}])
def test_the_opposite_corner_of_a_turned_box_stays_where_it_is(turn: float, handle: dict[str, int]) -> None:
    after = call("boxes", "resized", START, handle, {"x": 13, "y": 7}, turn, False)

    def corner(one: dict[str, float]) -> dict[str, float]:
        local = {"x": -handle["x"] * one["width"] / 2, "y": -handle["y"] * one["height"] / 2}
        turned = call("boxes", "turnedBy", local, turn)
        middle = call("boxes", "centreOf", one)
        return {"x": middle["x"] + turned["x"], "y": middle["y"] + turned["y"]}

    about(corner(after), corner(START))


@pytest.mark.parametrize(
    ("to", "step", "degrees"),
    [((0, -10), 0, 0), ((10, 0), 0, 90), ((0, 10), 0, 180), ((-10, 0), 0, -90), ((10, -9), 15, 45), ((2, -10), 15, 15)],
)
def test_a_turn_is_read_from_where_the_ring_is(to: tuple[int, int], step: int, degrees: float) -> None:
    assert call("boxes", "turnTowards", {"x": 0, "y": 0}, {"x": to[0], "y": to[1]}, step) == degrees


def test_the_box_around_several_boxes() -> None:
    about(call("boxes", "around", [box(10, 20, 5, 5), box(0, 30, 5, 20)]), box(0, 20, 15, 30))


def test_a_picture_is_carried_from_one_box_to_another() -> None:
    css = call("boxes", "carried", box(0, 0, 10, 10), 0, box(20, 0, 20, 10), 90, 2)
    assert css == "translate(60px, 10px) rotate(90deg) scale(2, 1) rotate(0deg) translate(-10px, -10px)"


LINES = [
    {"axis": "x", "at": 0, "name": "edge"},
    {"axis": "x", "at": 160, "name": "middle"},
    {"axis": "y", "at": 100, "name": "third"},
]


@pytest.mark.parametrize(
    ("moving", "reach", "by", "names"),
    [
        (box(3, 10, 40, 20), 5, (-3, 0), ["edge"]),
        (box(138, 10, 40, 20), 5, (2, 0), ["middle"]),
        (box(60, 77, 40, 20), 5, (0, 3), ["third"]),
        (box(1, 101, 40, 20), 5, (-1, -1), ["edge", "third"]),
        (box(60, 10, 40, 20), 5, (0, 0), []),
        (box(3, 10, 40, 20), 0, (0, 0), []),
    ],
)
def test_a_box_snaps_to_the_nearest_line_within_reach(
    moving: dict[str, float], reach: float, by: tuple[float, float], names: list[str]
) -> None:
    found = call("snapping", "snapped", moving, LINES, reach)
    assert (found["dx"], found["dy"]) == (pytest.approx(by[0]), pytest.approx(by[1]))
    assert [line["name"] for line in found["lines"]] == names


def test_a_side_snaps_while_a_box_is_resized() -> None:
    assert call("snapping", "snappedSide", 157, "x", LINES, 5) == {"by": 3, "line": LINES[1]}
    assert call("snapping", "snappedSide", 100, "x", LINES, 5) == {"by": 0}


def test_other_parts_give_lines_at_their_sides_and_middles() -> None:
    lines = call("snapping", "linesOf", [box(10, 20, 40, 10)], ["Mark"])
    assert [(line["axis"], line["at"]) for line in lines] == [
        ("x", 10), ("x", 30), ("x", 50), ("y", 20), ("y", 25), ("y", 30),
    ]  # fmt: skip
    assert {line["name"] for line in lines} == {"Mark"}


def test_distances_go_to_the_next_part_beside_and_else_to_the_edge() -> None:
    others = [
        {"box": box(0, 0, 20, 100), "name": "left one"},
        {"box": box(150, 40, 20, 20), "name": "right one"},
        {"box": box(70, 150, 20, 20), "name": "below"},
        {"box": box(0, 190, 300, 5), "name": "farther below"},
    ]
    gaps = call("neighbours", "gapsAround", box(50, 30, 60, 40), others, 300, 200)
    assert [(gap["axis"], gap["length"], gap["to"]) for gap in gaps] == [
        ("x", 30, "left one"),
        ("x", 40, "right one"),
        ("y", 30, "edge"),
        ("y", 80, "below"),
    ]


BOXES = [box(0, 0, 10, 30), box(20, 10, 30, 10), box(60, 50, 20, 20)]


@pytest.mark.parametrize(
    ("side", "key", "places"),
    [
        ("left", "x", [0, 0, 0]),
        ("centre", "x", [35, 25, 30]),
        ("right", "x", [70, 50, 60]),
        ("top", "y", [0, 0, 0]),
        ("middle", "y", [20, 30, 25]),
        ("bottom", "y", [40, 60, 50]),
    ],
)
def test_boxes_are_lined_up(side: str, key: str, places: list[float]) -> None:
    assert [one[key] for one in call("aligning", "aligned", BOXES, side)] == places


def test_boxes_are_spaced_evenly_in_the_order_in_which_they_stand() -> None:
    mixed = [BOXES[2], BOXES[0], BOXES[1]]
    spaced = call("aligning", "spacedEvenly", mixed, "x")
    assert [one["x"] for one in spaced] == [60, 0, 20]
    tight = call("aligning", "spacedEvenly", [box(0, 0, 10, 5), box(5, 0, 20, 5), box(50, 0, 10, 5)], "x")
    assert [one["x"] for one in tight] == [0, 20, 50]


def test_a_window_stays_inside_its_picture() -> None:
    natural = {"width": 100, "height": 80}
    assert call("pan", "movedWindow", box(10, 10, 50, 40), 500, -500, natural) == box(50, 0, 50, 40)
    assert call("pan", "focusOf", box(50, 0, 50, 40), natural) == {"x": 0.75, "y": 0.25}
    about(call("pan", "spread", box(0, 0, 100, 80), box(25, 20, 50, 40), natural), box(-50, -40, 200, 160))


def test_one_and_many() -> None:
    assert call("words", "plural", 1, "thing", "things") == "1 thing"
    assert call("words", "plural", 0, "thing", "things") == "0 things"


@pytest.mark.parametrize(("length", "scale"), [(1280, 0.46), (32, 11), (512, 0.74), (4096, 0.1), (16, 16)])
def test_a_ruler_has_figures_far_enough_apart_and_ticks_between(length: int, scale: float) -> None:
    ticks = call("ruler", "ticks", length, scale)
    major = [tick["at"] for tick in ticks if tick["major"]]
    assert ticks[0] == {"at": 0, "major": True}
    assert ticks[-1]["at"] <= length
    steps = {round(two - one, 6) for one, two in itertools.pairwise(major)}
    assert len(steps) <= 1
    assert all(step * scale >= 48 for step in steps)
    assert len(ticks) >= len(major)
