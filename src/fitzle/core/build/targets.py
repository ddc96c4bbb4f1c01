"""The targets of a fitzle.toml: what each follows from, as a key, by bytes that are read once."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable
from pathlib import Path
from typing import Any, NamedTuple

from fitzle.core.build.document import Build, Icons, Picture, RunOf
from fitzle.core.engine import ENGINE, RULES_VERSION
from fitzle.core.errors import DocumentError
from fitzle.core.spec.reading import read_spec_sheet
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.stems import safe_stem

Reader = Callable[[Path], bytes]


class Target(NamedTuple):
    """One thing to make: its name in the record, the key of all it follows from, and the files that it reads."""

    name: str
    key: str
    asked: Picture | Icons
    sheet: SpecSheet | None
    inputs: dict[str, Path]


class Sources:
    """The files that a build reads, below its folder; each is read and hashed once."""

    def __init__(self, build: Build, root: Path, read: Reader) -> None:
        self.build, self.root, self._read = build, root, read
        self._hashes: dict[Path, str] = {}
        self._sheets: dict[str, SpecSheet] = {}

    def targets(self) -> list[Target]:
        """All targets in the order of the document; raises DocumentError where two would write the same file."""
        rows = [picture for one in self.build.run for picture in self._rows(one)]
        found = [self._picture(one) for one in (*self.build.picture, *rows)]
        found += [self._icons(one) for one in self.build.icons]
        names = [target.name for target in found]
        twice = next((name for name in names if names.count(name) > 1), None) if len(set(names)) < len(names) else None
        if twice:
            raise DocumentError(f"two targets would write {twice!r}", advice="Give one of them another file.")
        return found

    def bytes_of(self, path: Path) -> bytes:
        """The bytes of a file."""
        return self._read(path)

    def artwork(self, name: str) -> Path:
        """The file that a name of the document stands for, or that is named itself."""
        path = (self.root / self.build.artwork.get(name, name)).resolve()
        if not path.is_relative_to(self.root):
            raise DocumentError(f"{name!r} lies outside of the folder", advice="Copy it below fitzle.toml.")
        return path

    def artwork_of_piece(self, piece: Path, asked: Picture, sheet: SpecSheet) -> dict[str, Path]:
        """The artwork files of a piece, by their names in it; they lie beside it."""
        from fitzle.core.fit.beside import artwork_beside, row_of
        from fitzle.core.piece.editing import read_piece

        document = read_piece(self.bytes_of(piece), piece.name)
        row = row_of({"values": asked.row}, piece.stem) if asked.row else None
        return {name: piece.parent / name for name in artwork_beside(document, sheet, asked.take, row)}

    def _rows(self, asked: RunOf) -> list[Picture]:
        from fitzle.core.build.rows import picture_files, pictures_of
        from fitzle.core.piece.editing import read_piece
        from fitzle.core.runs.reading import read_table

        piece, table = self.artwork(asked.piece), self.artwork(asked.table)
        folder = self.artwork(asked.pictures) if asked.pictures else None
        return pictures_of(
            asked,
            read_piece(self.bytes_of(piece), piece.name),
            read_table(self.bytes_of(table), asked.table),
            {place: self._sheet(place) for place in asked.places},
            picture_files(folder, piece) if folder else (),
        )

    def _picture(self, asked: Picture) -> Target:
        sheet = self._sheet(asked.place)
        if asked.artwork:
            inputs = {"artwork": self.artwork(asked.artwork)}
        else:
            piece = self.artwork(str(asked.piece))
            inputs = {"piece": piece} | self.artwork_of_piece(piece, asked, sheet)
        stem = safe_stem(Path(inputs.get("piece") or inputs["artwork"]).stem)
        name = asked.file or f"{safe_stem(sheet.destination or asked.place)}/{stem}"
        return Target(name, self._key(asked, sheet, inputs), asked, sheet, inputs)

    def _icons(self, asked: Icons) -> Target:
        inputs = {"mark": self.artwork(asked.mark)} | ({"dark": self.artwork(asked.dark)} if asked.dark else {})
        return Target(f"{asked.folder}/", self._key(asked, None, inputs), asked, None, inputs)

    def _key(self, asked: Picture | Icons, sheet: SpecSheet | None, inputs: dict[str, Path]) -> str:
        told: list[Any] = [ENGINE, RULES_VERSION, asked.model_dump(mode="json"), list(self.build.house)]
        told.append(sheet.model_dump(mode="json") if sheet else None)
        told.append({name: self._hash(path) for name, path in inputs.items()})
        return hashlib.sha256(json.dumps(told, sort_keys=True).encode()).hexdigest()[:32]

    def _hash(self, path: Path) -> str:
        if path not in self._hashes:
            self._hashes[path] = hashlib.sha256(self.bytes_of(path)).hexdigest()
        return self._hashes[path]

    def _sheet(self, place: str) -> SpecSheet:
        if place not in self._sheets:
            said = self.build.places.get(place, place)
            path = self.root / said
            if said.endswith(".json"):
                self._sheets[place] = read_spec_sheet(self.bytes_of(path), path.name)
            else:
                from fitzle.core.spec.words.reading import sheet_in_words

                self._sheets[place] = sheet_in_words(said)
        return self._sheets[place]
