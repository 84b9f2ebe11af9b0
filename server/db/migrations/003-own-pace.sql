-- How fast a machine dries against the cards is asked at every loading.
CREATE INDEX batch_view_pace ON batch_view (machine_id, number) WHERE pace IS NOT NULL;
