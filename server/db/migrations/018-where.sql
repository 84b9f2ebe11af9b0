-- Where the household lives, degrees north and east: by it the sun's hours; by its clock where it is empty.
ALTER TABLE household ADD COLUMN latitude REAL;
ALTER TABLE household ADD COLUMN longitude REAL;
