-- How sure the pace of a finished run is, as the standard deviation of its logarithm: a run that was weighed twice teaches less.
ALTER TABLE batch_view ADD COLUMN pace_doubt REAL;
