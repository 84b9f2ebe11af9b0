-- The file says whose it is, so that a restore can tell it from another's.
PRAGMA application_id = 1146440787;

-- Spoons and cups, the pantry's air, and how dates are written.
ALTER TABLE household ADD COLUMN measures TEXT NOT NULL DEFAULT 'metric' CHECK (measures IN ('us', 'metric'));
ALTER TABLE household ADD COLUMN pantry_humidity REAL NOT NULL DEFAULT 0.55 CHECK (pantry_humidity BETWEEN 0.05 AND 0.95);
ALTER TABLE household ADD COLUMN locale TEXT NOT NULL DEFAULT 'en-GB' CHECK (length(locale) BETWEEN 2 AND 35);

-- What a batch's product brings into a dish, and what is in a jar, as JSON; what a blend or a packet is called, and a
-- blend as a food of the shelf.
ALTER TABLE batch_view ADD COLUMN product TEXT CHECK (product IS NULL OR json_valid(product));
ALTER TABLE jar_view ADD COLUMN name TEXT;
ALTER TABLE jar_view ADD COLUMN content TEXT CHECK (content IS NULL OR json_valid(content));
ALTER TABLE jar_view ADD COLUMN blend TEXT CHECK (blend IS NULL OR json_valid(blend));

-- A jar may hold what was bought in, which no batch gave.
DROP TABLE jar_part;
CREATE TABLE jar_part (
  jar_id   TEXT    NOT NULL REFERENCES jar (id),
  -- A batch, or the jar in which it was bought in.
  lot_id   TEXT    NOT NULL,
  ever_g   REAL    NOT NULL,
  left_g   REAL    NOT NULL,
  PRIMARY KEY (jar_id, lot_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX jar_part_lot ON jar_part (lot_id);

-- A batch's page asks for the newest jars of its kind, and for what was said of them.
DROP INDEX jar_view_food;
CREATE INDEX jar_view_food ON jar_view (food_key, purpose, filled_at, left_g);
CREATE INDEX entry_review ON entry (at) WHERE kind = 'review' AND jar_id IS NOT NULL;

-- An entry belongs to a batch, a run or a jar, and a jar need not come from a batch: an index holds those that do.
DROP INDEX entry_batch;
CREATE INDEX entry_batch ON entry (batch_id, seq) WHERE batch_id IS NOT NULL;
DROP INDEX entry_run;
CREATE INDEX entry_run ON entry (run_id, seq) WHERE run_id IS NOT NULL;
DROP INDEX jar_view_batch;
CREATE INDEX jar_view_batch ON jar_view (batch_id) WHERE batch_id IS NOT NULL;

-- Which jars an entry stands under is asked for when it is corrected or voided.
CREATE INDEX entry_jar_seq ON entry_jar (seq);

-- The household's own recipes: blends, and dishes that use powders.
CREATE TABLE recipe (
  id      TEXT PRIMARY KEY CHECK (length(id) = 36),
  kind    TEXT    NOT NULL CHECK (kind IN ('blend', 'dish')),
  name    TEXT    NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  body    TEXT    NOT NULL CHECK (json_valid(body)),
  version INTEGER NOT NULL DEFAULT 1
) STRICT, WITHOUT ROWID;

-- Each recipe as it stood before it was changed or removed: nothing typed is lost.
CREATE TABLE recipe_past (
  id      TEXT    NOT NULL,
  version INTEGER NOT NULL,
  kind    TEXT    NOT NULL,
  name    TEXT    NOT NULL,
  body    TEXT    NOT NULL CHECK (json_valid(body)),
  until   INTEGER NOT NULL,
  PRIMARY KEY (id, version)
) STRICT, WITHOUT ROWID;
