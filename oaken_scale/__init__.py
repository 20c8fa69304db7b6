"""Oaken Scale: weigh a foam board build as it grows, and know how it will fly."""

import os

# The ledger's matrices are small: a second thread costs more to wake than it saves.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
