"""The HTTP API: thin; no rule of the job lives here."""
