"""The machine's own Chromium, without a monitor: the one made for that first, which starts a page
in half the time."""

import os
import shutil
from typing import Final

NAMES: Final = ("chromium-headless-shell", "chromium", "chromium-browser", "google-chrome")

QUIET: Final = (
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    # One process for all pages, one after the other: it has read the scripts already.
    "--renderer-process-limit=1",
    *(("--no-sandbox",) if os.geteuid() == 0 else ()),
)


def chromium_path() -> str | None:
    """Where it lies; None where there is none."""
    return next((path for name in NAMES if (path := shutil.which(name))), None)
