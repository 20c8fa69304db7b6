"""The starter rack: generic materials with honest ranges, until a builder weighs their own."""

from typing import Final

from oaken_scale.core.model.lot import Faces, Lot, LotKind, LotUnit

RANGE: Final = "usual range; weigh yours"
"""Where the starter figures come from."""

LOT_DOUBT: Final = 0.10
"""One sigma of a lot's constant where nobody said, as a fraction."""

WASTE: Final[dict[LotKind, float]] = {
    LotKind.FOAM: 1.25,
    LotKind.TAPE: 1.15,
    LotKind.ADHESIVE: 1.1,
    LotKind.ROD: 1.05,
    LotKind.FILM: 1.2,
    LotKind.PAINT: 1.3,
    LotKind.PLYWOOD: 1.2,
    LotKind.WOOD: 1.1,
    LotKind.CARD: 1.2,
    LotKind.OTHER: 1.0,
}
"""How much more than the parts' own area or run is wanted, by kind: offcuts, ends, drips."""

PAPER_SHARE: Final = (0.28, 0.05)
"""One face of paper, as a share of a sheet with both its papers; one sigma. Weigh before and after
stripping a square to know yours."""


def _foam(
    id: str,
    name: str,
    thickness_mm: float,
    constant: float,
    doubt: float,
    faces: Faces = Faces.NONE,
    sheet: tuple[float, float] = (700.0, 500.0),
) -> Lot:
    return Lot(
        id,
        name,
        LotUnit.DM2,
        constant,
        doubt,
        RANGE,
        LotKind.FOAM,
        faces,
        thickness_mm,
        *sheet,
    )


def _run(
    id: str,
    name: str,
    kind: LotKind,
    constant: float,
    doubt: float,
    length_mm: float | None = None,
    width_mm: float | None = None,
    adhesive: str = "",
) -> Lot:
    return Lot(
        id,
        name,
        LotUnit.M,
        constant,
        doubt,
        RANGE,
        kind,
        length_mm=length_mm,
        width_mm=width_mm,
        adhesive=adhesive,
    )


def _area(
    id: str, name: str, kind: LotKind, constant: float, doubt: float, adhesive: str = ""
) -> Lot:
    return Lot(id, name, LotUnit.DM2, constant, doubt, RANGE, kind, adhesive=adhesive)


