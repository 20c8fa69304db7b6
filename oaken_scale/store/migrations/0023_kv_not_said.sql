-- A motor whose Kv nobody said has none.

ALTER TABLE drive RENAME COLUMN kv TO kv_said;
ALTER TABLE drive ADD COLUMN kv REAL CHECK (kv > 0);
UPDATE drive SET kv = kv_said;
ALTER TABLE drive DROP COLUMN kv_said;
