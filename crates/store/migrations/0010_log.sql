-- A parcel that left, in figures, as the log reads it; and the day on which it did.
ALTER TABLE shipment ADD COLUMN logged jsonb;
ALTER TABLE shipment ADD COLUMN left_on date;
CREATE INDEX shipment_left ON shipment (studio_id, left_on DESC, id DESC) WHERE logged IS NOT NULL;