STARTER: Final = (
    _foam("board-both", "Foam board 5 mm, both papers", 5, 4.5, 0.7, Faces.BOTH),
    _foam("board-one", "Foam board 5 mm, one paper off", 5, 3.2, 0.6, Faces.ONE),
    _foam("board-none", "Foam board 5 mm, both papers off", 5, 1.9, 0.5),
    _foam("xps-2", "Extruded polystyrene 2 mm", 2, 0.8, 0.15, sheet=(1000, 500)),
    _foam("xps-3", "Extruded polystyrene 3 mm", 3, 1.15, 0.2, sheet=(1250, 600)),
    _foam("xps-6", "Extruded polystyrene 6 mm", 6, 2.1, 0.35, sheet=(1250, 600)),
    _foam("underlay", "Underlay or fan-fold insulation 6 mm", 6, 1.9, 0.4, sheet=(1200, 600)),
    _foam("eps-20", "Expanded polystyrene 20 mm", 20, 4.0, 1.0, sheet=(1000, 500)),
    _foam("epp-6", "Expanded polypropylene 6 mm", 6, 1.4, 0.3, sheet=(900, 600)),
    _run("hot-melt", "Hot-melt glue, bead", LotKind.ADHESIVE, 2.4, 0.9, 8300, None, "hot-melt"),
    _run("epoxy", "Five-minute epoxy, bead", LotKind.ADHESIVE, 1.5, 0.6, None, None, "epoxy"),
    _run(
        "cyanoacrylate",
        "Foam-safe cyanoacrylate, bead",
        LotKind.ADHESIVE,
        0.4,
        0.2,
        None,
        None,
        "cyanoacrylate",
    ),
    _run(
        "polyurethane",
        "Polyurethane glue, bead",
        LotKind.ADHESIVE,
        0.9,
        0.4,
        None,
        None,
        "polyurethane",
    ),
    _run("white", "White glue, bead", LotKind.ADHESIVE, 1.0, 0.4, None, None, "white"),
    _area(
        "contact", "Foam-safe contact adhesive, both faces", LotKind.ADHESIVE, 0.9, 0.35, "contact"
    ),
    _run("foam-tape", "Double-sided foam tape 12 mm", LotKind.TAPE, 3.4, 0.8, 5000, 12),
    _run("packing-tape", "Packing tape 48 mm", LotKind.TAPE, 2.1, 0.3, 66000, 48),
    _run("strapping-tape", "Fibre-reinforced tape 25 mm", LotKind.TAPE, 3.2, 0.6, 50000, 25),
    _run("cloth-tape", "Cloth tape 48 mm", LotKind.TAPE, 9.5, 1.8, 25000, 48),
    _run("mesh-tape", "Mesh tape 48 mm", LotKind.TAPE, 3.0, 0.6, 20000, 48),
    _run("tube-4", "Carbon tube 4 mm", LotKind.ROD, 11.0, 1.5, 1000, 4),
    _run("rod-2", "Carbon rod 2 mm", LotKind.ROD, 5.0, 0.4, 1000, 2),
    _run("strip-3", "Carbon strip 3 by 0.5 mm", LotKind.ROD, 2.4, 0.3, 1000, 3),
    _run("skewer", "Bamboo skewer 3 mm", LotKind.ROD, 4.8, 0.8, 300, 3),
    _run("craft-stick", "Craft stick 10 mm", LotKind.ROD, 11.0, 2.0, 114, 10),
    _run("wire", "Steel wire 1 mm", LotKind.ROD, 6.2, 0.2, 1000, 1),
    _area("film", "Iron-on film", LotKind.FILM, 0.55, 0.12),
    _area("laminate", "Laminating film", LotKind.FILM, 0.45, 0.1),
    _area("paint", "Paint, one even coat", LotKind.PAINT, 0.35, 0.15),
    _area("plywood-3", "Plywood 3 mm", LotKind.PLYWOOD, 20.0, 2.5),
    _area("light-ply-3", "Light plywood 3 mm", LotKind.PLYWOOD, 13.5, 2.0),
    _run("wood-5", "Light wood, square 5 mm", LotKind.WOOD, 4.0, 1.2, 1000, 5),
    _run("tube-6", "Carbon tube 6 mm", LotKind.ROD, 24.0, 3.0, 1000, 6),
    _run("tube-8", "Carbon tube 8 mm", LotKind.ROD, 34.0, 4.5, 1000, 8),
    _run("square-4", "Carbon tube, square 4 mm", LotKind.ROD, 17.0, 2.0, 1000, 4),
    _run("narrow-tape", "Packing tape, slit to 12 mm", LotKind.TAPE, 0.53, 0.08, 66000, 12),
    _area("card-1", "Plastic card 1 mm", LotKind.CARD, 10.5, 0.8),
)
"""Ids are free for a workshop to keep; constants in g per unit with one sigma."""


def waste(lot: Lot) -> float:
    """The lot's own waste factor, or its kind's.

    >>> waste(STARTER[0])
    1.25
    """
    return WASTE[lot.kind] if lot.waste is None else lot.waste


def stripped(lot: Lot, faces: Faces) -> Lot:
    """A foam lot with fewer papers: what is left, by the usual share of the paper.

    ``c (1 - n p)`` with the share p of one face of a sheet with both papers (28 +- 5 %), n faces
    off; the doubt takes the lot's own and that of the share. A sheet that has lost one face already
    counts as ``c / (1 - p)`` with both.

    >>> bare = stripped(Lot("a", "A", LotUnit.DM2, 4.6, 0.0, faces=Faces.BOTH), Faces.ONE)
    >>> round(bare.constant, 3), round(bare.doubt, 3)
    (3.312, 0.23)
    """
    share, share_sd = PAPER_SHARE
    worn = {Faces.BOTH: 0, Faces.ONE: 1, Faces.NONE: 2}
    had, will = worn[lot.faces or Faces.BOTH], worn[faces]
    left = (1 - will * share) / (1 - had * share)
    slope = (had - will) / (1 - had * share) ** 2
    doubt = ((lot.doubt * left) ** 2 + (lot.constant * slope * share_sd) ** 2) ** 0.5
    names = {Faces.BOTH: "both papers", Faces.ONE: "one paper off", Faces.NONE: "both papers off"}
    return Lot(
        id=f"{lot.id}-{faces}",
        name=f"{lot.name.split(',')[0]}, {names[faces]}",
        unit=lot.unit,
        constant=lot.constant * left,
        doubt=doubt,
        source=f"{lot.name} less its paper",
        kind=lot.kind,
        faces=faces,
        thickness_mm=lot.thickness_mm,
        length_mm=lot.length_mm,
        width_mm=lot.width_mm,
        price=lot.price,
        waste=lot.waste,
    )
