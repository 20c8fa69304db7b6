-- Who was let in from the local network: codes that open once, and the devices that came with one.
-- Neither a code nor what a device shows of itself is kept, only their digests.

CREATE TABLE door_code (
  digest     TEXT PRIMARY KEY,
  role       TEXT NOT NULL CHECK (role IN ('reader', 'writer')),
  made_at    TEXT NOT NULL,
  expires_at TEXT NOT NULL
) STRICT;

CREATE TABLE door_device (
  id           TEXT PRIMARY KEY,
  name         TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
  role         TEXT NOT NULL CHECK (role IN ('reader', 'writer')),
  digest       TEXT NOT NULL UNIQUE,
  let_in_at    TEXT NOT NULL,
  last_seen_at TEXT NOT NULL
) STRICT;
