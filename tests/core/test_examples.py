"""Whoever opens the core finds an example beside every function, and it runs with the tests."""

import ast
from pathlib import Path

import pytest

CORE = Path(__file__).parents[2] / "oaken_scale/core"
MODULES = sorted(path.relative_to(CORE).as_posix() for path in CORE.rglob("*.py"))


@pytest.mark.parametrize("module", MODULES)
def test_every_public_function_carries_an_example(module):
    written = ast.parse((CORE / module).read_text())
    functions = [each for each in written.body if isinstance(each, ast.FunctionDef)]
    without = [
        each.name
        for each in functions
        if not each.name.startswith("_") and ">>> " not in (ast.get_docstring(each) or "")
    ]
    assert without == []


@pytest.mark.parametrize("module", MODULES)
def test_every_public_method_is_shown_on_it_or_on_its_class(module):
    written = ast.parse((CORE / module).read_text())
    classes = [each for each in written.body if isinstance(each, ast.ClassDef)]
    without = [
        f"{each.name}.{method.name}"
        for each in classes
        if not each.name.startswith("_") and ">>> " not in (ast.get_docstring(each) or "")
        for method in each.body
        if isinstance(method, ast.FunctionDef) and not method.name.startswith("_")
        if not any(getattr(mark, "id", "").endswith("property") for mark in method.decorator_list)
        if ">>> " not in (ast.get_docstring(method) or "")
    ]
    assert without == []
