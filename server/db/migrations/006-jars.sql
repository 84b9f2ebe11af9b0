-- Jars get a log of their own, since one may hold what several batches gave. The rows stay as they were
-- written; what concerns a jar moves from the batch's log to the jar's.
DROP TRIGGER entry_is_never_changed;
DROP TRIGGER entry_is_never_removed;

CREATE TABLE jar_new (
  id     TEXT PRIMARY KEY CHECK (length(id) = 36),
  number INTEGER NOT NULL UNIQUE
) STRICT;
INSERT INTO jar_new (id, number) SELECT id, number FROM jar;

CREATE TABLE entry_new (
  seq         INTEGER PRIMARY KEY AUTOINCREMENT,
  id          TEXT    NOT NULL UNIQUE CHECK (length(id) = 36),
  batch_id    TEXT    REFERENCES batch (id),
  run_id      TEXT    REFERENCES run (id),
  jar_id      TEXT    REFERENCES jar (id),
  kind        TEXT    NOT NULL,
  at          INTEGER NOT NULL,
  recorded_at INTEGER NOT NULL,
  replaces    TEXT    REFERENCES entry (id),
  body        TEXT    NOT NULL CHECK (json_valid(body)),
  -- Heat belongs to a run and so to all its batches, a taking to a jar; everything else to one batch.
  CHECK ((batch_id IS NOT NULL) + (run_id IS NOT NULL) + (jar_id IS NOT NULL) = 1)
) STRICT;
INSERT INTO entry_new (seq, id, batch_id, run_id, jar_id, kind, at, recorded_at, replaces, body)
SELECT e.seq, e.id,
       CASE WHEN e.kind IN ('take', 'smell', 'moveJar', 'discard') OR t.seq IS NOT NULL THEN NULL ELSE e.batch_id END,
       e.run_id,
       CASE WHEN e.kind IN ('take', 'smell', 'moveJar', 'discard') THEN json_extract(e.body, '$.jarId') WHEN t.seq IS NOT NULL THEN json_extract(t.body, '$.jarId') END,
       e.kind, e.at, e.recorded_at, e.replaces, e.body
FROM entry e LEFT JOIN entry t ON e.kind = 'void' AND t.id = json_extract(e.body, '$.target') AND t.kind IN ('take', 'smell', 'moveJar', 'discard');

-- Every entry under each jar that it names, or whose entry it corrects or voids.
CREATE TABLE entry_jar (
  jar_id TEXT    NOT NULL REFERENCES jar (id),
  seq    INTEGER NOT NULL REFERENCES entry (seq),
  PRIMARY KEY (jar_id, seq)
) STRICT, WITHOUT ROWID;
INSERT INTO entry_jar (jar_id, seq)
SELECT coalesce(e.jar_id, json_extract(e.body, '$.jarId')), e.seq FROM entry_new e WHERE e.jar_id IS NOT NULL OR e.kind = 'pack';
INSERT OR IGNORE INTO entry_jar (jar_id, seq)
SELECT json_extract(t.body, '$.jarId'), e.seq FROM entry_new e JOIN entry_new t ON t.id = json_extract(e.body, '$.target') WHERE e.kind = 'void' AND t.kind = 'pack';

DROP TABLE jar_view;
DROP TABLE entry;
ALTER TABLE entry_new RENAME TO entry;
DROP TABLE jar;
ALTER TABLE jar_new RENAME TO jar;
CREATE INDEX entry_batch  ON entry (batch_id, seq);
CREATE INDEX entry_run    ON entry (run_id, seq);
CREATE INDEX entry_of_jar ON entry (jar_id, kind) WHERE jar_id IS NOT NULL;
CREATE INDEX entry_air    ON entry (at) WHERE kind = 'air';
CREATE INDEX entry_load   ON entry (json_extract(body, '$.runId')) WHERE kind = 'load';
CREATE INDEX entry_intake ON entry (json_extract(body, '$.foodKey'), at) WHERE kind = 'intake';

CREATE TRIGGER entry_is_never_changed BEFORE UPDATE ON entry
BEGIN SELECT RAISE(ABORT, 'the log is append-only'); END;
CREATE TRIGGER entry_is_never_removed BEFORE DELETE ON entry
BEGIN SELECT RAISE(ABORT, 'the log is append-only'); END;

