-- What was held when a balance was checked, where it was not the whole plane: a fuselage alone.
ALTER TABLE balance_check ADD COLUMN part TEXT NOT NULL DEFAULT '';
