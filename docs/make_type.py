"""Makes the type that paper is printed with from the one that the pages ship: `python -m
docs.make_type`, after the fonts of the pages were renewed.

A PDF holds its type as TrueType outlines of one weight each; the pages' are variable and packed.
"""

import shutil
import tempfile
from pathlib import Path

from fontTools.merge import Merger
from fontTools.ttLib import TTFont
from fontTools.varLib.instancer import instantiateVariableFont

SHIPPED = Path("web/node_modules/@fontsource-variable")
TYPE = Path("oaken_scale/paper/type")
CUTS = {
    "words": ("atkinson-hyperlegible-next", 400),
    "strong": ("atkinson-hyperlegible-next", 650),
    "figures": ("atkinson-hyperlegible-mono", 400),
    "strong-figures": ("atkinson-hyperlegible-mono", 650),
}


def cut(family: str, weight: int, target: Path) -> None:
    """One weight of a family, its western and its other Latin letters in one file."""
    with tempfile.TemporaryDirectory() as folder:
        halves = []
        for subset in ("latin", "latin-ext"):
            packed = SHIPPED / family / "files" / f"{family}-{subset}-wght-normal.woff2"
            font = instantiateVariableFont(TTFont(packed), {"wght": weight})
            font.flavor = None
            for table in ("GSUB", "GPOS", "GDEF", "STAT", "DSIG"):
                if table in font:
                    del font[table]
            halves.append(str(Path(folder) / f"{subset}.ttf"))
            font.save(halves[-1])
        whole = Merger().merge(halves)
        # Each cut is a font of its own to whatever reads the paper.
        called = f"{family.title().replace('-', '')}-{target.stem.title()}"
        for number in (1, 3, 4, 6, 16):
            whole["name"].setName(called, number, 3, 1, 0x409)
            whole["name"].removeNames(number, 1)
        whole.save(target)


def main() -> None:
    """Make all of them."""
    for name, (family, weight) in CUTS.items():
        cut(family, weight, TYPE / f"{name}.ttf")
    shutil.copy(SHIPPED / "atkinson-hyperlegible-next" / "LICENSE", TYPE / "LICENSE")


if __name__ == "__main__":
    main()
