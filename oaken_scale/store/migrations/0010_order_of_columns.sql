-- The key's columns first, in their order: SQLite before 3.41 reads the others wrongly when it checks
-- the whole of a table that has no row numbers, and calls a sound workshop damaged.

CREATE TABLE loadout_option_in_order (
  build_id   TEXT NOT NULL,
  loadout_id TEXT NOT NULL,
  item_id    TEXT NOT NULL,
  place      INTEGER NOT NULL,
  PRIMARY KEY (build_id, loadout_id, item_id),
  FOREIGN KEY (build_id, loadout_id) REFERENCES loadout ON DELETE CASCADE,
  FOREIGN KEY (build_id, item_id) REFERENCES item DEFERRABLE INITIALLY DEFERRED
) STRICT, WITHOUT ROWID;
INSERT INTO loadout_option_in_order (build_id, loadout_id, item_id, place)
  SELECT build_id, loadout_id, item_id, place FROM loadout_option;
DROP TABLE loadout_option;
ALTER TABLE loadout_option_in_order RENAME TO loadout_option;

CREATE TABLE happening_item_in_order (
  build_id     TEXT NOT NULL,
  happening_id TEXT NOT NULL,
  item_id      TEXT NOT NULL,
  place        INTEGER NOT NULL,
  PRIMARY KEY (build_id, happening_id, item_id),
  FOREIGN KEY (build_id, happening_id) REFERENCES happening ON DELETE CASCADE,
  FOREIGN KEY (build_id, item_id) REFERENCES item DEFERRABLE INITIALLY DEFERRED
) STRICT, WITHOUT ROWID;
INSERT INTO happening_item_in_order (build_id, happening_id, item_id, place)
  SELECT build_id, happening_id, item_id, place FROM happening_item;
DROP TABLE happening_item;
ALTER TABLE happening_item_in_order RENAME TO happening_item;
