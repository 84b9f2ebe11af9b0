-- How sure the pace of a finished run is, as the standard deviation of its logarithm: a run that was weighed twice teaches less.
ALTER TABLE batch_view ADD COLUMN pace_doubt REAL;
-- Whether another run teaches by now is asked at every page that tells hours ahead.
CREATE INDEX batch_view_paced ON batch_view (number, pace, touched_at) WHERE pace IS NOT NULL;
