-- What stands in the log: neither corrected nor voided, and no voiding itself. Every query that asks what is so asks here.
-- Voiding a correction voids the fact; it does not bring the older figure back.
CREATE INDEX entry_replaces ON entry (replaces) WHERE replaces IS NOT NULL;
CREATE INDEX entry_voids ON entry (json_extract(body, '$.target')) WHERE kind = 'void';
CREATE VIEW entry_in_force AS
SELECT e.* FROM entry e
WHERE e.kind <> 'void'
  AND NOT EXISTS (SELECT 1 FROM entry later WHERE later.replaces = e.id)
  AND NOT EXISTS (SELECT 1 FROM entry later WHERE later.kind = 'void' AND json_extract(later.body, '$.target') = e.id);

-- Where a jar stands and how warm it is there is asked of the entries that say so.
CREATE INDEX entry_place ON entry (json_extract(body, '$.place'), at)
  WHERE kind IN ('pack', 'moveJar', 'fill', 'stock') AND json_extract(body, '$.storageC') IS NOT NULL;

-- Ways of drying are declared in core/ways: the table need not know them by name.
CREATE TABLE machine_of_any_way (
  id           TEXT PRIMARY KEY CHECK (length(id) = 36),
  name         TEXT    NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  kind         TEXT    NOT NULL CHECK (length(kind) BETWEEN 1 AND 40),
  trays        INTEGER NOT NULL CHECK (trays BETWEEN 1 AND 40),
  tray_area_m2 REAL    NOT NULL CHECK (tray_area_m2 > 0 AND tray_area_m2 <= 2),
  tray_tare_g  REAL    NOT NULL CHECK (tray_tare_g >= 0 AND tray_tare_g <= 5000),
  -- Grams of single trays that differ, by the place they belong to: {"3": 412}.
  tray_tares   TEXT    NOT NULL DEFAULT '{}' CHECK (json_valid(tray_tares)),
  watts        INTEGER NOT NULL CHECK (watts BETWEEN 1 AND 20000),
  low_c        REAL    NOT NULL CHECK (low_c BETWEEN 0 AND 200),
  high_c       REAL    NOT NULL CHECK (high_c BETWEEN 0 AND 250 AND high_c > low_c),
  -- Ice that a freeze dryer holds a load, g.
  ice_g        REAL    CHECK (ice_g IS NULL OR (ice_g > 0 AND ice_g <= 100000)),
  retired_at   INTEGER,
  version      INTEGER NOT NULL DEFAULT 1
) STRICT;
INSERT INTO machine_of_any_way (id, name, kind, trays, tray_area_m2, tray_tare_g, tray_tares, watts, low_c, high_c, ice_g, retired_at, version)
  SELECT id, name, kind, trays, tray_area_m2, tray_tare_g, tray_tares, watts, low_c, high_c, ice_g, retired_at, version FROM machine;
DROP TABLE machine;
ALTER TABLE machine_of_any_way RENAME TO machine;