-- Views, made anew from the log.
CREATE TABLE jar_view (
  jar_id      TEXT PRIMARY KEY REFERENCES jar (id),
  number      INTEGER NOT NULL,
  batch_id    TEXT    REFERENCES batch (id),
  food_key    TEXT    NOT NULL,
  purpose     TEXT    NOT NULL,
  place       TEXT    NOT NULL,
  package_key TEXT    NOT NULL,
  net_g       REAL    NOT NULL,
  left_g      REAL    NOT NULL,
  size_ml     INTEGER,
  packed_at   INTEGER NOT NULL,
  filled_at   INTEGER NOT NULL,
  -- Age of the oldest part, and how many baskets it holds.
  oldest_at   INTEGER NOT NULL,
  baskets     INTEGER NOT NULL,
  best_from   INTEGER NOT NULL,
  best_to     INTEGER NOT NULL,
  best_limit  TEXT    NOT NULL,
  moisture    REAL    NOT NULL,
  smell       TEXT,
  smelt_at    INTEGER,
  saw         TEXT,
  looked_at   INTEGER
) STRICT, WITHOUT ROWID;
CREATE INDEX jar_view_shelf ON jar_view (place, number, left_g) WHERE left_g > 0;
CREATE INDEX jar_view_best  ON jar_view (best_from) WHERE left_g > 0;
CREATE INDEX jar_view_batch ON jar_view (batch_id);
CREATE INDEX jar_view_food  ON jar_view (food_key, left_g);

-- Which baskets are or were in a jar: a recall asks it both ways.
CREATE TABLE jar_part (
  jar_id   TEXT    NOT NULL REFERENCES jar (id),
  batch_id TEXT    NOT NULL REFERENCES batch (id),
  ever_g   REAL    NOT NULL,
  left_g   REAL    NOT NULL,
  PRIMARY KEY (jar_id, batch_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX jar_part_batch ON jar_part (batch_id);

-- What was taken to be eaten, for the year's consumption.
CREATE TABLE jar_use (
  jar_id   TEXT    NOT NULL REFERENCES jar (id),
  entry_id TEXT    NOT NULL,
  at       INTEGER NOT NULL,
  grams    REAL    NOT NULL,
  food_key TEXT    NOT NULL,
  PRIMARY KEY (jar_id, entry_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX jar_use_at ON jar_use (at, food_key, grams);

ALTER TABLE batch_view ADD COLUMN rested INTEGER NOT NULL DEFAULT 0 CHECK (rested IN (0, 1));
ALTER TABLE batch_view ADD COLUMN moisture REAL NOT NULL DEFAULT 0;
-- What a batch cost and where it lost: hands-on minutes, hours of heat, its price, and the grinding's losses as JSON.
ALTER TABLE batch_view ADD COLUMN insight TEXT CHECK (insight IS NULL OR json_valid(insight));
-- The newest word for next time, as JSON.
ALTER TABLE batch_view ADD COLUMN review TEXT CHECK (review IS NULL OR json_valid(review));

-- Grinders and sieves of the Workshop.
CREATE TABLE tool (
  id         TEXT PRIMARY KEY CHECK (length(id) = 36),
  kind       TEXT    NOT NULL CHECK (kind IN ('grinder', 'sieve')),
  name       TEXT    NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  body       TEXT    NOT NULL CHECK (json_valid(body)),
  retired_at INTEGER,
  version    INTEGER NOT NULL DEFAULT 1
) STRICT;

-- What the shelf should hold of a food at least, and what the shop asks for it.
CREATE TABLE food_wish (
  food_key     TEXT PRIMARY KEY CHECK (length(food_key) BETWEEN 1 AND 60),
  least_g      REAL CHECK (least_g IS NULL OR (least_g > 0 AND least_g <= 1000000)),
  shop_per_kg  REAL CHECK (shop_per_kg IS NULL OR (shop_per_kg > 0 AND shop_per_kg <= 1000000))
) STRICT, WITHOUT ROWID;

ALTER TABLE household ADD COLUMN money TEXT NOT NULL DEFAULT '€' CHECK (length(money) BETWEEN 1 AND 6);
ALTER TABLE household ADD COLUMN kwh_price REAL NOT NULL DEFAULT 0.3 CHECK (kwh_price BETWEEN 0 AND 100000);
ALTER TABLE household ADD COLUMN hour_worth REAL NOT NULL DEFAULT 0 CHECK (hour_worth BETWEEN 0 AND 100000);
