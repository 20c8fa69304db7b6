"""The sheet: what a plane weighs, where it balances and what was checked, on one page."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from oaken_scale.core.assess import Assessment, LoadoutAnswers
from oaken_scale.core.flight.forecast import Mark as HowKnown
from oaken_scale.core.flight.verdict import Word
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.presets import LAYOUTS, PURPOSES
from oaken_scale.core.model.target import TargetKind
from oaken_scale.paper.balance_mark import mark_strip
from oaken_scale.paper.drawing import FAINT, RUST, Page, Sheet, fitted, folded
from oaken_scale.paper.plane import Frame, plane
from oaken_scale.paper.sheet_words import (
    PRINTED,
    as_now,
    as_sum,
    checked,
    counted,
    day,
    done_since,
    in_sentence,
    verdict,
    wanted,
    without_place,
)
from oaken_scale.paper.shown import Shown
from oaken_scale.paper.table import ROW_MM, Cell, Column, legend, table

EDGE: Final = 13.0
"""What is left free around a page [mm]."""


BALANCED: Final = (
    "Balance with the pack that flies, canopy on, everything taped where it flies. Ballast and "
    "packs cannot come loose.",
    "Balance with everything taped where it flies. Ballast cannot come loose.",
)
"""What to mind about the balance: with a pack, and without."""


FIRST_FLIGHTS: Final = "First flights at the forward end of the range."


AT_THE_DRIVE: Final = "Propeller off while working on the drive."


RULES: Final = (
    "Where, how high and at what weight one may fly is for the local authority and the club: ask."
)


MOST_ASSEMBLIES: Final = 9


MOST_LOADOUTS: Final = 6


MOST_CHECKS: Final = 4


MUCH: Final = 400.0
"""A light plane's tenths are printed: one sigma that so small a share of it would be."""


MARK_MM: Final = 50.0
"""How high the balance mark stands at the foot [mm]."""


@dataclass(frozen=True, slots=True)
class Subject:
    """What a sheet is of: a build, what is told of it, and the loadout in front."""

    build: Build
    told: Assessment
    loadout: LoadoutAnswers | None


def sheet(subject: Subject, paper: Sheet, shown: Shown) -> Page:
    """The page, to be printed or looked at."""
    page = Page(paper.width, paper.height)
    right = paper.width - EDGE
    _head(page, subject, right, shown)
    top, gap = 34.0, 8.0
    left_wide = (right - EDGE - gap) * 0.47
    at = EDGE + left_wide + gap
    end = _targets(page, subject, at, top, right - at, shown)
    end = _weights(page, subject, at, end + 9, right - at, shown)
    notes = _notes(subject, (right - EDGE - 8) / 2, shown)
    deep = _deep(subject, notes)
    mark_at = paper.height - MARK_MM
    bottom = max(end, mark_at - 9 - deep)
    frame = Frame(EDGE, top + 3, left_wide, bottom - top - 8)
    scale = plane(page, subject.told, subject.loadout, frame, shown)
    if scale:
        words = f"from above, 1 : {shown.fixed(scale, 1)}"
        page.words(EDGE, bottom, words, 7.5, colour=FAINT)
    _loadouts(page, subject, bottom + 11, right, shown)
    _both(page, notes, bottom + deep - _high(notes), right)
    if subject.told.wing is not None and bottom + deep + 5 < mark_at:
        _mark(page, subject, mark_at, right, shown)
    page.words(
        right,
        paper.height - 6,
        "made by Oaken Scale; figures are as good as what was weighed",
        7,
        anchor="end",
        colour=FAINT,
    )
    return page


def _head(page: Page, subject: Subject, right: float, shown: Shown) -> None:
    build, wing = subject.build, subject.told.wing
    page.words(EDGE, 19.5, fitted(build.name, 110, 20, "strong"), 20, "strong")
    span = f"{shown.length(wing.span_mm)} {shown.length_unit.value}" if wing else ""
    named = (
        next((each.name for each in PURPOSES if each.id == build.purpose), build.purpose),
        next((each.name for each in LAYOUTS if each.id == build.layout), build.layout),
    )
    about = ", ".join(each for each in (named[0], in_sentence(named[1]), span) if each)
    page.words(EDGE, 25.5, fitted(about, 110, 10), 10, colour=FAINT)
    readings = [each for each in build.weighings if each.set_aside is None]
    checks = [each for each in build.checks if each.set_aside is None]
    times = [each.at for each in build.weighings] + [each.at for each in build.checks]
    when = max(times, default=None)
    page.words(right, 20, state_of(subject), 9, anchor="end", colour=FAINT)
    said = [day(when)] if when else []
    said += [counted(len(readings), "reading"), counted(len(checks), "check")]
    page.words(right, 25.5, ", ".join(said), 9, anchor="end", colour=FAINT)
    page.line((EDGE, 28.5), (right, 28.5), width=0.5)


