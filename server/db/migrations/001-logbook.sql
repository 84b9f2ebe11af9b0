-- The household: one row.
CREATE TABLE household (
  id             INTEGER PRIMARY KEY CHECK (id = 1),
  name           TEXT    NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  time_zone      TEXT    NOT NULL,
  weight_unit    TEXT    NOT NULL CHECK (weight_unit IN ('g', 'oz')),
  temperature_unit TEXT  NOT NULL CHECK (temperature_unit IN ('C', 'F')),
  clock_hours    INTEGER NOT NULL CHECK (clock_hours IN (12, 24)),
  sleep_from     INTEGER NOT NULL CHECK (sleep_from BETWEEN 0 AND 1439),
  sleep_to       INTEGER NOT NULL CHECK (sleep_to BETWEEN 0 AND 1439),
  pantry_c       REAL    NOT NULL CHECK (pantry_c BETWEEN -30 AND 45),
  jar_ml         INTEGER NOT NULL CHECK (jar_ml BETWEEN 10 AND 10000),
  version        INTEGER NOT NULL DEFAULT 1
) STRICT;

CREATE TABLE machine (
  id           TEXT PRIMARY KEY CHECK (length(id) = 36),
  name         TEXT    NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  kind         TEXT    NOT NULL CHECK (kind IN ('dehydrator')),
  trays        INTEGER NOT NULL CHECK (trays BETWEEN 1 AND 40),
  tray_area_m2 REAL    NOT NULL CHECK (tray_area_m2 > 0 AND tray_area_m2 <= 2),
  tray_tare_g  REAL    NOT NULL CHECK (tray_tare_g >= 0 AND tray_tare_g <= 5000),
  watts        INTEGER NOT NULL CHECK (watts BETWEEN 1 AND 20000),
  low_c        REAL    NOT NULL CHECK (low_c BETWEEN 0 AND 200),
  high_c       REAL    NOT NULL CHECK (high_c BETWEEN 0 AND 250 AND high_c > low_c),
  retired_at   INTEGER,
  version      INTEGER NOT NULL DEFAULT 1
) STRICT;

-- A batch is what is followed from one intake to its jars. Numbers are for people and never reused.
CREATE TABLE batch (
  id         TEXT PRIMARY KEY CHECK (length(id) = 36),
  number     INTEGER NOT NULL UNIQUE,
  created_at INTEGER NOT NULL
) STRICT;

-- One spell of a machine with the heat in common; it may carry several batches.
CREATE TABLE run (
  id         TEXT PRIMARY KEY CHECK (length(id) = 36),
  machine_id TEXT NOT NULL REFERENCES machine (id),
  created_at INTEGER NOT NULL
) STRICT;
CREATE INDEX run_machine ON run (machine_id, created_at);

CREATE TABLE jar (
  id         TEXT PRIMARY KEY CHECK (length(id) = 36),
  number     INTEGER NOT NULL UNIQUE,
  batch_id   TEXT NOT NULL REFERENCES batch (id)
) STRICT;
CREATE INDEX jar_batch ON jar (batch_id);

-- The log. Rows are added and never changed: a correction is a row that names the one it replaces.
CREATE TABLE entry (
  seq         INTEGER PRIMARY KEY AUTOINCREMENT,
  id          TEXT    NOT NULL UNIQUE CHECK (length(id) = 36),
  batch_id    TEXT    REFERENCES batch (id),
  run_id      TEXT    REFERENCES run (id),
  kind        TEXT    NOT NULL,
  at          INTEGER NOT NULL,
  recorded_at INTEGER NOT NULL,
  replaces    TEXT    REFERENCES entry (id),
  body        TEXT    NOT NULL CHECK (json_valid(body)),
  -- Heat belongs to a run and so to all its batches; everything else to one batch.
  CHECK ((batch_id IS NULL) <> (run_id IS NULL))
) STRICT;
CREATE INDEX entry_batch ON entry (batch_id, seq);
CREATE INDEX entry_run   ON entry (run_id, seq);

CREATE TRIGGER entry_is_never_changed BEFORE UPDATE ON entry
BEGIN SELECT RAISE(ABORT, 'the log is append-only'); END;
CREATE TRIGGER entry_is_never_removed BEFORE DELETE ON entry
BEGIN SELECT RAISE(ABORT, 'the log is append-only'); END;

-- What follows. These three tables are worked out from the log by core/ and can be made anew at any
-- time; they are here so that a page does not have to fold every batch.
CREATE TABLE batch_view (
  batch_id    TEXT PRIMARY KEY REFERENCES batch (id),
  number      INTEGER NOT NULL,
  food_key    TEXT    NOT NULL,
  title       TEXT    NOT NULL,
  stage       TEXT    NOT NULL,
  purpose     TEXT    NOT NULL,
  card_key    TEXT    NOT NULL,
  started_at  INTEGER NOT NULL,
  touched_at  INTEGER NOT NULL,
  machine_id  TEXT    REFERENCES machine (id),
  run_id      TEXT    REFERENCES run (id),
  raw_g       REAL    NOT NULL,
  loaded_g    REAL,
  dry_g       REAL,
  powder_g    REAL,
  -- What is in the stage now, g, and the share of the loaded water that is gone.
  stage_g     REAL    NOT NULL,
  water_gone  REAL,
  -- Start of the rest, for how far along it is.
  rest_from   INTEGER,
  finish_from INTEGER,
  finish_to   INTEGER,
  -- Own ratios for later forecasts; null where a weight was not taken.
  prep_yield  REAL,
  drying_ratio REAL,
  recovery    REAL,
  pace        REAL,
  trays       TEXT    NOT NULL CHECK (json_valid(trays))
) STRICT, WITHOUT ROWID;
CREATE INDEX batch_view_open    ON batch_view (stage, number) WHERE stage <> 'shelf';
CREATE INDEX batch_view_number  ON batch_view (number);
CREATE INDEX batch_view_machine ON batch_view (machine_id) WHERE stage = 'drying';
CREATE INDEX batch_view_food    ON batch_view (food_key, stage, number);

CREATE TABLE todo (
  batch_id TEXT    NOT NULL REFERENCES batch (id),
  kind     TEXT    NOT NULL,
  due      INTEGER NOT NULL,
  from_at  INTEGER NOT NULL,
  to_at    INTEGER,
  title    TEXT    NOT NULL,
  why      TEXT    NOT NULL,
  PRIMARY KEY (batch_id, kind)
) STRICT, WITHOUT ROWID;
CREATE INDEX todo_due ON todo (due);

CREATE TABLE jar_view (
  jar_id      TEXT PRIMARY KEY REFERENCES jar (id),
  batch_id    TEXT    NOT NULL REFERENCES batch (id),
  number      INTEGER NOT NULL,
  food_key    TEXT    NOT NULL,
  purpose     TEXT    NOT NULL,
  place       TEXT    NOT NULL,
  package_key TEXT    NOT NULL,
  net_g       REAL    NOT NULL,
  left_g      REAL    NOT NULL,
  size_ml     INTEGER,
  packed_at   INTEGER NOT NULL,
  best_from   INTEGER NOT NULL,
  best_to     INTEGER NOT NULL,
  smell       TEXT
) STRICT, WITHOUT ROWID;
CREATE INDEX jar_view_shelf ON jar_view (place, number, left_g) WHERE left_g > 0;
CREATE INDEX jar_view_best  ON jar_view (best_from) WHERE left_g > 0;
CREATE INDEX jar_view_batch ON jar_view (batch_id);

CREATE TABLE meta (key TEXT PRIMARY KEY, value TEXT NOT NULL) STRICT;
