-- How often a carrier was asked to book it; and where it refused after a try without an answer, how often it was asked since what it
-- holds, and when it is asked next.
ALTER TABLE booking ADD COLUMN tries integer;
ALTER TABLE booking ADD COLUMN looks integer;
ALTER TABLE booking ADD COLUMN look_at timestamptz;
CREATE INDEX booking_look ON booking (studio_id, look_at) WHERE look_at IS NOT NULL;
