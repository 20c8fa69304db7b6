"""A plan of cuts on paper: each sheet at full size over as many pages as it takes."""

from collections.abc import Callable, Sequence

from oaken_scale.core.material.cutting import CutPiece, CutPlan
from oaken_scale.paper.balance_mark import Strip
from oaken_scale.paper.drawing import FAINT, Page, Sheet
from oaken_scale.paper.full_size import strip_sheets, tiles
from oaken_scale.paper.shown import Shown


def cut_sheets(
    plans: Sequence[CutPlan], label: Callable[[CutPiece], str], paper: Sheet, shown: Shown
) -> list[Page]:
    """Every sheet of every plan with what is cut out of it, to lay on the board."""
    pages = []
    for plan in plans:
        for number in range(plan.sheets):
            page = Page(plan.length_mm, plan.width_mm)
            corners = (
                (0, 0),
                (plan.length_mm, 0),
                (plan.length_mm, plan.width_mm),
                (0, plan.width_mm),
            )
            page.area(corners, colour=FAINT)
            for piece in plan.pieces:
                if piece.sheet == number:
                    for ring in piece.rings:
                        page.area(list(ring), width=0.35)
                    for line in piece.folds:
                        page.line(*line, width=0.35, dash=(6, 3))
                    x, y = piece.name_at
                    page.words(x, y, label(piece), 8)
            title = f"{plan.name}, sheet {number + 1} of {plan.sheets}"
            pages += tiles(Strip(page.width, page.height, page.marks), paper, title, shown)
    return pages


def cut_sheets_taken(plans: Sequence[CutPlan], paper: Sheet) -> int:
    """How many sheets of paper that takes."""
    return sum(plan.sheets * strip_sheets(plan.length_mm, plan.width_mm, paper) for plan in plans)
