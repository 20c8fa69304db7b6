"""Every constant of the core, held to the list of docs/constants.md."""

from difflib import unified_diff

from docs.list_constants import CORE, PAGE, constants, page


def test_no_figure_changes_without_being_seen():
    kept, now = PAGE.read_text().splitlines(), page().splitlines()
    changed = "\n".join(unified_diff(kept, now, "docs/constants.md", "the code", n=0, lineterm=""))
    assert kept == now, f"write it anew with make contract if this is meant:\n{changed}"


def test_every_constant_says_what_it_is():
    every = [(path, each) for path in CORE.rglob("*.py") for each in constants(path)]
    assert len(every) > 300
    assert [f"{path.stem}.{each.name}" for path, each in every if not each.words] == []