def state_of(subject: Subject) -> str:
    """How far the loadout in front has come: weighed, and balanced by hand as it flies now. A check
    with another loadout, one before the plane was changed and one that disagrees count for nothing.
    """
    loadout, told = subject.loadout, subject.told
    if loadout is None or not loadout.fully_weighed:
        return "not all weighed yet"
    checks = subject.build.checks
    whole = {each.id for each in checks if each.set_aside is None and each.is_of_the_plane}
    made = [
        each
        for each in told.beam.checks
        if each.id in whole and each.loadout in (None, loadout.id) and not each.across
    ]
    if not made or any(each.loadout == loadout.id for each in told.unchecked):
        return "weighed, balance not checked"
    last = max(made, key=lambda check: check.at)
    return "weighed, its check disagrees" if last.disagrees else "weighed and balanced"


def _targets(page: Page, subject: Subject, x: float, y: float, wide: float, shown: Shown) -> float:
    if subject.loadout is not None:
        page.words(x, y + 1.0, fitted(subject.loadout.name, wide, 9, "strong"), 9, "strong")
    answers = subject.loadout.answers if subject.loadout else ()
    shares = (0.26, 0.24, 0.22, 0.28)
    columns = [
        Column(title, wide * share, is_figure=title == "now")
        for title, share in zip(("target", "wanted", "now", "verdict"), shares, strict=True)
    ]
    y += 2.5 + ROW_MM
    edge = x
    for column in columns:
        figure = column.is_figure
        page.words(
            edge + column.wide - 1 if figure else edge + 0.8,
            y - 1.8,
            column.title,
            8.5,
            anchor="end" if figure else "start",
            colour=FAINT,
        )
        edge += column.wide
    page.line((x, y), (x + wide, y), width=0.35)
    for answer in answers:
        cells = (
            PRINTED[answer.kind].title,
            wanted(answer, shown),
            as_now(answer, shown),
            verdict(answer, shown),
        )
        lines = [
            folded(
                cell, column.wide - 1.5, 8.5 if k != 2 else 8.0, "figures" if k == 2 else "words"
            )
            for k, (cell, column) in enumerate(zip(cells, columns, strict=True))
        ]
        deep = max(map(len, lines))
        edge = x
        for k, (column, text) in enumerate(zip(columns, lines, strict=True)):
            for row, words in enumerate(text):
                down = y + 3.9 + 3.6 * row
                if column.is_figure:
                    page.words(edge + column.wide - 1, down, words, 8, "figures", "end")
                else:
                    wrong = k == 3 and answer.word in (Word.OFF_COURSE, Word.MISSED)
                    page.words(edge + 0.8, down, words, 8.5, colour=RUST if wrong else "#2B2118")
            edge += column.wide
        y += 2.2 + 3.6 * deep
        page.line((x, y), (x + wide, y), colour="#D9C9B0")
    return y


def _weights(page: Page, subject: Subject, x: float, y: float, wide: float, shown: Shown) -> float:
    unit = shown.mass_unit.value
    page.words(x, y, f"Weights, {unit}", 10.5, "strong")
    ways = _ways_known(subject)
    all_of = subject.told.assemblies
    whole = subject.told.so_far
    exact = shown.masses.exact_to(min(whole.forecast_sd_g, whole.forecast_g / MUCH))
    few = all_of if len(all_of) <= MOST_ASSEMBLIES else all_of[: MOST_ASSEMBLIES - 1]
    rows: list[Sequence[Cell]] = [
        (
            each.name or "Loose parts",
            ways.get(each.name, HowKnown.GUESS),
            shown.mass(each.mass_g, exact),
            shown.mass(2 * each.sd_g, exact),
        )
        for each in few
    ]
    rest = all_of[len(few) :]
    if rest:
        # What shares a sheet or a bottle is not independent: the sum of the doubts is the most.
        grams, doubt = sum(each.mass_g for each in rest), 2 * sum(each.sd_g for each in rest)
        rows.append((f"{len(rest)} more", "", shown.mass(grams, exact), shown.mass(doubt, exact)))
    columns = (
        Column("assembly, all that is listed", wide - 38),
        Column("", 6.0),
        Column(unit, 17.0, True),
        Column("±", 15.0, True),
    )
    y = table(page, x, y + 1.0, columns, rows)
    legend(page, x, y + 4.4)
    return y + 4.4


def _ways_known(subject: Subject) -> dict[str, HowKnown]:
    """For each assembly how the part is known that adds most to its doubt."""
    masses = {each.id: each for each in subject.told.parts}
    worst: dict[str, tuple[float, HowKnown]] = {}
    for part in subject.build.parts:
        mass = masses.get(part.id)
        if mass is None or part.retired:
            continue
        name = part.assembly.split("/")[0]
        if mass.sd_g >= worst.get(name, (-1.0, mass.mark))[0]:
            worst[name] = (mass.sd_g, mass.mark)
    return {name: mark for name, (_, mark) in worst.items()}


