-- What colour a part is painted or covered in.

ALTER TABLE item ADD COLUMN colour TEXT CHECK (colour IN
  ('white', 'black', 'grey', 'brown', 'red', 'orange', 'yellow', 'green', 'blue', 'violet', 'pink'));
