-- Machines of every kind, and trays that weigh differently.
CREATE TABLE machine_of_any_kind (
  id           TEXT PRIMARY KEY CHECK (length(id) = 36),
  name         TEXT    NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  kind         TEXT    NOT NULL CHECK (kind IN ('dehydrator', 'oven', 'smoker', 'freeze-dryer', 'sun', 'air')),
  trays        INTEGER NOT NULL CHECK (trays BETWEEN 1 AND 40),
  tray_area_m2 REAL    NOT NULL CHECK (tray_area_m2 > 0 AND tray_area_m2 <= 2),
  tray_tare_g  REAL    NOT NULL CHECK (tray_tare_g >= 0 AND tray_tare_g <= 5000),
  -- Grams of single trays that differ, by the place they belong to: {"3": 412}.
  tray_tares   TEXT    NOT NULL DEFAULT '{}' CHECK (json_valid(tray_tares)),
  watts        INTEGER NOT NULL CHECK (watts BETWEEN 1 AND 20000),
  low_c        REAL    NOT NULL CHECK (low_c BETWEEN 0 AND 200),
  high_c       REAL    NOT NULL CHECK (high_c BETWEEN 0 AND 250 AND high_c > low_c),
  retired_at   INTEGER,
  version      INTEGER NOT NULL DEFAULT 1
) STRICT;
INSERT INTO machine_of_any_kind (id, name, kind, trays, tray_area_m2, tray_tare_g, watts, low_c, high_c, retired_at, version)
  SELECT id, name, kind, trays, tray_area_m2, tray_tare_g, watts, low_c, high_c, retired_at, version FROM machine;
DROP TABLE machine;
ALTER TABLE machine_of_any_kind RENAME TO machine;

-- Who cut the food of a finished batch: hands differ in thickness.
ALTER TABLE batch_view ADD COLUMN cut_by TEXT;

-- What follows from the runs; made anew with the other views.
CREATE TABLE run_view (
  run_id     TEXT PRIMARY KEY REFERENCES run (id),
  machine_id TEXT NOT NULL REFERENCES machine (id),
  heat_hours REAL NOT NULL,
  -- [{ setC, measuredC }]
  heat_seen  TEXT NOT NULL CHECK (json_valid(heat_seen))
) STRICT, WITHOUT ROWID;
CREATE INDEX run_view_machine ON run_view (machine_id);

-- A run's batches are asked for whatever became of them since.
CREATE INDEX entry_load ON entry (json_extract(body, '$.runId')) WHERE kind = 'load';

-- Pace of single trays of finished batches, in the place where they stood.
CREATE TABLE tray_pace (
  batch_id   TEXT    NOT NULL REFERENCES batch (id),
  machine_id TEXT    NOT NULL REFERENCES machine (id),
  place      INTEGER NOT NULL,
  ln_pace    REAL    NOT NULL,
  sd         REAL    NOT NULL,
  PRIMARY KEY (batch_id, place)
) STRICT, WITHOUT ROWID;
CREATE INDEX tray_pace_machine ON tray_pace (machine_id, batch_id);

-- What was done for a machine's upkeep, and at how many hours run. Rows are added only.
CREATE TABLE upkeep (
  id         TEXT PRIMARY KEY CHECK (length(id) = 36),
  machine_id TEXT    NOT NULL REFERENCES machine (id),
  task       TEXT    NOT NULL CHECK (length(task) BETWEEN 1 AND 40),
  at         INTEGER NOT NULL,
  hours_run  REAL    NOT NULL CHECK (hours_run >= 0)
) STRICT, WITHOUT ROWID;
CREATE INDEX upkeep_machine ON upkeep (machine_id, at);

-- Outside devices and what they read. A reading is one figure of one channel at one instant.
CREATE TABLE device (
  id         TEXT PRIMARY KEY CHECK (length(id) = 36),
  name       TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  kind       TEXT NOT NULL CHECK (kind IN ('scale', 'probe', 'hygrometer', 'controller', 'logger')),
  machine_id TEXT REFERENCES machine (id),
  version    INTEGER NOT NULL DEFAULT 1
) STRICT, WITHOUT ROWID;

CREATE TABLE reading (
  device_id TEXT    NOT NULL REFERENCES device (id),
  channel   TEXT    NOT NULL CHECK (channel IN ('weightG', 'celsius', 'humidity', 'pressurePa')),
  at        INTEGER NOT NULL,
  value     REAL    NOT NULL,
  PRIMARY KEY (device_id, channel, at)
) STRICT, WITHOUT ROWID;