def _loadouts(page: Page, subject: Subject, y: float, right: float, shown: Shown) -> float:
    page.words(EDGE, y, "Each loadout", 10.5, "strong")
    power = (
        {each.loadout: each for each in subject.told.power.loadouts} if subject.told.power else {}
    )
    beams = {each.id: each for each in subject.told.beam.loadouts}
    rows: list[Sequence[Cell]] = []
    for each in subject.told.loadouts[:MOST_LOADOUTS]:
        of = {answer.kind: answer for answer in each.answers}
        auw, ratio = of[TargetKind.AUW], of[TargetKind.THRUST_TO_WEIGHT]
        balance, drive = beams.get(each.id), power.get(each.id)
        hottest = max(drive.margins, key=lambda m: m.share, default=None) if drive else None
        rows.append(
            (
                each.name,
                as_sum(auw, shown),
                "–" if ratio.value is None else shown.fixed(ratio.value, 2),
                "–" if each.cg is None else shown.length(each.cg.x_mm),
                "–"
                if balance is None or balance.margin is None
                else f"{shown.fixed(100 * balance.margin, 0)} %",
                "–" if drive is None or drive.minutes is None else shown.fixed(drive.minutes, 1),
                ""
                if hottest is None
                else f"{hottest.part.value} {shown.fixed(100 * hottest.share, 0)} %",
                balance.flies.value if balance else "",
            )
        )
    wide = right - EDGE
    columns = (
        Column("loadout", wide - 130),
        Column(f"all up, {shown.mass_unit.value}", 23.0, True),
        Column("thrust", 13.0, True),
        Column(f"CG, {shown.length_unit.value}", 16.0, True),
        Column("margin", 15.0, True),
        Column("minutes", 16.0, True),
        Column("nearest its limit", 25.0),
        Column("by its targets", 22.0),
    )
    y = table(page, EDGE, y + 1.0, columns, rows)
    left_out = len(subject.told.loadouts) - len(rows)
    if left_out > 0:
        page.words(EDGE, y + 4, f"and {left_out} more", 8, colour=FAINT)
        y += 4
    return y


def _deep(subject: Subject, notes: tuple[list[str], list[str]]) -> float:
    """How much room the table of loadouts and the notes under it take [mm]."""
    rows = min(len(subject.told.loadouts), MOST_LOADOUTS) + 1
    left_out = 4 if len(subject.told.loadouts) > MOST_LOADOUTS else 0
    return 12 + ROW_MM * rows + left_out + 9 + _high(notes)


def _high(notes: tuple[list[str], list[str]]) -> float:
    return 4.8 + 3.9 * max(map(len, notes))


def _notes(subject: Subject, half: float, shown: Shown) -> tuple[list[str], list[str]]:
    """What was checked by hand, and what to mind before each flight, in lines."""
    lines: list[str] = []
    aside = {each.id for each in subject.build.checks if each.set_aside is not None}
    told = [each for each in subject.told.beam.checks if each.id not in aside]
    for each in sorted(told, key=lambda check: check.at)[-MOST_CHECKS:]:
        lines += folded(checked(each, subject.build, shown), half, 8.5)
    if not told:
        with_it = " with the pack in" if subject.told.carries.pack else ""
        words = f"Not checked by hand yet: hold it at both marks{with_it}."
        lines = folded(words, half, 8.5)
    since = next(
        (
            each
            for each in subject.told.unchecked
            if subject.loadout and each.loadout == subject.loadout.id
        ),
        None,
    )
    if since is not None:
        lines += folded(f"Not checked since: {done_since(since.since, subject.build)}.", half, 8.5)
    mine = subject.loadout and next(
        each for each in subject.told.beam.loadouts if each.id == subject.loadout.id
    )
    if mine and mine.unplaced:
        lines += folded(without_place(mine.unplaced, subject.build), half, 8.5)
    return lines, [line for each in _cautions(subject.told) for line in folded(each, half, 8.5)]


def _cautions(told: Assessment) -> tuple[str, str, str]:
    """What to mind before each flight, of what this plane carries."""
    drive = "" if told.carries.thrown else f" {AT_THE_DRIVE}"
    return BALANCED[0 if told.carries.pack else 1], FIRST_FLIGHTS + drive, RULES


def _both(page: Page, notes: tuple[list[str], list[str]], y: float, right: float) -> None:
    half = (right - EDGE - 8) / 2
    for title, x, lines in zip(
        ("Checked by hand", "Before each flight"), (EDGE, EDGE + half + 8), notes, strict=True
    ):
        page.words(x, y, title, 10.5, "strong")
        for row, words in enumerate(lines):
            page.words(x, y + 4.8 + 3.9 * row, words, 8.5)


def _mark(page: Page, subject: Subject, y: float, right: float, shown: Shown) -> None:
    page.words(EDGE, y, "The mark, at full size: lay it on the root chord", 10.5, "strong")
    strip = mark_strip(subject.told, subject.loadout, shown)
    page.window = (EDGE, y + 1, right, page.height - 8)
    page.clipped = strip.placed(EDGE, y + 4)
    if strip.long > right - EDGE:
        words = "longer than this page: Balance marks prints all of it"
        page.words(right, y, words, 7.5, anchor="end", colour=FAINT)
